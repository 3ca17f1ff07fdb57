/** Decisions that have no place in a version as it is, each with the reason. They are kept, and come back with their place. */
import type { Layout } from './holds';
import { rangeHeld, sectionsHeld } from './holds';
import type { Decision } from './registry';
import { kindOf } from './registry';

export interface Parked {
  readonly decision: Decision;
  /** "its note is not in this version" */
  readonly why: string;
}

interface Standing extends Layout {
  /** Notes that the stage "hands" was given, by id: what changes notes stands with them. */
  readonly arranged: { has(note: string): boolean };
  /** Notes that are struck in the end. */
  readonly struck: { has(note: string): boolean };
  /** Decisions that their stage could not take, with the reason. */
  readonly refused: ReadonlyMap<Decision, string>;
}

/** What waits, in the order in which it was decided. */
export function parkedIn(decisions: readonly Decision[], standing: Standing): Parked[] {
  // By what they say: a stage that is kept answers for an equal decision that it was given before.
  const refused = new Map([...standing.refused].map(([decision, why]) => [JSON.stringify(decision), why]));
  return decisions.flatMap((decision): Parked[] => {
    const own = refused.size > 0 ? refused.get(JSON.stringify(decision)) : undefined;
    const why = own ?? missing(decision, standing);
    return why === undefined ? [] : [{ decision, why }];
  });
}

function missing({ kind, at }: Decision, standing: Standing): string | undefined {
  if ('note' in at) {
    const notes = kindOf(kind).apply ? standing.arranged : standing.struck;
    return notes.has(at.note) ? undefined : 'its note is not in this version';
  }
  if ('measure' in at)
    return standing.measures.some((m) => m.id === at.measure)
      ? undefined
      : 'its measure is not in this version';
  if ('range' in at)
    return rangeHeld(at.range, standing) ? undefined : 'its measures are not in this version';
  if ('section' in at)
    return sectionsHeld(at.section, standing).length > 0
      ? undefined
      : 'its measures are now the smaller part of another section';
  return undefined;
}
