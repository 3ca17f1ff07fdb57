/** What makes a version of a piece: settings, and the teacher's decisions. Small JSON documents, checked on every way in. */
import { z } from 'zod';
import { TUNE_LINES } from '../analysis/melody';
import { CHORD_RHYTHM_IDS, type ChordRhythm } from '../arrange/singAlong';
import { TEXTURE_IDS, type TextureId } from '../arrange/textures';
import { SCHOOL_IDS } from '../counting/schools';
import { PEDAL_STYLES } from '../pedal/pedal';
import { parseKey } from '../theory/key';

export const recipeSchema = z.object({
  level: z.number().min(1).max(12).multipleOf(0.5),
  /** The melody is played, or chords carry a singer. */
  style: z.enum(['solo', 'sing-along']).default('solo'),
  /** A key code such as "G" or "F#m"; null keeps the source's, or takes the nearest one that the level reads. */
  key: z
    .string()
    .max(4)
    .refine((code) => parseKey(code) !== undefined, 'This names no key.')
    .nullable(),
  /** null takes the level's own. */
  texture: textureSchema().nullable(),
  /** The line that has the tune; null as it is found. */
  tune: z.enum(TUNE_LINES).nullable().default(null),
  /** Rhythm of the chords of a sing-along; null takes the level's own. */
  rhythm: z
    .enum(CHORD_RHYTHM_IDS as [ChordRhythm, ...ChordRhythm[]])
    .nullable()
    .default(null),
  /** Measures before a sing-along; null takes two, or none where the source begins with its own. */
  introduction: z
    .union([z.literal(0), z.literal(2), z.literal(4)])
    .nullable()
    .default(null),
  /** Widest white-key interval of each hand: 7 a seventh … 10 a tenth. */
  reach: z.object({ right: reach(), left: reach() }),
  keyboard: z.union([z.literal(49), z.literal(61), z.literal(76), z.literal(88)]),
  counting: countingSchema(),
  /** Whose notes are counted. */
  countFor: z.enum(['right', 'left', 'both']).default('right'),
  /** How a measure of two half notes is counted. */
  cutTime: z.enum(['halves', 'quarters']).default('halves'),
  /** Straight or swung eighths; null as the source says. */
  feel: z.enum(['straight', 'swing']).nullable().default(null),
  pedal: pedalSchema(),
  /** Other ways in single sections, by the index of a section's first measure. */
  sections: z
    .array(
      z.object({
        measure: z.number().int().min(0).max(100_000),
        counting: countingSchema().optional(),
        pedal: pedalSchema().optional(),
        texture: textureSchema().optional(),
        tune: z.enum(TUNE_LINES).optional(),
      }),
    )
    .max(400)
    .default([]),
});

function textureSchema() {
  return z.enum(TEXTURE_IDS as [TextureId, ...TextureId[]]);
}

function countingSchema() {
  return z.enum([...SCHOOL_IDS, 'none']);
}

/** `source` keeps the marks that the piece came with. */
function pedalSchema() {
  return z.enum([...PEDAL_STYLES, 'source']);
}

function reach() {
  return z.union([z.literal(7), z.literal(8), z.literal(9), z.literal(10)]);
}

export type Recipe = z.infer<typeof recipeSchema>;

export const DEFAULT_RECIPE: Recipe = {
  level: 2,
  style: 'solo',
  key: null,
  texture: null,
  tune: null,
  rhythm: null,
  introduction: null,
  reach: { right: 8, left: 8 },
  keyboard: 61,
  counting: 'numbers',
  countFor: 'right',
  cutTime: 'halves',
  feel: null,
  pedal: 'harmony',
  sections: [],
};

/**
 * One thing the teacher has settled. A decision names a note by its id, or a measure by its index, and waits (parked)
 * while what it names is not there.
 */
export const decisionSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('finger'), note: noteId(), finger: fingerSchema() }),
  z.object({ kind: z.literal('hand'), note: noteId(), hand: z.enum(['right', 'left']) }),
  /** What is said in a measure, a word for each place in order. */
  z.object({ kind: z.literal('count'), measure: measureIndex(), words: z.string().trim().min(1).max(200) }),
  z.object({ kind: z.literal('pedal'), measure: measureIndex(), style: z.enum(PEDAL_STYLES) }),
  z.object({ kind: z.literal('texture'), measure: measureIndex(), texture: textureSchema() }),
]);

function noteId() {
  return z.string().min(1).max(80);
}

function measureIndex() {
  return z.number().int().min(0).max(100_000);
}

function fingerSchema() {
  return z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)]);
}

export type Decision = z.infer<typeof decisionSchema>;
export type DecisionOf<Kind extends Decision['kind']> = Extract<Decision, { kind: Kind }>;

export const decisionsSchema = z.array(decisionSchema).max(20_000);

/** What a decision is about: a later one about the same takes its place. */
const subjectOf = (d: Decision): string => `${d.kind} ${'note' in d ? d.note : d.measure}`;

/** Decides; a later decision about the same thing takes the place of the earlier one. */
export const decide = (decisions: readonly Decision[], ...made: readonly Decision[]): Decision[] => {
  const subjects = new Set(made.map(subjectOf));
  return [...decisions.filter((d) => !subjects.has(subjectOf(d))), ...made];
};

/** Gives back to the engine what was decided about a note or a measure. */
export const giveBack = (
  decisions: readonly Decision[],
  kind: Decision['kind'],
  subject: string | number,
): Decision[] => decisions.filter((d) => subjectOf(d) !== `${kind} ${subject}`);

/** The decisions of one kind. */
export const decisionsOf = <Kind extends Decision['kind']>(
  decisions: readonly Decision[],
  kind: Kind,
): DecisionOf<Kind>[] => decisions.filter((d): d is DecisionOf<Kind> => d.kind === kind);
