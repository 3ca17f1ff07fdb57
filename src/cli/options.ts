/** Options of the command line, checked. Whatever is wrong becomes one plain line (UsageError). */
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { TUNE_LINES } from '../lib/core/analysis/melody';
import { LEVELS, levelsSchema, type LevelContract } from '../lib/core/arrange/levels';
import { CHORD_RHYTHM_IDS, type ChordRhythm } from '../lib/core/arrange/singAlong';
import { TEXTURE_IDS, type TextureId } from '../lib/core/arrange/textures';
import {
  CRITERIA,
  DEFAULT_WEIGHTS,
  weightsSchema,
  type VoiceRange,
  type Weights,
} from '../lib/core/keys/rank';
import { SCHOOL_IDS } from '../lib/core/counting/schools';
import { PEDAL_STYLES } from '../lib/core/pedal/pedal';
import { parsePitch, toMidi } from '../lib/core/score/pitch';
import { parseKey } from '../lib/core/theory/key';
import { DEFAULT_RECIPE, recipeSchema, type Recipe } from '../lib/core/version/recipe';

/** A command line that cannot be carried out: exit status 2. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

const DEFINITIONS = {
  level: { type: 'string' },
  style: { type: 'string' },
  key: { type: 'string' },
  reach: { type: 'string' },
  'reach-left': { type: 'string' },
  'reach-right': { type: 'string' },
  keyboard: { type: 'string' },
  counting: { type: 'string' },
  'cut-time': { type: 'string' },
  pedal: { type: 'string' },
  texture: { type: 'string' },
  tune: { type: 'string' },
  rhythm: { type: 'string' },
  introduction: { type: 'string' },
  levels: { type: 'string' },
  weights: { type: 'string' },
  recipe: { type: 'string' },
  json: { type: 'string' },
  output: { type: 'string', short: 'o' },
  hand: { type: 'string' },
  voice: { type: 'string' },
  to: { type: 'string' },
  by: { type: 'string' },
  up: { type: 'boolean' },
  down: { type: 'boolean' },
  keep: { type: 'boolean' },
  alternatives: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

export type Values = ReturnType<typeof readArguments>['values'];

/** Splits a command line into its command, files and options. */
export function readArguments(args: readonly string[]) {
  try {
    // A number after --by may be negative: "--by -3" is not an option called -3.
    const joined = args.flatMap((arg, i) =>
      args[i - 1] === '--by'
        ? []
        : arg === '--by' && args[i + 1] !== undefined
          ? [`--by=${args[i + 1]}`]
          : [arg],
    );
    return parseArgs({ args: joined, options: DEFINITIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageError((error as Error).message.split('\n')[0]!);
  }
}

function choice<T extends string | number>(name: string, text: string, allowed: readonly T[]): T {
  const found = allowed.find((a) => String(a) === text);
  if (found !== undefined) return found;
  throw new UsageError(`--${name} takes one of ${allowed.join(', ')}, not “${text}”.`);
}

/** Other spellings of the counting schools. */
const COUNTING_NAMES: Readonly<Record<string, string>> = { 'ta-ti-ti': 'ta-titi', 'ta-ka-di-mi': 'takadimi' };

/** The recipe that the options describe, over the file given with --recipe, over the default one. */
export function recipeFrom(
  values: Values,
  file?: unknown,
  levels: readonly LevelContract[] = LEVELS,
): Recipe {
  const base = file === undefined ? DEFAULT_RECIPE : parsedRecipe(file);
  const reach = (name: 'reach-right' | 'reach-left', before: number): number => {
    const text = values[name] ?? values.reach;
    return text === undefined ? before : choice(name, text, [7, 8, 9, 10]);
  };
  const key = values.key ?? base.key;
  if (key !== null && !parseKey(key)) throw new UsageError(`--key ${key} names no key; write C, F#m or Bb.`);
  return recipeSchema.parse({
    ...base,
    level:
      values.level === undefined
        ? base.level
        : choice(
            'level',
            values.level,
            levels.map((l) => l.level),
          ),
    style:
      values.style === undefined
        ? base.style
        : choice<Recipe['style']>('style', values.style, ['solo', 'sing-along']),
    key,
    tune: values.tune === undefined ? base.tune : choice('tune', values.tune, TUNE_LINES),
    rhythm:
      values.rhythm === undefined
        ? base.rhythm
        : choice<ChordRhythm>('rhythm', values.rhythm, CHORD_RHYTHM_IDS),
    introduction:
      values.introduction === undefined
        ? base.introduction
        : choice('introduction', values.introduction, [0, 2, 4]),
    texture:
      values.texture === undefined ? base.texture : choice<TextureId>('texture', values.texture, TEXTURE_IDS),
    reach: { right: reach('reach-right', base.reach.right), left: reach('reach-left', base.reach.left) },
    keyboard:
      values.keyboard === undefined ? base.keyboard : choice('keyboard', values.keyboard, [49, 61, 76, 88]),
    counting:
      values.counting === undefined
        ? base.counting
        : choice('counting', COUNTING_NAMES[values.counting] ?? values.counting, [...SCHOOL_IDS, 'none']),
    cutTime:
      values['cut-time'] === undefined
        ? base.cutTime
        : choice('cut-time', values['cut-time'], ['halves', 'quarters']),
    pedal:
      values.pedal === undefined ? base.pedal : choice('pedal', values.pedal, [...PEDAL_STYLES, 'source']),
  });
}

function parsedRecipe(file: unknown): Recipe {
  const parsed = recipeSchema.partial().safeParse(file);
  if (parsed.success) return { ...DEFAULT_RECIPE, ...(parsed.data as Partial<Recipe>) };
  const issue = parsed.error.issues[0]!;
  throw new UsageError(`The recipe is not usable at “${issue.path.join('.')}”: ${issue.message}`);
}

/** The levels of a file, or those that ship. */
export function levelsFrom(file: unknown): readonly LevelContract[] {
  if (file === undefined) return LEVELS;
  const parsed = levelsSchema.safeParse(file);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0]!;
  throw new UsageError(`The levels are not usable at “${issue.path.join('.')}”: ${issue.message}`);
}

/** "voice=30,reading=2" as weights, over the usual ones. */
export function weightsFrom(text: string): Weights {
  const pairs = text.split(',').map((pair) => pair.split('='));
  for (const [name = '', value = ''] of pairs)
    if (!CRITERIA.some((c) => c === name) || value.trim() === '' || !(Number(value) >= 0))
      throw new UsageError(`--weights takes ${CRITERIA.map((c) => `${c}=NUMBER`).join(',')}, not “${text}”.`);
  const parsed = weightsSchema.safeParse({
    ...DEFAULT_WEIGHTS,
    ...Object.fromEntries(pairs.map(([name, value]) => [name, Number(value)])),
  });
  if (!parsed.success) throw new UsageError('--weights go from 0 to 100.');
  return parsed.data;
}

/** "A3-D5" as two pitches, the lower one first. */
export function voiceFrom(text: string): VoiceRange {
  const [low, high] = text.split('-').map(parsePitch);
  if (!low || !high || toMidi(low) >= toMidi(high))
    throw new UsageError(`--voice ${text} is no range; write the lowest and the highest note as A3-D5.`);
  return { low, high };
}

/** A whole number within bounds. */
export function integerFrom(name: string, text: string, low: number, high: number): number {
  const parsed = z.coerce.number().int().min(low).max(high).safeParse(text);
  if (!parsed.success)
    throw new UsageError(`--${name} takes a whole number from ${low} to ${high}, not “${text}”.`);
  return parsed.data;
}
