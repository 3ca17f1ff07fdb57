/**
 * A tune while it is written: what follows what, with its words and the chords of its measures. Measures, ties over barlines and rests
 * at the end follow from the lengths. Plain data; compose.ts changes it, toScore makes the music of it.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import { parseKey } from '../theory/key';
import { STEPS } from '../theory/pitch';
import { noteValue, type Ticks } from '../score/ticks';
import { measureLength } from '../score/metre';
import { readChordRow } from '../score/chordRow';

const pitchSchema = z.object({
  step: z.enum(STEPS),
  alter: z.number().int().min(-2).max(2),
  octave: z.number().int().min(0).max(8),
});

/** One thing that is written: a note or, without a pitch, a rest. */
export const itemSchema = z.object({
  pitch: pitchSchema.nullable(),
  /** 1 a whole note, 2 a half, 4 a quarter … */
  value: z.literal([1, 2, 4, 8, 16]),
  dots: z.literal([0, 1]),
  /** One of three in the time of two. */
  triplet: z.boolean(),
  /** Goes on into the next note. */
  tie: z.boolean(),
  /** What is sung, verse by verse; a syllable that goes on ends with a hyphen. */
  words: z.array(z.string().max(60)).max(9),
});
export type Item = Readonly<z.infer<typeof itemSchema>>;

export const sketchSchema = z.object({
  title: lineText().min(1, 'A piece needs a name.').max(200),
  composer: lineText().max(200),
  key: z.string().refine((code) => parseKey(code) !== undefined, 'isn’t a key'),
  time: z.object({ beats: z.number().int().min(1).max(12), beatType: z.literal([2, 4, 8]) }),
  /** Quarter notes per minute. */
  tempo: z.number().min(20).max(300),
  /** Length of the pickup in ticks; 0 without one. */
  pickup: z.number().int().min(0),
  items: z.array(itemSchema).max(4000),
  /** By index of the measure: "C Am7", spread evenly, or "C . G7 ." beat by beat. */
  chords: z.record(
    z.string().regex(/^\d+$/),
    z.string().refine((row) => readChordRow(row) !== undefined, 'isn’t a chord'),
  ),
  /** Names of the sections, by index of their first measure. */
  sections: z.record(z.string().regex(/^\d+$/), lineText().min(1).max(60)),
  /** Where repeats begin and end, by index of the measure. */
  repeats: z.array(z.object({ from: z.number().int().min(0), to: z.number().int().min(0) })).max(100),
});
export type Sketch = Readonly<z.infer<typeof sketchSchema>>;

export const EMPTY: Sketch = {
  title: 'New piece',
  composer: '',
  key: 'C',
  time: { beats: 4, beatType: 4 },
  tempo: 96,
  pickup: 0,
  items: [],
  chords: {},
  sections: {},
  repeats: [],
};

/** How long an item lasts. */
export const lengthOf = ({ value, dots, triplet }: Pick<Item, 'value' | 'dots' | 'triplet'>): Ticks =>
  (noteValue(value) * (dots === 1 ? 3 : 2) * (triplet ? 2 : 3)) / 6;

/** First tick of a measure, by its index; a pickup is the first. */
export const startOf = ({ time, pickup }: Pick<Sketch, 'time' | 'pickup'>, measure: number): Ticks =>
  measure === 0
    ? 0
    : pickup > 0
      ? pickup + (measure - 1) * measureLength(time)
      : measure * measureLength(time);

/** Index of the measure in which a tick lies. */
export function measureOf({ time, pickup }: Pick<Sketch, 'time' | 'pickup'>, tick: Ticks): number {
  const full = measureLength(time);
  return pickup === 0 ? Math.floor(tick / full) : tick < pickup ? 0 : 1 + Math.floor((tick - pickup) / full);
}

/** Onsets of the items, and the end of the last. */
export function onsetsOf(items: readonly Item[]): Ticks[] {
  let at = 0;
  return [...items.map((item) => (at += lengthOf(item)) - lengthOf(item)), at];
}
