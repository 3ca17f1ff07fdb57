/** Everything that can be changed at what is chosen, as one list: what each kind of decision offers, its keys, and the version's settings. */
import { levelText } from '$core/arrange/levels';
import { inSentence } from '$core/capital';
import type { Anchor, Scope } from '$core/decisions/anchor';
import { allKinds, kindOf, type AnyKind, type Decision, type KindId } from '$core/decisions/registry';
import type { Recipe } from '$core/version/recipe';
import { keyText } from '$ui/form/press';
import { perform } from './commands';
import { placesHere, scopeHere } from './places';
import {
  COUNTED,
  FEELS,
  INTRODUCTIONS,
  MUSIC_KINDS,
  STYLES,
  styleOf,
  type RecipeChoice,
} from './recipeChoices';
import type { Sought } from './seek';
import type { BenchState } from './state/bench.svelte';

export interface Offer extends Sought {
  /** What it means, in a few words; it is not searched. */
  readonly says?: string;
  /** What stands behind the name: that it is chosen, its key. */
  readonly note?: string;
  /** Takes it; `write` where it is to be written first, `pattern` where a pattern is. */
  readonly take: () => void | 'write' | 'pattern';
  /** The kind of decision, where it is one. */
  readonly kind?: KindId;
  /** It is listed, and can't be taken here: the note says why. */
  readonly isRefused?: true;
}

/** The scope for which a kind is decided: the one that was asked for, where it has it. */
export const scopeOfKind = (bench: BenchState, kind: AnyKind, wished: Scope | undefined): Scope =>
  wished && kind.scopes.includes(wished) ? wished : scopeHere(kind.id, bench);

/** What is decided of a kind at what is chosen. */
export function decidedNow(
  bench: BenchState,
  kind: AnyKind,
  wished: Scope | undefined,
): Decision['value'] | undefined {
  const [at]: readonly Anchor[] = placesHere(kind.id, scopeOfKind(bench, kind, wished), bench);
  return at && bench.document.decided(kind.id, at)?.value;
}

/** Leads to where a pattern is written. */
const OWN_PATTERN = 'your own pattern …';

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What kinds offer at what is chosen; of one kind only where `only` names it. */
export function offersOf(bench: BenchState, wished: Scope | undefined, only?: KindId): readonly Offer[] {
  const { situation } = bench;
  if (!situation) return [];
  const kinds = only ? [kindOf(only) as unknown as AnyKind] : allKinds();
  return kinds.flatMap((kind): Offer[] => {
    const scope = scopeOfKind(bench, kind, wished);
    if (placesHere(kind.id, scope, bench).length === 0) return [];
    const now = decidedNow(bench, kind, wished);
    const group = { group: kind.name, words: kind.words, kind: kind.id };
    const choose = (value: Decision['value'] | undefined) => () =>
      perform(bench, { do: 'decide here', kind: kind.id, scope, value });
    const choices = choicesOf(bench, kind, scope).map(([value, name]): Offer => ({
      ...group,
      name,
      ...(same(now, value) ? { note: 'your choice' } : {}),
      take: choose(value),
    }));
    // What has no choices is moved by its keys, from what it is now.
    const moves = choices.length > 0 || only ? [] : (kind.keys ?? []);
    const steps = moves.map(({ press, does, next }): Offer => ({
      ...group,
      name: does,
      note: keyText(press),
      take: () => choose(next(now, situation))(),
    }));
    const written: Offer[] = kind.written
      ? [
          {
            ...group,
            name: now === undefined ? 'write …' : `“${kind.written.show(now, situation)}”, write …`,
            take: () => 'write',
          },
        ]
      : [];
    const refused = (kind.refused?.(situation) ?? []).map(([name, why]): Offer => ({
      ...group,
      name,
      note: why,
      isRefused: true,
      take: () => undefined,
    }));
    const isPatterned = (kind.id === 'texture' || kind.id === 'rhythm') && choices.length > 0;
    const own: Offer[] = isPatterned ? [{ ...group, name: OWN_PATTERN, take: () => 'pattern' }] : [];
    const reset: Offer[] = now === undefined ? [] : [{ ...group, name: 'reset', take: choose(undefined) }];
    return [...choices, ...own, ...steps, ...written, ...reset, ...refused];
  });
}

/** What a kind offers here; what leads from note to note needs more than one. */
export function choicesOf(
  bench: BenchState,
  kind: AnyKind,
  scope?: Scope,
): readonly (readonly [Decision['value'], string])[] {
  const { situation, selection } = bench;
  const { spans } = kind;
  return (situation ? (kind.choices?.({ ...situation, ...(scope ? { scope } : {}) }) ?? []) : []).filter(
    ([value]) => !spans || selection.notes.length > 1 || spans(value, '') === value,
  );
}

/** A setting of the whole version that has a few values, with the words by which it is looked for. */
interface Setting {
  readonly part: keyof Recipe;
  readonly group: string;
  readonly words: string;
  readonly choices: readonly RecipeChoice<unknown>[];
  readonly now: unknown;
}

/** The settings of the whole version, as a teacher may look for them in the same list. */
export function settingsOffered(bench: BenchState): readonly Offer[] {
  const { recipe } = bench.document;
  const { version } = bench.view;
  const style = styleOf(recipe, version);
  const offer = (
    { part, group, words, now }: Omit<Setting, 'choices'>,
    { value, label, note }: RecipeChoice<unknown>,
  ): Offer => ({
    group: `${group} (whole version)`,
    words,
    name: label,
    ...(note ? { says: note } : {}),
    ...(value === now ? { note: 'your choice' } : {}),
    take: () => perform(bench, { do: 'set recipe', part: { [part]: value } }),
  });
  const settings: readonly Setting[] = [
    {
      part: 'style',
      group: 'Style',
      words: 'melody hands voice singer accompany',
      choices: STYLES,
      now: style,
    },
    { part: 'idiom', group: 'Kind of music', words: 'style idiom', choices: MUSIC_KINDS, now: recipe.idiom },
    {
      part: 'introduction',
      group: 'Introduction',
      words: 'intro before measures',
      choices: style === 'sing-along' ? INTRODUCTIONS : [],
      now: recipe.introduction,
    },
    { part: 'feel', group: 'Eighths', words: 'feel rhythm', choices: FEELS, now: recipe.feel },
    { part: 'countFor', group: 'Counting', words: 'count hands', choices: COUNTED, now: recipe.countFor },
  ];
  return [
    ...levelsNearestFirst(bench).map(({ level, name }) => {
      const [step, words] =
        level < recipe.level
          ? [', easier', ' thinner']
          : level > recipe.level
            ? [', harder', ' fuller richer']
            : ['', ''];
      return offer(
        { part: 'level', group: 'Level', words: `difficulty${words}`, now: recipe.level },
        { value: level, label: `${levelText(level)}, ${inSentence(name)}${step}` },
      );
    }),
    ...settings.flatMap((setting) => setting.choices.map((choice) => offer(setting, choice))),
  ];
}

/** The next easier level first, down to the easiest; then this one and those above it. */
function levelsNearestFirst({ levels, document }: BenchState): BenchState['levels'] {
  const below = levels.filter(({ level }) => level < document.recipe.level);
  return [...below.reverse(), ...levels.slice(below.length)];
}
