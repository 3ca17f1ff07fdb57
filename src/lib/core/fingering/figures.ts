/**
 * Same figure, same fingers: what comes again, in the same measure rhythm or one beat after another, at the same pitch or
 * on other keys in the same pattern of black and white, is fingered alike. The line is solved once freely; then each
 * figure's most frequent fingering (a decided one before all) becomes its usual one, and the line is solved again with
 * departures from it costing.
 */
import { isBlackKey, staffPosition } from '../theory/pitch';
import { beatLength } from '../score/metre';
import { byMeasure, type SoundingNote } from '../score/query';
import type { Measure } from '../score/score';
import { eventsOf } from './events';
import { keptPositions } from './private/fiveFingers';
import type { Finger } from './grips';
import { fingerEvents, type Fingering, type FingeringSettings } from './solve';

/** The notes of one place where a figure stands. */
type Occurrence = readonly SoundingNote[];

/** Fingers a line with figures kept alike. `measures` say where a figure begins and ends. */
export function fingerWithFigures(
  notes: readonly SoundingNote[],
  measures: readonly Measure[],
  plain: FingeringSettings,
): { readonly fingering: Fingering; readonly settings: FingeringSettings } {
  const positions = keptPositions(notes, plain);
  const settings = positions.size > 0 ? { ...plain, positions } : plain;
  const events = eventsOf(notes, settings);
  const free = fingerEvents(events, settings);
  const figures = [...figuresOf(notes, measures), ...sequencesOf(notes, measures)];
  if (figures.length === 0) return { fingering: free, settings };
  const usual = new Map<string, Finger>();
  for (const places of figures) {
    const fingers = usualFingers(places, free, settings.locks);
    // What follows itself higher or lower is one figure, however its measures come again.
    for (const place of places) place.forEach((note, i) => usual.set(note.id, fingers[i]!));
  }
  const withUsual = { ...settings, usual };
  return { fingering: fingerEvents(events, withUsual), settings: withUsual };
}

/** Measures that are alike, in one hand, at any pitch that lies under the hand in the same way. */
function figuresOf(notes: readonly SoundingNote[], measures: readonly Measure[]): Occurrence[][] {
  const figures = new Map<string, Occurrence[]>();
  byMeasure(measures, notes).forEach((own, i) => {
    if (own.length === 0) return;
    const key = shapeOf(own, measures[i]!.start);
    const places = figures.get(key);
    if (places) places.push(own);
    else figures.set(key, [own]);
  });
  return [...figures.values()].filter((places) => places.length > 1);
}

/** Fewest notes of a figure shorter than a measure, and fewest times that it must follow itself to be a sequence. */
const SHORTEST = 3;
const FEWEST_TIMES = 3;

/** Figures of a beat, or of half a measure, that follow one another higher or lower. */
function sequencesOf(notes: readonly SoundingNote[], measures: readonly Measure[]): Occurrence[][] {
  const sequences: Occurrence[][] = [];
  for (const beats of [1, 2]) {
    let open: Occurrence[] = [];
    let openShape = '';
    const close = (): void => {
      if (open.length >= FEWEST_TIMES) sequences.push(open);
      open = [];
    };
    for (const { place, shape } of windowsOf(notes, measures, beats)) {
      if (place.length < SHORTEST || shape !== openShape) close();
      openShape = shape;
      if (place.length >= SHORTEST) open.push(place);
    }
    close();
  }
  return sequences;
}

function windowsOf(
  notes: readonly SoundingNote[],
  measures: readonly Measure[],
  beats: number,
): { place: SoundingNote[]; shape: string }[] {
  const windows: { place: SoundingNote[]; shape: string }[] = [];
  byMeasure(measures, notes).forEach((own, i) => {
    const measure = measures[i]!;
    const length = beats * beatLength(measure.time);
    const groups = new Map<number, SoundingNote[]>();
    for (const note of own) {
      const index = Math.floor((note.onset - measure.start + measure.beginsAt) / length);
      const group = groups.get(index);
      if (group) group.push(note);
      else groups.set(index, [note]);
    }
    for (const [index, place] of groups)
      windows.push({ place, shape: shapeOf(place, measure.start - measure.beginsAt + index * length) });
  });
  return windows;
}

/** Rhythm, steps by letter and the pattern of black and white: what makes two places the same for the hand. */
function shapeOf(place: Occurrence, start: number): string {
  const [low, first] = [staffPosition(place[0]!.pitch), place[0]!.midi];
  let shape = '';
  for (const { onset, duration, pitch, midi } of place)
    shape += `${onset - start}+${duration}=${staffPosition(pitch) - low}${Math.abs(midi - first) > 11 ? 'x' : ''}${isBlackKey(midi) ? 'b' : 'w'} `;
  return shape;
}

function usualFingers(
  places: readonly Occurrence[],
  free: Fingering,
  locks: ReadonlyMap<string, Finger>,
): Finger[] {
  const decided = places.find((place) => place.some((n) => locks.has(n.id)));
  const fingersOf = (place: Occurrence): Finger[] => place.map((n) => free.fingers.get(n.id)!);
  if (decided) return fingersOf(decided);
  const votes = new Map<string, { count: number; fingers: Finger[] }>();
  for (const place of places) {
    const fingers = fingersOf(place);
    const vote = votes.get(fingers.join()) ?? { count: 0, fingers };
    vote.count += 1;
    votes.set(fingers.join(), vote);
  }
  // The earliest wins a tie: it is the one that is learned first.
  return [...votes.values()].reduce((a, b) => (b.count > a.count ? b : a)).fingers;
}
