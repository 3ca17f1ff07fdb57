/** Answers about the fingers of a version: why this one, and what else would do. Asked for one place at a time. */
import { alternativesIn } from '../fingering/alternatives';
import type { Hand } from '../fingering/events';
import { explainFinger, plainPlace, type FingerReason, type PlaceText } from '../fingering/explain';
import type { Finger } from '../fingering/grips';
import { endOf } from '../score/metre';
import { measureAt } from '../score/query';
import type { Measure } from '../score/score';
import { fingered, type Version } from './realise';
import { decisionsOf, giveBack, type Decision, type Recipe } from './recipe';

/** Why a note of a version has its finger. Asked for one note at a time, since it solves the phrase again. */
export function whyFinger(
  version: Version,
  recipe: Recipe,
  decisions: readonly Decision[],
  noteId: string,
): FingerReason | undefined {
  const note = version.score.parts[0]?.notes.find((n) => n.id === noteId);
  if (!note) return undefined;
  const hand: Hand = note.staff === 1 ? 'right' : 'left';
  const others = giveBack(decisions, 'finger', noteId);
  const decided = decisionsOf(decisions, 'finger').find((d) => d.note === noteId);
  const { notes, fingering: free } = fingered(
    version.score,
    version.form,
    recipe,
    others,
    hand,
    version.contract,
  );
  if (!decided) return explainFinger(notes, free, noteId, placeIn(version.score.measures));
  const { fingering: locked } = fingered(
    version.score,
    version.form,
    recipe,
    decisions,
    hand,
    version.contract,
  );
  const proposed = free.fingers.get(noteId);
  const dearer = locked.cost - free.cost;
  return {
    finger: decided.finger,
    other: proposed ?? decided.finger,
    dearer,
    text:
      proposed === decided.finger
        ? `You decided ${decided.finger}; the proposal is the same.`
        : `You decided ${decided.finger}; the proposal was ${proposed}, ${dearer < 1 ? 'hardly easier' : dearer < 4 ? 'a little easier' : 'much easier'} for the hand.`,
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
  version: Version,
  recipe: Recipe,
  decisions: readonly Decision[],
  measure: number,
): MeasureFingering[] {
  const at = version.score.measures[measure];
  if (!at) return [];
  return (['right', 'left'] as const).flatMap((hand) => {
    const { fingering } = fingered(version.score, version.form, recipe, decisions, hand, version.contract);
    return alternativesIn(fingering, at.start, endOf(at)).map(({ fingers, name, dearer }) => ({
      hand,
      fingers: Object.fromEntries(fingers),
      name,
      dearer,
    }));
  });
}
