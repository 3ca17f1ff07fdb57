/** What can be done on the bench, as intents: plain data that keys, clicks and menus mean. `perform` carries them out. */
import type { DecisionKey } from '$core/decisions/kind';
import { allKinds, kindOf, type Decision, type KindId } from '$core/decisions/registry';
import { sectionDecision } from '$core/decisions/holds';
import type { Anchor, Scope } from '$core/decisions/anchor';
import type { Recipe } from '$core/version/recipe';
import type { MeasureFingering } from '$core/version/why';
import type { BenchState } from './state/bench.svelte';
import type { Move } from './walk';

export type Intent =
  | { readonly do: 'move'; readonly move: Move }
  | { readonly do: 'select note'; readonly note: string }
  | { readonly do: 'select measure'; readonly measure: number }
  /** The key of a kind of decision, at the note or in the measure in hand. */
  | { readonly do: 'decide by key'; readonly kind: KindId; readonly press: string }
  /** A value for a scope in hand; undefined gives it back. */
  | {
      readonly do: 'decide here';
      readonly kind: KindId;
      readonly scope: Scope;
      readonly value: Decision['value'] | undefined;
    }
  | { readonly do: 'decide all'; readonly decisions: readonly Decision[] }
  | { readonly do: 'give back'; readonly kind: KindId; readonly at: Anchor }
  /** Everything that is decided about the note in hand. */
  | { readonly do: 'give note back' }
  | { readonly do: 'set recipe'; readonly part: Partial<Recipe> }
  /** The panel's field for a kind takes the keyboard. */
  | { readonly do: 'write'; readonly kind: KindId }
  /** Plays from the note in hand, or stops. */
  | { readonly do: 'play' }
  /** The measure in hand under a fingering; without one the next of those that would do, one after another. */
  | { readonly do: 'hear'; readonly fingering?: MeasureFingering }
  | { readonly do: 'loop' }
  | { readonly do: 'slower' }
  | { readonly do: 'faster' }
  | { readonly do: 'undo' }
  | { readonly do: 'redo' };

/** The narrowest scope at which a kind is decided by its keys. */
export const keyScope = (kind: KindId): Scope => (kindOf(kind).scopes.includes('note') ? 'note' : 'measure');

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
    case 'decide by key':
      return decideByKey(bench, intent.kind, intent.press);
    case 'decide here':
      return decideHere(bench, intent.kind, intent.scope, intent.value);
    case 'decide all':
      return document.decide(...intent.decisions);
    case 'give back':
      return document.giveBack(intent);
    case 'give note back': {
      const at = bench.anchor('note');
      if (at) document.giveBack(...noteKinds().map((kind) => ({ kind: kind.id, at })));
      return;
    }
    case 'set recipe':
      return document.setRecipe(intent.part);
    case 'play':
      return void bench.sound.toggle(selection.note?.onset ?? 0, phraseInHand(bench));
    case 'hear':
      return hear(bench, intent.fingering);
    case 'loop':
      bench.sound.loops = !bench.sound.loops;
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

/** The measures of the phrase in hand. */
function phraseInHand({ view, phrase }: BenchState): { from: number; to: number } | undefined {
  return view.version?.form.phrases[phrase];
}

/** Kinds that are decided about a note. */
export const noteKinds = () => allKinds().filter((kind) => kind.scopes.includes('note'));

function decideByKey(bench: BenchState, kind: KindId, press: string): void {
  const key = kindOf(kind).keys?.find((k) => k.press === press) as DecisionKey<Decision['value']> | undefined;
  const scope = keyScope(kind);
  const [at, situation] = [bench.anchor(scope), bench.situation];
  if (!key || !at || !situation) return;
  decideHere(bench, kind, scope, key.next(bench.document.decided(kind, at)?.value, situation));
}

function decideHere(
  bench: BenchState,
  kind: KindId,
  scope: Scope,
  value: Decision['value'] | undefined,
): void {
  const at = bench.anchor(scope);
  if (!at) return;
  const before = scope === 'section' ? ofSection(bench, kind) : undefined;
  if (value === undefined) return bench.document.giveBack(before ?? { kind, at });
  const decision = { kind, at, value } as Decision;
  // What was decided for the section when it had other measures makes way.
  bench.document.decide(before ? ({ ...decision, at: before.at } as Decision) : decision);
}

/** The decision of a kind that holds in the section in hand. */
export function ofSection(bench: BenchState, kind: KindId): Decision | undefined {
  const { layout } = bench;
  const { measure } = bench.selection;
  if (!layout || measure === undefined) return undefined;
  return sectionDecision(bench.document.decisions, kind, layout, bench.sectionOf(measure));
}
