/**
 * What a version is made for: its level, style and key, the hands and the keyboard of whoever plays it, and whose notes are
 * counted. It holds for the whole version; whatever can differ from place to place is a decision (core/decisions).
 */
import { z } from 'zod';
import { SONG_STYLE_IDS } from '../arrange/arranged';
import { IDIOM_IDS } from '../analysis/idioms';
import { decisionsSchema } from '../decisions/registry';
import { tasteSchema } from '../fingering/taste';
import { parseKey } from '../theory/key';

/** Widest white-key interval of a hand: 7 a seventh … 10 a tenth. */
const reach = () => z.literal([7, 8, 9, 10]);

/** Measures before a sing-along. */
export const introductionSchema = z.literal([0, 2, 4]);

/** What a version is made for, without what it has from others. */
const settingsSchema = z.object({
  level: z.number().min(1).max(12).multipleOf(0.5).describe('the level, 1 to 6 or one of your own'),
  style: z.enum(SONG_STYLE_IDS).default('solo').describe('the melody is played, or chords carry a singer'),
  key: z
    .string()
    .max(6)
    .refine((code) => parseKey(code) !== undefined, 'isn’t a key. Write it like C, F#m or Bb.')
    .nullable()
    .default(null)
    .describe('a key such as G or F#m; without it the source’s, or the nearest one that the level reads'),
  introduction: introductionSchema
    .nullable()
    .default(null)
    .describe('measures before a sing-along; without it two, or none where the source begins with its own'),
  reach: z.object({ right: reach(), left: reach() }).default({ right: 8, left: 8 }),
  keyboard: z.literal([49, 61, 76, 88]).default(61).describe('keys of the keyboard'),
  countFor: z.enum(['right', 'left', 'both']).default('right').describe('whose notes are counted'),
  cutTime: z
    .enum(['halves', 'quarters'])
    .default('halves')
    .describe('how a measure of two half notes is counted'),
  feel: z
    .enum(['straight', 'swing'])
    .nullable()
    .default(null)
    .describe('straight or swung eighths; without it as the source says'),
  idiom: z
    .enum(IDIOM_IDS)
    .nullable()
    .default(null)
    .describe('what kind of music it is; without it as the source shows'),
  /** The house's hand as it was when the version was begun, so that what a learner has does not change under their fingers. */
  taste: tasteSchema.nullable().default(null),
});

/**
 * A hand that a version has from another one of the same piece: as that one was, with its level, style and choices, in this version's
 * key and reach.
 */
export const otherHandSchema = z.object({
  hand: z.enum(['right', 'left']),
  /** Ids of the first and the last measure; null for the whole piece. */
  measures: z.tuple([z.string().max(40), z.string().max(40)]).nullable(),
  /** The version that it comes from, and what it was called then. */
  of: z.object({ version: z.string().max(80), edit: z.number().int().min(0), name: z.string().max(120) }),
  recipe: settingsSchema,
  decisions: decisionsSchema,
});
export type OtherHand = z.infer<typeof otherHandSchema>;

export const recipeSchema = settingsSchema.extend({
  /** Later ones hold over earlier ones. */
  otherHands: z.array(otherHandSchema).max(40, 'Enter at most 40 hands of other versions.').default([]),
});

export type Recipe = z.infer<typeof recipeSchema>;

export const DEFAULT_RECIPE: Recipe = recipeSchema.parse({ level: 2 });
