/** Answers about the fingers of a version: why this one, and what else would do. Asked for one place at a time. */
import { alternativesIn } from '../fingering/alternatives';
import type { Hand } from '../fingering/events';
import { explainFinger, plainPlace, type FingerReason, type PlaceText } from '../fingering/explain';
import type { Finger } from '../fingering/grips';
import { endOf } from '../score/metre';
import { measureAt } from '../score/query';
import type { Measure } from '../score/score';
import type { Arrangement } from './arrangement';
import { decisionAt, giveBack } from '../decisions/decide';
import type { Decision } from '../decisions/registry';
import { fingered } from './realise';

/** What the answers need to know of a version: its notes in both hands. */
type Fingerable = Pick<Arrangement, 'score' | 'form' | 'reach' | 'contract' | 'taste'>;

/** Why a note of a version has its finger. Asked for one note at a time, since it solves the phrase again. */
export function whyFinger(
  made: Fingerable,
  decisions: readonly Decision[],
  noteId: string,
): FingerReason | undefined {
  const note = made.score.parts[0]?.notes.find((n) => n.id === noteId);
  if (!note) return undefined;
  const hand: Hand = note.staff === 1 ? 'right' : 'left';
  const at = { note: noteId };
  const decided = decisionAt(decisions, 'finger', at)?.value;
  const { notes, fingering: free } = fingered(made, giveBack(decisions, 'finger', at), hand);
  if (!decided) return explainFinger(notes, free, noteId, placeIn(made.score.measures));
  const { fingering: locked } = fingered(made, decisions, hand);
  const proposed = free.fingers.get(noteId);
  const dearer = locked.cost - free.cost;
  return {
    finger: decided,
    other: proposed ?? decided,
    dearer,
    text:
      proposed === decided
        ? `You chose ${decided}, as suggested.`
        : `You chose ${decided}; the suggestion was ${proposed}, ${dearer < 1 ? 'only slightly easier' : dearer < 4 ? 'a little easier' : 'much easier'} for the hand.`,
  };
}

/** Where a note lies from another, as a teacher points at it: "after the barline", "two notes later". */
export const placeIn =
  (measures: readonly Measure[]): PlaceText =>
  (from, to, steps) => {
    const measuresOn = measureAt(measures, to.onset).index - measureAt(measures, from.onset).index;
    if (measuresOn === 1 && steps <= 4) return 'after the barline';
    if (measuresOn === -1 && steps >= -4) return 'before the barline';
    if (Math.abs(measuresOn) >= 1) return `in measure ${measureAt(measures, to.onset).number}`;
    return plainPlace(from, to, steps);
  };

/** One way to finger a measure in one hand. */
export interface MeasureFingering {
  readonly hand: Hand;
  readonly fingers: Readonly<Record<string, Finger>>;
  readonly name: string;
  readonly dearer: number;
}

/** For each hand the fingering of a measure as it is, first, and what else would do, named by what it trades. */
export function otherFingerings(
  made: Fingerable,
  decisions: readonly Decision[],
  measure: number,
): MeasureFingering[] {
  const at = made.score.measures[measure];
  if (!at) return [];
  return (['right', 'left'] as const).flatMap((hand) =>
    alternativesIn(fingered(made, decisions, hand).fingering, at.start, endOf(at)).map(
      ({ fingers, name, dearer }) => ({ hand, fingers: Object.fromEntries(fingers), name, dearer }),
    ),
  );
}
