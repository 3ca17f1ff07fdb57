/** A list of decisions: what is decided about one thing twice is decided once, and anything can be given back. */
import { anchorText, type Anchor } from './anchor';
import type { Decision, DecisionOf, KindId } from './registry';

/** What a decision is about, as text: a later one about the same takes its place. */
export const subjectOf = (decision: { readonly kind: KindId; readonly at: Anchor }): string =>
  `${decision.kind} ${anchorText(decision.at)}`;

/** Decides; a later decision about the same thing takes the place of the earlier one. */
export function decide(decisions: readonly Decision[], ...made: readonly Decision[]): Decision[] {
  const latest = new Map(made.map((d) => [subjectOf(d), d]));
  return [...decisions.filter((d) => !latest.has(subjectOf(d))), ...latest.values()];
}

/** Gives back to the engine what was decided about something. */
export function giveBack(decisions: readonly Decision[], kind: KindId, at: Anchor): Decision[] {
  const subject = subjectOf({ kind, at });
  return decisions.filter((d) => subjectOf(d) !== subject);
}

/** The decisions of one kind. */
export const decisionsOf = <Id extends KindId>(decisions: readonly Decision[], kind: Id): DecisionOf<Id>[] =>
  decisions.filter((d) => d.kind === kind) as unknown as DecisionOf<Id>[];

/** What is decided about notes by one kind, by the id of the note. */
export const byNote = <Id extends KindId>(
  decisions: readonly Decision[],
  kind: Id,
): ReadonlyMap<string, DecisionOf<Id>['value']> =>
  new Map(
    decisionsOf(decisions, kind).flatMap(({ at, value }) =>
      'note' in at ? [[at.note, value] as const] : [],
    ),
  );

/** The decision about exactly this place, where there is one. */
export const decisionAt = <Id extends KindId>(
  decisions: readonly Decision[],
  kind: Id,
  at: Anchor,
): DecisionOf<Id> | undefined => {
  const subject = subjectOf({ kind, at });
  return decisionsOf(decisions, kind).find((d) => subjectOf(d) === subject);
};
