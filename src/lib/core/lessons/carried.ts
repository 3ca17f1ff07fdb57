/**
 * What was learned of another version of the same piece and is known in this one: steps of a hand, in the measures in which that hand has
 * the same notes in both, and steps of both hands where both are the same. So the basic version first and the fuller one after
 * it are one way.
 */
import { placesText } from '../score/places';
import { measureAt, soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { chunkOf, placesOf } from './chunkId';
import { holding, isGained, type LessonEvent } from './events';
import type { StepHand } from './steps';

/** What each hand plays, measure by measure: equal texts are equal notes. */
export interface HandsOfVersion {
  /** Ids of the measures. */
  readonly ids: readonly string[];
  readonly hands: { readonly right: readonly string[]; readonly left: readonly string[] };
}

/** The hands of a written version as texts by measure: onsets and lengths in ticks, keys as MIDI numbers. */
export function handsByMeasure({ measures, parts }: Score): HandsOfVersion['hands'] {
  const texts = (staff: number): string[] => {
    const own = measures.map((): string[] => []);
    for (const n of soundingNotes((parts[0]?.notes ?? []).filter((note) => note.staff === staff))) {
      const { index, start } = measureAt(measures, n.onset);
      own[index]!.push(`${n.onset - start}+${n.duration}=${n.midi}`);
    }
    return own.map((notes) => notes.sort().join(' '));
  };
  return { right: texts(1), left: texts(2) };
}

/**
 * The steps gained in `from` as steps in `to`: one event for each run of measures that are the same. Beats at the ends of a chunk stay.
 * Steps that no hand plays are of one version alone, and so is what is connected: it depends on where chunks begin.
 */
export function carriedFrom(
  events: readonly LessonEvent[],
  from: HandsOfVersion,
  to: HandsOfVersion,
): LessonEvent[] {
  const placeIn = new Map(to.ids.map((id, i) => [id, i]));
  return holding(events).flatMap((event): LessonEvent[] => {
    const { hand } = event;
    const places = placesOf(from.ids, event.chunk);
    if (!hand || event.step === 'join' || !isGained(event) || !places) return [];
    const runs: { first: number; last: number; of: number }[] = [];
    for (let i = places.from; i <= places.to; i++) {
      const here = placeIn.get(from.ids[i]!);
      if (here === undefined || !isSame(hand, from, i, to, here)) continue;
      const run = runs.at(-1);
      if (run && run.last + 1 === here && run.of + (run.last - run.first) + 1 === i) run.last = here;
      else runs.push({ first: here, last: here, of: i });
    }
    return runs.map((run) => ({
      ...event,
      chunk: chunkOf(to.ids, {
        from: run.first,
        to: run.last,
        ...(run.of === places.from && places.fromBeat !== undefined ? { fromBeat: places.fromBeat } : {}),
        ...(run.of + run.last - run.first === places.to && places.toBeat !== undefined
          ? { toBeat: places.toBeat }
          : {}),
      }),
    }));
  });
}

function isSame(hand: StepHand, from: HandsOfVersion, i: number, to: HandsOfVersion, k: number): boolean {
  const hands = hand === 'both' ? (['right', 'left'] as const) : [hand];
  // A measure in which a hand rests teaches it nothing.
  return (
    hands.every((h) => from.hands[h][i] !== undefined && from.hands[h][i] === to.hands[h][k]) &&
    hands.some((h) => from.hands[h][i] !== '')
  );
}

const HAND_NAMES = [
  ['right', 'right hand'],
  ['left', 'left hand'],
  ['both', 'hands together'],
] as const satisfies readonly (readonly [StepHand, string])[];

/** What some events are about as one text, hand by hand: "right hand, measures 1 to 4; left hand, measure 7". `numbers` are those printed. */
export const carriedText = (
  events: readonly LessonEvent[],
  ids: readonly string[],
  numbers: readonly string[],
): string =>
  HAND_NAMES.flatMap(([hand, name]) => {
    const own = events.filter((e) => e.hand === hand);
    return own.length === 0 ? [] : [`${name}, ${measuresOf(own, ids, numbers)}`];
  }).join('; ');

/** The measures of some events, run by run. */
function measuresOf(
  events: readonly LessonEvent[],
  ids: readonly string[],
  numbers: readonly string[],
): string {
  const chunks = events.flatMap(({ chunk }) => placesOf(ids, chunk) ?? []);
  const isIn = (i: number): boolean => chunks.some(({ from, to }) => from <= i && i <= to);
  const all = ids.map((_, i) => i);
  return all
    .filter((i) => isIn(i) && !isIn(i - 1))
    .map((from) => placesText(numbers, { from, to: all.find((i) => i >= from && !isIn(i + 1))! }))
    .join(', ');
}
