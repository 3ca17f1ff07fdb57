/** Hands that a version has from others of its piece: where they hold, and how one version is made of two. */
import { untied } from '../arrange/joined';
import { rangeHeld, type Layout } from '../decisions/holds';
import type { Hand } from '../fingering/events';
import { measureAt } from '../score/query';
import type { Measure, Note, Score } from '../score/score';
import { listed, type VersionDocument } from './document';
import type { OtherHand, Recipe } from './recipe';

/** A version as it is picked for one of its hands. */
interface PickedVersion {
  readonly version: string;
  readonly edit: number;
  readonly name: string;
  readonly document: VersionDocument;
}

/**
 * The recipe and decisions of `base`, but with a hand of `other` in some measures (first and last id each); without any in the whole
 * piece. What `other` has for that hand from elsewhere comes along.
 */
export function withHandOf(
  base: VersionDocument,
  hand: Hand,
  { version, edit, name, document }: PickedVersion,
  measures: readonly (readonly [string, string])[],
): VersionDocument {
  const { otherHands, ...recipe } = document.recipe;
  const own: Omit<OtherHand, 'measures'> = {
    hand,
    of: { version, edit, name },
    recipe,
    decisions: listed(document),
  };
  const places = measures.length === 0 ? [null] : measures.map(([from, to]): [string, string] => [from, to]);
  const fromElsewhere = measures.length === 0 ? otherHands.filter((o) => o.hand === hand) : [];
  return {
    ...base,
    recipe: {
      ...base.recipe,
      otherHands: [
        ...base.recipe.otherHands,
        ...places.map((at) => ({ ...own, measures: at })),
        ...fromElsewhere,
      ],
    },
  };
}

/** "left hand of “Level 3 in C” in some sections", for the list of changes. */
export function otherHandsText(hands: Recipe['otherHands']): string {
  if (hands.length === 0) return 'both hands from this version';
  return hands.map((h) => `${h.hand} hand of “${h.of.name}”${placeText(h)}`).join(', ');
}

const placeText = ({ measures }: OtherHand): string => (measures ? ' in some sections' : '');

/** Indices of the measures of a version in which a hand comes from another; undefined where it has none of them. */
export const heldIn = ({ measures }: OtherHand, layout: Layout): { from: number; to: number } | undefined =>
  measures === null ? { from: 0, to: layout.measures.length - 1 } : rangeHeld(measures, layout);

/**
 * The notes of both hands with one hand of another version in the measures from `from` to `to`, found there by the ids of their measures.
 * What the other lacks stays. A note that both have is told apart by its id.
 */
export function withHandIn(
  notes: readonly Note[],
  measures: readonly Measure[],
  other: Score,
  hand: Hand,
  { from, to }: { readonly from: number; readonly to: number },
): readonly Note[] {
  const staff = hand === 'right' ? 1 : 2;
  const byId = new Map(measures.map((m) => [m.id, m]));
  const has = new Set(other.measures.map((m) => m.id));
  const isOther = (index: number): boolean =>
    index >= from && index <= to && measures[index] !== undefined && has.has(measures[index].id);
  const own = notes.filter((n) => n.staff !== staff || !isOther(measureAt(measures, n.onset).index));
  const ids = new Set(own.map((n) => n.id));
  const taken = other.parts[0]!.notes.flatMap((note): Note[] => {
    const measure = measureAt(other.measures, note.onset);
    const here = byId.get(measure.id);
    if (note.staff !== staff || !here || !isOther(here.index)) return [];
    const id = ids.has(note.id) ? `${note.id}-${hand}` : note.id;
    return [{ ...note, id, onset: note.onset - measure.start + here.start }];
  });
  const inHand = [...own.filter((n) => n.staff === staff), ...taken].sort((a, b) => a.onset - b.onset);
  return [...own.filter((n) => n.staff !== staff), ...untied(inHand, measures, isOther)].sort(
    (a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice,
  );
}
