/** Options of the command line, checked. Whatever is wrong becomes one plain line (UsageError). */
import { inSentence } from '../lib/core/capital';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { LEVELS, levelsSchema, type LevelContract } from '../lib/core/arrange/levels';
import { WHOLE } from '../lib/core/decisions/anchor';
import { decide } from '../lib/core/decisions/decide';
import { allKinds, decisionsSchema, type AnyKind, type Decision } from '../lib/core/decisions/registry';
import {
  CRITERIA,
  DEFAULT_WEIGHTS,
  weightsSchema,
  type VoiceRange,
  type Weights,
} from '../lib/core/keys/rank';
import { parsePitch, toMidi } from '../lib/core/theory/pitch';
import type { Score } from '../lib/core/score/score';
import { listed } from '../lib/core/version/document';
import { fromOlder } from '../lib/core/version/older';
import { recipeSchema, type Recipe } from '../lib/core/version/recipe';

/** A command line that cannot be carried out: exit status 2. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

/** Settings of a recipe that have one value; the reach of each hand has options of its own, and a taste and hands of other versions come from a studio. */
const SETTINGS = (Object.keys(recipeSchema.shape) as (keyof Recipe)[]).filter(
  (name) => name !== 'reach' && name !== 'taste' && name !== 'otherHands',
);

/** "cutTime" is --cut-time. */
const optionOf = (setting: string): string => setting.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

const DECIDING = allKinds().filter((kind) => kind.option !== undefined);

