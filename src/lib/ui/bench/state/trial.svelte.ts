/** Hearing what is not decided yet: the phrase in hand in another texture, inversion, level or key, one after another by one key. */
import { inSentence } from '$core/capital';
import { levelText } from '$core/arrange/levels';
import { decide } from '$core/decisions/decide';
import { kindOf, type Decision } from '$core/decisions/registry';
import { keyOptions } from '$core/theory/easyKeys';
import { keyCode } from '$core/theory/key';
import { documentOf, listed, type VersionDocument } from '$core/version/document';
import type { Recipe } from '$core/version/recipe';
import type { HeardPhrase } from '$ui/worker/engine';
import type { LevelContract } from '$core/arrange/levels';
import type { Situation } from '$core/decisions/kind';
import type { Layout } from '$core/decisions/holds';
import type { DocumentState } from './document.svelte';
import type { SoundState } from '$ui/sound/sound.svelte';
import type { ViewState } from './view.svelte';

export const TRIALS = ['texture', 'inversion', 'level', 'key'] as const;
export type Trial = (typeof TRIALS)[number];

/** One thing that could be chosen: what it is called, and what it would change. */
interface Candidate {
  readonly name: string;
  readonly decisions?: readonly Decision[];
  readonly recipe?: Partial<Recipe>;
}

/** What of the bench is needed to try something. */
interface TriedOn {
  readonly document: DocumentState;
  readonly view: ViewState;
  readonly sound: SoundState;
  readonly levels: readonly LevelContract[];
  readonly situation: Situation | undefined;
  readonly layout: Layout | undefined;
  /** The phrase in hand, by its place. */
  readonly phrase: number;
}

export class TrialState {
  /** What is tried now: "block chord". */
  now = $state.raw<Candidate & { readonly what: Trial }>();
  readonly #bench: TriedOn;
  readonly #hear: (document: VersionDocument, from: number, to: number) => Promise<HeardPhrase>;

  constructor(
    bench: TriedOn,
    hear: (document: VersionDocument, from: number, to: number) => Promise<HeardPhrase>,
  ) {
    this.#bench = bench;
    this.#hear = hear;
  }

  /** Plays the phrase in hand with the next candidate. */
  async next(what: Trial): Promise<void> {
    const { view, phrase, document, sound } = this.#bench;
    const place = view.version?.form.phrases[phrase];
    const candidates = this.#candidates(what);
    if (!place || candidates.length === 0) return;
    const at = this.now?.what === what ? candidates.findIndex((c) => c.name === this.now?.name) : -1;
    const candidate = candidates[(at + 1) % candidates.length]!;
    this.now = { ...candidate, what };
    const { recipe, decisions = [] } = candidate;
    const tried = documentOf(
      { ...document.recipe, ...recipe },
      decide(listed(document.current), ...decisions),
    );
    const phraseHeard = await this.#hear(tried, place.from, place.to);
    if (this.now?.name === candidate.name) await sound.hearPhrase(phraseHeard);
  }

  /** Decides what is tried. */
  take(): void {
    const { now } = this;
    const { document } = this.#bench;
    this.now = undefined;
    this.#bench.sound.stop();
    if (now?.decisions) document.decide(...now.decisions);
    if (now?.recipe) document.setRecipe(now.recipe);
  }

  leave(): void {
    this.now = undefined;
  }

  #candidates(what: Trial): Candidate[] {
    const { view, levels, document, situation, layout, phrase } = this.#bench;
    const { version } = view;
    const place = version?.form.phrases[phrase];
    if (!version || !situation || !layout || !place) return [];
    const at = {
      range: [layout.measures[place.from]!.id, layout.measures[place.to]!.id] as [string, string],
    };
    switch (what) {
      case 'texture':
        return (kindOf('texture').choices?.(situation) ?? []).map(([value, name]) => ({
          name: inSentence(name),
          decisions: [{ kind: 'texture', at, value }],
        }));
      case 'inversion':
        return (kindOf('inversion').choices?.(situation) ?? []).map(([value, name]) => ({
          name: `inversion ${name}`,
          decisions: [{ kind: 'inversion', at, value }],
        }));
      case 'level':
        return levels
          .filter(({ level }) => level !== document.recipe.level)
          .map(({ level, name }) => ({
            name: `level ${levelText(level)} (${name})`,
            recipe: { level },
          }));
      case 'key':
        return keyOptions(version.sourceKey.mode)
          .filter(({ code }) => code !== keyCode(version.key))
          .map(({ code, name }) => ({ name, recipe: { key: code } }));
    }
  }
}
