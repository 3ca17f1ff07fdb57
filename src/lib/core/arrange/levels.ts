/**
 * The level contracts of the musical rules. The six that ship are a data file (levels.json); a teacher can change them and
 * add her own, which are checked by the same schema. Limits are per hand; spans and leaps in semitones, note values as
 * denominators of a whole note (4 a quarter). `null` means: as the source, the reach or the hand has it.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import { beatLength, isCompound } from '../score/metre';
import type { TimeSignature } from '../score/score';
import { noteValue, type Ticks } from '../score/ticks';
import builtIn from './levels.json';

const denominator = z.union([
  z.literal(1),
  z.literal(2),
  z.literal(4),
  z.literal(8),
  z.literal(16),
  z.literal(32),
]);

export const levelSchema = z
  .object({
    /** 1 to 6 are those that ship; halves lie between two of them. */
    level: z.number().min(1, 'Levels begin at 1.').max(12, 'Levels go up to 12.').multipleOf(0.5),
    name: lineText().min(1, 'A level needs a name.').max(40),
    /** Most accidentals in the key signature. */
    accidentals: z.number().int().min(0).max(7).nullable(),
    rightNotes: z.number().int().min(1).max(5),
    leftNotes: z.number().int().min(1).max(5),
    /** Widest simultaneous span; never more than the learner's reach. */
    span: z.number().int().min(1).max(24).nullable(),
    shortestSimple: denominator.nullable(),
    shortestCompound: denominator.nullable(),
    /** Undotted values that may carry a dot. */
    dotted: z.array(denominator).nullable(),
    dottedCompound: z.array(denominator).nullable(),
    /** `fill`: only for a note that no single value can write; `barline`: that, and across a barline. */
    ties: z.enum(['fill', 'barline', 'any']),
    tuplets: z.enum(['none', 'triplets', 'any']),
    /** Widest leap between neighbours that leaves no beat to move in. */
    leap: z.number().int().min(1).max(36).nullable(),
    leftOnsets: z
      .object({ per: z.enum(['measure', 'beat']), most: z.number().int().min(1).max(16) })
      .nullable(),
    /** Hands may overlap or share a key: never, where held notes free the place, or as written. */
    overlap: z.enum(['no', 'freed', 'written']),
    pedal: z.enum(['none', 'harmony', 'lifted', 'all']),
    /** Goal tempo as a share of the source's. */
    tempoShare: z.number().min(0.3).max(1.2),
    /** What becomes of the source's own accompaniment. */
    accompaniment: z.enum(['replaced', 'thinned', 'kept']),
    /** How much dearer than usual it is to leave the position of the hand, for the fingering: 1 is usual. */
    steadiness: z.number().min(1).max(4),
  })
  .refine((l) => l.leftOnsets === null || l.leftOnsets.per === 'measure' || l.leftOnsets.most <= 8, {
    message: 'Enter at most eight left-hand notes a beat.',
    path: ['leftOnsets'],
  });

export type LevelContract = Readonly<z.infer<typeof levelSchema>>;

/** Every level that can be chosen, in rising order. */
export const levelsSchema = z
  .array(levelSchema)
  .min(1, 'At least one level has to stay.')
  .max(24)
  .refine(
    (levels) => new Set(levels.map((l) => l.level)).size === levels.length,
    'Two levels have the same number.',
  )
  .transform((levels) => [...levels].sort((a, b) => a.level - b.level));

/** The six levels that ship. */
export const LEVELS: readonly LevelContract[] = levelsSchema.parse(builtIn);

/** The level of a number; where it is not among them (it was removed), the nearest below it, else the first. */
export const levelNumbered = (number: number, levels: readonly LevelContract[] = LEVELS): LevelContract =>
  levels.findLast((l) => l.level <= number) ?? levels[0]!;

/** "2", "2½" */
export const levelText = (level: number): string =>
  Number.isInteger(level) ? String(level) : `${Math.floor(level)}½`;

/** Metres that are read in eighths or finer have the limits of compound metre: 3/8 is no place for quarters. */
const readInEighths = (time: TimeSignature): boolean => isCompound(time) || time.beatType >= 8;

/** Shortest value that a level allows in a metre; never longer than the metre's own pulse. 1 tick where there is no limit. */
export function shortestValue(contract: LevelContract, time: TimeSignature): Ticks {
  const inEighths = readInEighths(time);
  const shortest = inEighths ? contract.shortestCompound : contract.shortestSimple;
  if (shortest === null) return 1;
  return inEighths ? Math.min(noteValue(shortest), noteValue(time.beatType)) : noteValue(shortest);
}

/** Undotted values that may carry a dot in a metre; null for any. */
export const dotsAllowed = (contract: LevelContract, time: TimeSignature): readonly number[] | null =>
  readInEighths(time) ? contract.dottedCompound : contract.dotted;

/**
 * Most left-hand onsets in a measure. A limit of two or more to a beat is meant for beats that divide in two: where they
 * divide in three it is half as much again, or rocking and broken chords could not be played at the levels that have them.
 */
export function leftOnsetsIn(
  contract: LevelContract,
  { length, time }: { readonly length: Ticks; readonly time: TimeSignature },
): number {
  if (contract.leftOnsets === null) return Infinity;
  const { per, most } = contract.leftOnsets;
  if (per === 'measure') return most;
  const beats = Math.max(1, Math.round(length / beatLength(time)));
  return beats * (most > 1 && isCompound(time) ? Math.floor(most * 1.5) : most);
}

const SHORTEST: Readonly<Record<number, string>> = {
  1: 'whole notes',
  2: 'half notes',
  4: 'quarters',
  8: 'eighths',
  16: 'sixteenths',
  32: 'thirty-seconds',
};

/** What a level is, in two short lines: what the hands do, and what is to be read. */
export function levelSays({
  rightNotes,
  leftNotes,
  shortestSimple,
  accidentals,
  pedal,
  tuplets,
}: LevelContract): readonly [hands: string, reading: string] {
  const at = (n: number): string => (n === 1 ? 'one note at a time' : `up to ${n} notes`);
  const reading = [
    shortestSimple === null
      ? 'any rhythm'
      : `notes down to ${SHORTEST[shortestSimple] ?? `1/${shortestSimple}`}`,
    ...(tuplets === 'none' ? [] : ['triplets']),
    accidentals === null
      ? 'any key'
      : `up to ${accidentals} ${accidentals === 1 ? 'sharp or flat' : 'sharps or flats'}`,
    ...(pedal === 'none' ? ['no pedal'] : []),
  ];
  return [
    `Right hand: ${at(rightNotes)}. Left hand: ${at(leftNotes)}.`,
    `${reading[0]!.charAt(0).toUpperCase()}${reading.join(', ').slice(1)}.`,
  ];
}
