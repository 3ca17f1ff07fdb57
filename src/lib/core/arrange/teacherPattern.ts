/**
 * A pattern that a teacher has written: the order of chord tones, their rhythm and the name she gives it, told once and played over
 * every chord. As text, which is how it is chosen, kept and typed:
 *
 *     Rolling: eighths 1 5 8 5          chord tones over the lowest note, an eighth each; 8 is the octave of 1, 10 of 3, 12 of 5
 *     Push: eighths 1 . 5 1+8           "." holds on, "+" strikes together, "-" rests, "5," is an octave lower
 *     Shapes: quarters 1 3+5 nearest    over the inversion nearest to the chord before; else over the root
 *
 * 1, 3, 5 and 7 are the tones of the chord from its bass upwards; 2, 4 and 6 are notes of the key between them.
 */
import { z } from 'zod';
import { lineText } from '../plainText';
import { measureLength } from '../score/metre';
import type { TimeSignature } from '../score/score';
import { noteValue, type Ticks } from '../score/ticks';
import { intervalOf } from '../theory/intervalWord';
import { leftOnsetsIn, shortestValue, levelText, type LevelContract } from './levels';

/** How a pattern of a teacher's is written: its name, a colon, its steps. The ids of built-in patterns have no colon. */
export type TeacherPatternText = `${string}:${string}`;

/** One tone: its number over the lowest (1 to 7), and how many octaves further up or down. */
export interface PatternTone {
  readonly number: number;
  readonly octave: number;
}

/** Tones struck together, in units from the pattern's beginning. */
export interface PatternStep {
  readonly at: number;
  readonly length: number;
  readonly tones: readonly PatternTone[];
}

export interface TeacherPattern {
  readonly name: string;
  readonly unit: PatternUnit;
  /** Of the whole pattern, in units. */
  readonly length: number;
  readonly steps: readonly PatternStep[];
  /** Over which note it stands: the chord's root, or the lowest of the inversion nearest to the chord before. */
  readonly over: 'root' | 'nearest';
}

/** What one word of a pattern lasts, in ticks. */
export const PATTERN_UNITS = {
  halves: noteValue(2),
  quarters: noteValue(4),
  eighths: noteValue(8),
  triplets: noteValue(12),
  sixteenths: noteValue(16),
} as const satisfies Record<string, Ticks>;
export type PatternUnit = keyof typeof PATTERN_UNITS;

/** Most words of one pattern: four measures of sixteenths. */
const MOST_WORDS = 64;
const LONGEST_NAME = 40;

/** A tone's word: 1 to 17, an octave lower for each comma. */
const TONE = /^(1[0-7]|[1-9])(,{0,2})$/;

/** Whether a chosen pattern is one of a teacher's. */
export const isTeacherPattern = (texture: string): texture is TeacherPatternText => texture.includes(':');

/** Reads a pattern as it is typed; where it can't be read, what to change. Without a name it is called by its steps. */
export function readTeacherPattern(text: string): TeacherPattern | { readonly problem: string } {
  const colon = text.indexOf(':');
  const words = text
    .slice(colon + 1)
    .trim()
    .split(/\s+/)
    .filter((word) => word !== '|' && word !== '');
  const isNearest = words.at(-1) === 'nearest';
  const [first, ...rest] = isNearest ? words.slice(0, -1) : words;
  const named = (Object.keys(PATTERN_UNITS) as PatternUnit[]).find((unit) => unit === first);
  const unit = named ?? 'eighths';
  const written = named ? rest : first === undefined ? [] : [first, ...rest];
  const steps: PatternStep[] = [];
  if (written.length > MOST_WORDS)
    return { problem: `A pattern has at most ${MOST_WORDS} steps; this one has ${written.length}.` };
  for (const [at, word] of written.entries()) {
    if (word === '-') continue;
    if (word === '.') {
      const last = steps.at(-1);
      if (last?.at === undefined || last.at + last.length !== at)
        return { problem: '“.” continues the note before it; there is none. For a rest, type “-”.' };
      steps[steps.length - 1] = { ...last, length: last.length + 1 };
      continue;
    }
    const tones = word.split('+').map(toneOf);
    const wrong = word.split('+').find((_, i) => tones[i] === undefined);
    if (wrong !== undefined)
      return {
        problem: `“${wrong}” isn’t a note of the chord. Type 1, 3, 5, 7 or 8, or 1+5 for two together.`,
      };
    steps.push({ at, length: 1, tones: tones.filter((tone) => tone !== undefined).sort(byHeight) });
  }
  if (steps.length === 0) return { problem: 'A pattern needs at least one note, for example “1 5 8 5”.' };
  const name = (colon < 0 ? '' : text.slice(0, colon)).trim().replace(/\s+/g, ' ');
  return {
    name: (name || written.join(' ')).slice(0, LONGEST_NAME),
    unit,
    length: written.length,
    steps,
    over: isNearest ? 'nearest' : 'root',
  };
}

function toneOf(word: string): PatternTone | undefined {
  const [, digits, commas] = TONE.exec(word) ?? [];
  if (digits === undefined || commas === undefined) return undefined;
  const steps = Number(digits) - 1;
  return { number: (steps % 7) + 1, octave: Math.floor(steps / 7) - commas.length };
}

const byHeight = (a: PatternTone, b: PatternTone): number => heightOf(a) - heightOf(b);
/** In steps of the scale over the pattern's 1. */
export const heightOf = ({ number, octave }: PatternTone): number => 7 * octave + number - 1;

const toneText = (tone: PatternTone): string => {
  const up = Math.max(0, Math.min(tone.octave, tone.number <= 3 ? 2 : 1));
  return `${tone.number + 7 * up}${','.repeat(Math.max(0, up - tone.octave))}`;
};