const DEFINITIONS = {
  reach: { type: 'string' },
  'reach-left': { type: 'string' },
  'reach-right': { type: 'string' },
  levels: { type: 'string' },
  weights: { type: 'string' },
  recipe: { type: 'string' },
  json: { type: 'string' },
  output: { type: 'string', short: 'o' },
  hand: { type: 'string' },
  voice: { type: 'string' },
  'song-range': { type: 'string' },
  to: { type: 'string' },
  by: { type: 'string' },
  up: { type: 'boolean' },
  down: { type: 'boolean' },
  keep: { type: 'boolean' },
  strict: { type: 'boolean' },
  alternatives: { type: 'string' },
  tune: { type: 'string' },
  players: { type: 'string' },
  home: { type: 'string' },
  groups: { type: 'string' },
  sheets: { type: 'string' },
  paper: { type: 'string' },
  size: { type: 'string' },
  'note-names': { type: 'string' },
  'finger-numbers': { type: 'string' },
  'chord-keys': { type: 'string' },
  student: { type: 'string' },
  minutes: { type: 'string' },
  /** As it was called at first. */
  learner: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

const derived = Object.fromEntries(
  [...SETTINGS.map(optionOf), ...DECIDING.map((kind) => kind.option!)].map((name) => [
    name,
    { type: 'string' as const },
  ]),
);

const parsed = (args: string[]) =>
  parseArgs({ args, options: { ...derived, ...DEFINITIONS }, allowPositionals: true });

/** The options of a command line; those that recipe and decisions bring are texts. */
export type Values = ReturnType<typeof parsed>['values'] & {
  readonly level?: string;
  readonly key?: string;
};

/** What a list that takes a teacher's pattern says beside its names. */
const OWN_PATTERN = ', or your own: "Rolling: eighths 1 5 8 5"';

/** The options that recipe and decisions bring, a line each, as the help lists them. */
export function settingsHelp(): string {
  const line = (option: string, says: string): string => `  --${option.padEnd(20)} ${says}`;
  const list = (schema: z.ZodType): string => (allowedBy(schema) ?? []).join(', ');
  return [
    ...SETTINGS.map((setting) => {
      const schema: z.ZodType = recipeSchema.shape[setting];
      const values = list(schema);
      return line(optionOf(setting), `${schema.description ?? ''}${values ? ` (${values})` : ''}`);
    }),
    ...DECIDING.map((kind) =>
      line(
        kind.option!,
        `${inSentence(kind.name)}: ${list(kind.value)}${kind.value instanceof z.ZodUnion ? OWN_PATTERN : ''}`,
      ),
    ),
  ].join('\n');
}

/** Splits a command line into its command, files and options. */
export function readArguments(args: readonly string[]): { values: Values; positionals: string[] } {
  try {
    // A number after --by may be negative: "--by -3" is not an option called -3.
    const joined = args.flatMap((arg, i) =>
      args[i - 1] === '--by'
        ? []
        : arg === '--by' && args[i + 1] !== undefined
          ? [`--by=${args[i + 1]}`]
          : [arg],
    );
    return parsed(joined) as { values: Values; positionals: string[] };
  } catch (error) {
    // What Node adds is about arguments that begin with a stroke, which none of ours does.
    throw new UsageError((error as Error).message.split('\n')[0]!.replace(/\. To specify.*$/, '.'));
  }
}

/** What is made of a score: for whom, and what is decided. */
interface Wanted {
  readonly recipe: Recipe;
  readonly decisions: readonly Decision[];
}

/** The text of an option that a recipe or a kind of decision brings. */
const given = (values: Values, option: string): string | undefined => {
  const value = (values as Readonly<Record<string, unknown>>)[option];
  return typeof value === 'string' ? value : undefined;
};

/** What the options describe, over the file given with --recipe, over what is usual. `score` places what an older file says of sections. */
export function wantedFrom(
  values: Values,
  file?: unknown,
  levels: readonly LevelContract[] = LEVELS,
  score?: Score,
): Wanted {
  const base = file === undefined ? undefined : wantedIn(file, score);
  return {
    recipe: recipeFrom(values, base?.recipe, levels),
    decisions: decidedBy(values, base?.decisions ?? []),
  };
}

/** The recipe that the options describe, over another. */
export function recipeFrom(
  values: Values,
  base: Recipe = recipeSchema.parse({ level: 2 }),
  levels: readonly LevelContract[] = LEVELS,
): Recipe {
  const changes: Record<string, unknown> = {};
  for (const setting of SETTINGS) {
    const text = given(values, optionOf(setting));
    if (text !== undefined) changes[setting] = valueOf(optionOf(setting), recipeSchema.shape[setting], text);
  }
  if (changes.level !== undefined && !levels.some((l) => l.level === changes.level))
    throw new UsageError(
      `--level takes one of ${levels.map((l) => l.level).join(', ')}, not “${values.level}”.`,
    );
  const reach = (option: 'reach-right' | 'reach-left', before: number): unknown => {
    const text = values[option] ?? values.reach;
    return text === undefined ? before : valueOf(option, recipeSchema.shape.reach.unwrap().shape.right, text);
  };
  return recipeSchema.parse({
    ...base,
    ...changes,
    reach: { right: reach('reach-right', base.reach.right), left: reach('reach-left', base.reach.left) },
  });
}

/** What the options decide for the whole version, over what is decided already. */
const decidedBy = (values: Values, before: readonly Decision[]): Decision[] =>
  decide(
    before,
    ...DECIDING.flatMap((kind): Decision[] => {
      const text = given(values, kind.option!);
      return text === undefined ? [] : [decisionOf(kind, text)];
    }),
  );

const decisionOf = (kind: AnyKind, text: string): Decision =>
  ({
    kind: kind.id,
    at: WHOLE,
    value: valueOf(kind.option!, kind.value, kind.optionNames?.[text] ?? text),
  }) as Decision;

/** What the command line decides of one kind; undefined where it does not. */
export function optionValue<Id extends Decision['kind']>(
  values: Values,
  id: Id,
): Extract<Decision, { kind: Id }>['value'] | undefined {
  const kind = DECIDING.find((k) => k.id === id);
  const text = kind && given(values, kind.option!);
  return text === undefined ? undefined : (decisionOf(kind!, text).value as never);
}

/** The value that a text means to a schema, as a number where only that fits. Throws UsageError with what would. */
function valueOf(option: string, schema: z.ZodType, text: string): unknown {
  for (const candidate of text.trim() === '' ? [text] : [text, Number(text)]) {
    const value = schema.safeParse(candidate);
    if (value.success) return value.data;
  }
  const allowed = allowedBy(schema);
  const issue = schema.safeParse(text).error!.issues[0]!;
  const isPattern = issue.code === 'invalid_union' && text.includes(':');
  if (isPattern) throw new UsageError(`--${option}: ${issue.message}`);
  if (allowed) throw new UsageError(`--${option} takes one of ${allowed.join(', ')}, not “${text}”.`);
  throw new UsageError(
    issue.code === 'invalid_type' && issue.expected === 'number'
      ? `--${option} takes a number, not “${text}”.`
      : `--${option} ${text} ${issue.message}.`,
  );
}

/** The values of a schema that lists them. */
function allowedBy(schema: z.ZodType): unknown[] | undefined {
  if (schema instanceof z.ZodDefault || schema instanceof z.ZodNullable)
    return allowedBy(schema.unwrap() as z.ZodType);
  if (schema instanceof z.ZodEnum) return schema.options;
  // Beside a list, text of one's own: the list is what can be named.
  if (schema instanceof z.ZodUnion)
    return schema.options.flatMap((option) => allowedBy(option as z.ZodType) ?? []);
  if (schema instanceof z.ZodLiteral) return [...schema.values];
  return undefined;
}

/** A recipe file: settings, and with them decisions, if there are any. */
function wantedIn(file: unknown, score: Score | undefined): Wanted {
  const checked = z.object({ level: z.unknown() }).loose().safeParse(file);
  const whole = checked.success ? { ...checked.data, level: checked.data.level ?? 2 } : file;
  const recipe = recipeSchema.safeParse(whole);
  if (!recipe.success) {
    const issue = recipe.error.issues[0]!;
    throw new UsageError(`The recipe can’t be used at “${issue.path.join('.')}”: ${issue.message}`);
  }
  const { decisions = [] } = z.object({ decisions: z.unknown() }).partial().parse(whole);
  const own = decisionsSchema.safeParse(decisions);
  if (!own.success)
    throw new UsageError(`The choices in the recipe can’t be used: ${own.error.issues[0]!.message}`);
  return {
    recipe: recipe.data,
    decisions: [...(score ? listed(fromOlder(score, whole, [])) : []), ...own.data],
  };
}

/** The levels of a file, or those that ship. */
export function levelsFrom(file: unknown): readonly LevelContract[] {
  if (file === undefined) return LEVELS;
  const parsed = levelsSchema.safeParse(file);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0]!;
  throw new UsageError(`The levels can’t be used at “${issue.path.join('.')}”: ${issue.message}`);
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
export function voiceFrom(text: string, option = 'voice'): VoiceRange {
  const [low, high] = text.split('-').map(parsePitch);
  if (!low || !high || toMidi(low) >= toMidi(high))
    throw new UsageError(`--${option} ${text} isn’t a range. Write the lowest and highest notes like A3-D5.`);
  return { low, high };
}

/** A whole number within bounds. */
export function integerFrom(name: string, text: string, low: number, high: number): number {
  const parsed = z.coerce.number().int().min(low).max(high).safeParse(text);
  if (!parsed.success)
    throw new UsageError(`--${name} takes a whole number from ${low} to ${high}, not “${text}”.`);
  return parsed.data;
}
