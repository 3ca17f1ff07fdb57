/** Carries out what is decided: every kind that changes notes, then every kind that marks the page, in the order of the registry. */
import { soundingNotes } from '../score/query';
import type { Note, Part } from '../score/score';
import { byNote } from './decide';
import { valuesIn, type Layout } from './holds';
import type { Held, Passage } from './kind';
import { allKinds, type AnyKind, type Decision } from './registry';

/** The music, without what `apply` and `mark` are told one kind at a time. */
export type Surroundings = Omit<Passage, 'tied' | 'refuse'>;

/** What came of it, and the decisions that could not be carried out, with the reason. */
interface Applied<T> {
  readonly made: T;
  readonly refused: ReadonlyMap<Decision, string>;
}

/** The notes of both hands with everything that is decided about them. */
export const withDecidedNotes = (
  notes: readonly Note[],
  decisions: readonly Decision[],
  surroundings: Surroundings,
  layout: Layout,
): Applied<readonly Note[]> =>
  carriedOut(notes, decisions, layout, (made, kind, held, refuse) =>
    kind.apply ? kind.apply(made, held, { ...surroundings, tied: tiedIn(made), refuse }) : made,
  );

/** The finished part with the marks that are decided for it. */
export const withDecidedMarks = (
  part: Part,
  decisions: readonly Decision[],
  surroundings: Surroundings,
  layout: Layout,
): Applied<Part> =>
  carriedOut(part, decisions, layout, (made, kind, held, refuse) =>
    kind.mark ? kind.mark(made, held, { ...surroundings, tied: tiedIn(made.notes), refuse }) : made,
  );

function tiedIn(notes: readonly Note[]): Passage['tied'] {
  const written = new Map(soundingNotes(notes).map((n) => [n.id, n.written]));
  return (struck) => written.get(struck) ?? [struck];
}

function carriedOut<T>(
  from: T,
  decisions: readonly Decision[],
  layout: Layout,
  step: (made: T, kind: AnyKind, held: Held<Decision['value']>, refuse: Passage['refuse']) => T,
): Applied<T> {
  const refused = new Map<Decision, string>();
  let made = from;
  for (const kind of allKinds()) {
    const own = decisions.filter((d) => d.kind === kind.id);
    if (own.length === 0) continue;
    const held = { notes: byNote(own, kind.id), measures: valuesIn(kind.id, own, layout) };
    made = step(made, kind, held, (place, why) => {
      for (const decision of own)
        if (
          typeof place === 'string'
            ? 'note' in decision.at && decision.at.note === place
            : holdsIn(decision, place, layout)
        )
          refused.set(decision, why);
    });
  }
  return { made, refused };
}

/** Whether a decision is one of those that hold in a measure. */
const holdsIn = (decision: Decision, measure: number, layout: Layout): boolean =>
  !('note' in decision.at) && valuesIn(decision.kind, [decision], layout)[measure] !== undefined;
