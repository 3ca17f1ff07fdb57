/** What can be done on the bench, as intents: plain data that keys, clicks and menus mean. `perform` carries them out. */
import { beatAt, type Places } from '$core/score/places';
import type { DecisionKey } from '$core/decisions/kind';
import { allKinds, kindOf, type Decision, type KindId } from '$core/decisions/registry';
import { sectionDecision } from '$core/decisions/holds';
import type { Anchor, Scope } from '$core/decisions/anchor';
import type { Recipe } from '$core/version/recipe';
import type { MeasureFingering } from '$core/version/why';
import { placesAgain, placesHere, scopeHere } from './places';
import type { BenchState } from './state/bench.svelte';
import type { Trial } from './state/trial.svelte';
import type { Move } from './walk';

export type Intent =
  | { readonly do: 'move'; readonly move: Move }
  | { readonly do: 'select note'; readonly note: string }
  | { readonly do: 'select measure'; readonly measure: number }
  /** What is chosen reaches as far as a move, a note or a measure. */
  | { readonly do: 'extend'; readonly move: Move }
  | { readonly do: 'extend to'; readonly note: string }
  | { readonly do: 'extend to measure'; readonly measure: number }
  /** The key of a kind of decision, at what is chosen. */
  | { readonly do: 'decide by key'; readonly kind: KindId; readonly press: string }
  /** A value at what is chosen; undefined gives it back. Without a scope as narrow as the kind has it. */
  | {
      readonly do: 'decide here';
      readonly kind: KindId;
      readonly scope?: Scope;
      readonly value: Decision['value'] | undefined;
    }
  | { readonly do: 'decide all'; readonly decisions: readonly Decision[] }
  | { readonly do: 'give back'; readonly kind: KindId; readonly at: Anchor }
  /** Everything that is decided about the note in hand. */
  | { readonly do: 'give note back' }
  | { readonly do: 'set recipe'; readonly part: Partial<Recipe> }
  /** The panel's field for a kind takes the keyboard. */
  | { readonly do: 'write'; readonly kind: KindId }
  /** The list of everything that can be decided here, or of what a kind offers. */
  | { readonly do: 'choose'; readonly kind?: KindId }
  /** What a level, a texture, an inversion or a key would sound like in the phrase in hand; each press the next one. */
  | { readonly do: 'try'; readonly what: Trial }
  /** Takes what was tried last. */
  | { readonly do: 'take' }
  /** Plays from the note in hand, or stops. */
  | { readonly do: 'play' }
  /** The measure in hand under a fingering; without one the next of those that would do, one after another. */
  | { readonly do: 'hear'; readonly fingering?: MeasureFingering }
  | { readonly do: 'loop' }
  /** The counts are spoken, or not. */
  | { readonly do: 'speak' }
  | { readonly do: 'slower' }
  | { readonly do: 'faster' }
  | { readonly do: 'undo' }
  | { readonly do: 'redo' };

/** Carries an intent out. What has no place at the moment does nothing. */
export function perform(bench: BenchState, intent: Intent): void {
  const { document, selection } = bench;
  switch (intent.do) {
    case 'move':
      return selection.move(intent.move);
    case 'select note':
      return selection.select(intent.note);
    case 'select measure':
      return selection.selectMeasure(intent.measure);
    case 'extend':
      return selection.extend(intent.move);
    case 'extend to':
      return selection.extendTo(intent.note);
    case 'extend to measure':
      return selection.extendToMeasure(intent.measure);
    case 'decide by key':
      return decideByKey(bench, intent.kind, intent.press);
    case 'decide here':
      return decideHere(bench, intent.kind, intent.scope ?? scopeHere(intent.kind, bench), intent.value);
    case 'decide all':
      return document.decide(...intent.decisions);
    case 'give back':
      return document.giveBack(intent);
    case 'give note back': {
      const places = selection.notes.map(({ id }) => ({ note: id }));
      const everywhere = bench.again.everywhere ? [...places, ...placesAgain(places, bench)] : places;
      document.giveBack(...noteKinds().flatMap((kind) => everywhere.map((at) => ({ kind: kind.id, at }))));
      return;
    }
    case 'try':
      return void bench.trial.next(intent.what);
    case 'take':
      return bench.trial.take();
    case 'set recipe':
      return document.setRecipe(intent.part);
    case 'play':
      return void bench.sound.toggle(selection.note?.onset ?? 0, phraseInHand(bench));
    case 'hear':
      return hear(bench, intent.fingering);
    case 'loop':
      bench.sound.loops = !bench.sound.loops;
      return;
    case 'speak':
      bench.sound.speaks = !bench.sound.speaks;
      return;
    case 'slower':
      return bench.sound.slower();
    case 'faster':
      return bench.sound.faster();
    case 'undo':
      return void document.undo();
    case 'redo':
      return void document.redo();
    case 'write':
    case 'choose':
      return; // the page's own: it moves the focus
  }
}

