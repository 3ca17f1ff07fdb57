/** Carries out what is decided: every kind that changes notes, then every kind that marks the page, in the order of the registry. */
import { plural } from '../plural';
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
  const partly = new Map<Decision, Map<string, number[]>>();
  let made = from;
  for (const kind of allKinds()) {
    const own = decisions.filter((d) => d.kind === kind.id);
    if (own.length === 0) continue;
    const held = { notes: byNote(own, kind.id), measures: valuesIn(kind.id, own, layout) };
    made = step(made, kind, held, (place, why) => {
      for (const decision of own)
        if (typeof place === 'string') {
          if ('note' in decision.at && decision.at.note === place) refused.set(decision, why);
        } else if (holdsIn(decision, place, layout) && !isPickupOfMore(decision, place, layout)) {
          const places = partly.get(decision) ?? new Map<string, number[]>();
          partly.set(decision, places.set(why, [...(places.get(why) ?? []), place]));
        }
    });
  }
  for (const [decision, places] of partly) refused.set(decision, whyIn(decision, places, layout));
  return { made, refused };
}

/** A pickup has little to change: nothing is said of it where a decision holds for more. */
const isPickupOfMore = (decision: Decision, measure: number, layout: Layout): boolean =>
  layout.measures[measure]!.number === '0' && !('measure' in decision.at);

/** Most measures that are named. */
const MOST_NAMED = 4;

/** Why a decision is not carried out, and where it is only so in some of its measures. */
function whyIn(decision: Decision, places: ReadonlyMap<string, readonly number[]>, layout: Layout): string {
  const all = valuesIn(decision.kind, [decision], layout).filter((value) => value !== undefined).length;
  const refused = new Set([...places.values()].flat()).size;
  return [...places]
    .map(([why, own]) => {
      if (refused === all && places.size === 1) return why;
      const named = [...new Set(own)].slice(0, MOST_NAMED).map((i) => layout.measures[i]!.number);
      const more = new Set(own).size - named.length;
      return `${why}, in ${named.length === 1 ? 'measure' : 'measures'} ${named.join(', ')}${more > 0 ? ` and ${plural(more, 'more', 'more')}` : ''}`;
    })
    .join('; ');
}

/** Whether a decision is one of those that hold in a measure. */
const holdsIn = (decision: Decision, measure: number, layout: Layout): boolean =>
  !('note' in decision.at) && valuesIn(decision.kind, [decision], layout)[measure] !== undefined;
