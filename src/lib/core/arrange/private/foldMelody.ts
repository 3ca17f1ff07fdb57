/**
 * The octave in which a melody lies: the whole of it with room for the left hand below, and phrases by octaves where they
 * would leave the keyboard or the hand's register. A fold falls at the beginning of a phrase, never inside one.
 */
import { cheapestPath } from '../../cheapestPath';
import { inOctave, type SoundingNote } from '../../score/query';
import type { Ticks } from '../../score/ticks';

interface FoldSettings {
  readonly keyboard: { readonly low: number; readonly high: number };
  /** Ticks at which a phrase, or the melody of another line, begins. */
  readonly starts: readonly Ticks[];
  /** Lowest comfortable bottom of a right-hand melody: below it there is no room for the left hand. */
  readonly floor: number;
  readonly ceiling: Ceiling;
}

/** How high a melody is read. */
interface Ceiling {
  readonly highest: number;
  /** What a phrase costs that goes above it, or that comes below middle C to stay under it: nothing where it is only a wish. */
  readonly unread: number;
}

/** G3: below it there is no room for the left hand. */
export const MELODY_FLOOR = 55;
/** E6: above it begin the ledger lines that nobody reads gladly. */
const CEILING = 88;
/** A5: the first two levels read one ledger line, mostly none (music-rules, "Register at levels 1 and 2"). */
const FIRST_CEILING = 81;
const FIRST_LEVELS = 2;
/** A phrase of the first levels that goes above what they read: nearly as dear as a change of octave. */
const UNREAD = 20;
const MIDDLE_C = 60;

/** How high a level reads. */
export const ceilingAt = (level: number): Ceiling =>
  level <= FIRST_LEVELS ? { highest: FIRST_CEILING, unread: UNREAD } : { highest: CEILING, unread: 0 };

export interface Fold {
  readonly onset: Ticks;
  /** Octaves from the source, from here on. */
  readonly octaves: number;
}

/** A semitone below the floor for so many beats costs so much; leaving the octave of the phrase before costs this. */
const CHANGE = 24;
const AWAY_FROM_SOURCE = 7;
const OUTSIDE_KEYBOARD = 500;
const OCTAVES = [-2, -1, 0, 1, 2];

/** The melody moved by whole octaves, and where its octave changes. */
export function foldMelody(
  melody: readonly SoundingNote[],
  settings: FoldSettings,
): { notes: SoundingNote[]; folds: Fold[] } {
  if (melody.length === 0) return { notes: [], folds: [] };
  const { starts } = settings;
  const phrases: SoundingNote[][] = [];
  const begins = new Set(starts);
  for (const note of melody) {
    const isNew =
      phrases.length === 0 ||
      [...betweenStarts(phrases.at(-1)!.at(-1)!.onset, note.onset, begins)].length > 0;
    if (isNew) phrases.push([note]);
    else phrases.at(-1)!.push(note);
  }
  const costs = phrases.map((notes) => OCTAVES.map((o) => phraseCost(notes, o, settings)));
  const path = cheapestPath(costs, (from, to) => CHANGE * Math.abs(to - from));
  const octaves = path.map((k) => OCTAVES[k]!);
  const folds = phrases.flatMap((notes, i): Fold[] =>
    octaves[i] === (i === 0 ? 0 : octaves[i - 1]) ? [] : [{ onset: notes[0]!.onset, octaves: octaves[i]! }],
  );
  return { notes: phrases.flatMap((notes, i) => notes.map((n) => inOctave(n, octaves[i]!))), folds };
}

function* betweenStarts(after: Ticks, to: Ticks, begins: ReadonlySet<Ticks>): Generator<Ticks> {
  for (const start of begins) if (start > after && start <= to) yield start;
}

function phraseCost(
  notes: readonly SoundingNote[],
  octaves: number,
  { keyboard, floor, ceiling }: FoldSettings,
): number {
  let cost = AWAY_FROM_SOURCE * Math.abs(octaves);
  let low = 0;
  let high = 0;
  let total = 0;
  for (const note of notes) {
    const midi = note.midi + 12 * octaves;
    if (midi < keyboard.low || midi > keyboard.high) cost += OUTSIDE_KEYBOARD;
    low += Math.max(0, floor - midi) * note.duration;
    high += Math.max(0, midi - ceiling.highest) * note.duration;
    total += note.duration;
  }
  const isBelow = octaves < 0 && notes.some((n) => n.midi + 12 * octaves < MIDDLE_C);
  const unread = high > 0 || isBelow ? ceiling.unread : 0;
  // Mean depth below the floor, and whether the lowest notes leave no room at all.
  return cost + (12 * (low + high)) / Math.max(1, total) + (low > 0 ? 6 : 0) + unread;
}