function hear({ sound, selection, view }: BenchState, fingering: MeasureFingering | undefined): void {
  const { measure, note } = selection;
  if (measure === undefined || !note) return;
  const hand = note.staff === 1 ? 'right' : 'left';
  const others = (view.answer?.others ?? []).filter((o) => o.hand === hand);
  const heard = others.findIndex((o) => o.fingers === sound.lastHeard);
  const next = fingering ?? others[(heard + 1) % Math.max(1, others.length)];
  void sound.hear(measure, next?.hand ?? hand, next?.fingers ?? {});
}

/** What is chosen, from the beat of its first note to that of its last where it is not by measure; else the phrase in hand. */
function phraseInHand({ view, phrase, selection }: BenchState): Places | undefined {
  const { range, notes, byMeasure } = selection;
  const measures = view.version?.score.measures;
  if (!byMeasure && notes.length > 1 && measures && range) {
    const onsets = notes.map((n) => n.onset);
    return {
      ...range,
      fromBeat: beatAt(measures[range.from]!, Math.min(...onsets)),
      toBeat: beatAt(measures[range.to]!, Math.max(...onsets)),
    };
  }
  return range && range.from !== range.to ? range : view.version?.form.phrases[phrase];
}

/** Kinds that are decided about a note. */
export const noteKinds = () => allKinds().filter((kind) => kind.scopes.includes('note'));

function decideByKey(bench: BenchState, kind: KindId, press: string): void {
  const key = kindOf(kind).keys?.find((k) => k.press === press) as DecisionKey<Decision['value']> | undefined;
  const scope = scopeHere(kind, bench);
  const [[at], { situation }] = [placesHere(kind, scope, bench), bench];
  if (!key || !at || !situation) return;
  decideHere(bench, kind, scope, key.next(bench.document.decided(kind, at)?.value, situation));
}

function decideHere(
  bench: BenchState,
  kind: KindId,
  scope: Scope,
  value: Decision['value'] | undefined,
): void {
  const places = placesHere(kind, scope, bench);
  if (places.length === 0) return;
  const before = scope === 'section' ? ofSection(bench, kind) : undefined;
  // What was decided for the section when it had other measures makes way.
  if (before) return decideAt(bench, kind, [before.at], value);
  const { again } = bench;
  const others = kindOf(kind).spans ? [] : placesAgain(places, bench);
  decideAt(bench, kind, again.everywhere ? [...places, ...others] : places, value);
  again.question =
    others.length > 0 && value !== undefined && again.everywhere === undefined
      ? { places: others.length, everywhere: () => decideAt(bench, kind, others, value) }
      : undefined;
}

function decideAt(
  { document, selection }: BenchState,
  kind: KindId,
  places: readonly Anchor[],
  value: Decision['value'] | undefined,
): void {
  if (value === undefined) return document.giveBack(...places.map((at) => ({ kind, at })));
  const { spans } = kindOf(kind);
  const made = spans ? spans(value as never, selection.notes.at(-1)!.id) : value;
  document.decide(...places.map((at) => ({ kind, at, value: made }) as Decision));
}

/** The decision of a kind that holds in the section in hand. */
export function ofSection(bench: BenchState, kind: KindId): Decision | undefined {
  const { layout } = bench;
  const { measure } = bench.selection;
  if (!layout || measure === undefined) return undefined;
  return sectionDecision(bench.document.decisions, kind, layout, bench.sectionOf(measure));
}