/** The steps as they are typed, without name and unit: "1 . 5 8". */
export function stepsText({ steps, length, over }: TeacherPattern): string {
  const words: string[] = Array.from({ length }, () => '-');
  for (const { at, length: held, tones } of steps) {
    words[at] = tones.map(toneText).join('+');
    for (let i = 1; i < held; i++) words[at + i] = '.';
  }
  return words.join(' ') + (over === 'nearest' ? ' nearest' : '');
}

/** Note value and steps as they are typed: "eighths 1 . 5 8". */
export const unitAndSteps = (pattern: TeacherPattern): string => `${pattern.unit} ${stepsText(pattern)}`;

/** A pattern as text; `readTeacherPattern` gives it back. */
export const teacherPatternText = (pattern: TeacherPattern): TeacherPatternText =>
  `${pattern.name.replaceAll(':', ' ')}: ${unitAndSteps(pattern)}`;

/** A pattern as text, put as `teacherPatternText` puts it; what can't be read is refused with what to change. */
export const teacherPatternSchema = lineText()
  .max(400, 'A pattern is at most 400 characters long.')
  .refine(
    (text) => isTeacherPattern(text),
    'A pattern begins with its name and a colon: “Rolling: eighths 1 5 8 5”.',
  )
  .transform((text, context): TeacherPatternText => {
    const read = readTeacherPattern(text);
    if (!('problem' in read)) return teacherPatternText(read);
    context.addIssue({ code: 'custom', message: read.problem });
    return z.NEVER;
  });

/** What a built-in list allows, or a teacher's pattern; one that can't be read is refused with what to change. */
export const orTeacherPattern = <Known extends z.ZodType>(known: Known) =>
  z.union([known, teacherPatternSchema], {
    error: ({ input }) => {
      if (typeof input !== 'string' || !isTeacherPattern(input)) return undefined;
      const read = readTeacherPattern(input);
      return 'problem' in read ? read.problem : undefined;
    },
  });

/** A pattern as the studio keeps it: which hand it is for, and its text. */
export const studioPatternSchema = z.object({
  hand: z.enum(['left', 'right']),
  text: teacherPatternSchema,
});
export type StudioPattern = Readonly<z.infer<typeof studioPatternSchema>>;

/** The pattern of a text that was checked before. Throws where it was not. */
export function teacherPattern(text: TeacherPatternText): TeacherPattern {
  const read = readTeacherPattern(text);
  if ('problem' in read) throw new Error(read.problem);
  return read;
}

/** Widest chord of a pattern, in steps of the scale: 7 is an octave. */
const widest = ({ steps }: TeacherPattern): number =>
  Math.max(...steps.map(({ tones }) => heightOf(tones.at(-1)!) - heightOf(tones[0]!)));

/** Semitones of a number of scale steps, at least: what a hand needs for a third is three keys. */
const LEAST_SEMITONES = [0, 1, 3, 5, 6, 8, 10] as const;
const semitonesOf = (steps: number): number => 12 * Math.floor(steps / 7) + LEAST_SEMITONES[steps % 7]!;

/** Why a level doesn't have a pattern in a time signature, in a clause; undefined where it has. `hand` decides which limit counts. */
export function patternProblem(
  pattern: TeacherPattern,
  contract: LevelContract,
  time: TimeSignature,
  hand: 'left' | 'right' = 'left',
): string | undefined {
  const level = `level ${levelText(contract.level)}`;
  const unit = PATTERN_UNITS[pattern.unit];
  const most = hand === 'left' ? contract.leftNotes : contract.rightNotes;
  const thickest = Math.max(...pattern.steps.map((s) => s.tones.length));
  if (thickest > most)
    return `${thickest} notes at once; ${level} has ${most === 1 ? 'one' : `at most ${most}`}`;
  if (contract.span !== null && semitonesOf(widest(pattern)) > contract.span)
    return `wider than ${intervalOf(contract.span)}, the widest at ${level}`;
  const shortest = Math.min(...pattern.steps.map((s) => s.length)) * unit;
  if (shortest < shortestValue(contract, time)) return `its notes are shorter than those of ${level}`;
  if (pattern.unit === 'triplets' && contract.tuplets === 'none' && shortest < noteValue(4))
    return `${level} has no triplets`;
  if (hand === 'right') return undefined;
  const measure = { time, length: measureLength(time) };
  const onsets = Math.ceil((pattern.steps.length * measure.length) / (pattern.length * unit));
  const room = leftOnsetsIn(contract, measure);
  const isCut = pattern.length * unit > measure.length;
  const inOne = isCut ? pattern.steps.filter((s) => s.at * unit < measure.length).length : onsets;
  return inOne > room ? `${inOne} left-hand notes in a measure; ${level} has at most ${room}` : undefined;
}

/** The strokes of a pattern from one tick to another, begun again as often as it fits; the last is cut at the end. */
export function patternPlaces(
  pattern: TeacherPattern,
  from: Ticks,
  to: Ticks,
): { readonly onset: Ticks; readonly end: Ticks; readonly tones: readonly PatternTone[] }[] {
  const unit = PATTERN_UNITS[pattern.unit];
  const result: { onset: Ticks; end: Ticks; tones: readonly PatternTone[] }[] = [];
  for (let start = from; start < to; start += pattern.length * unit)
    for (const { at, length, tones } of pattern.steps) {
      const onset = start + at * unit;
      if (onset < to) result.push({ onset, end: Math.min(to, onset + length * unit), tones });
    }
  return result;
}
