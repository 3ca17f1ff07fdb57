/** What makes a version of a piece: settings, and the teacher's decisions. Small JSON documents, checked on every way in. */
import { z } from 'zod';
import { TEXTURE_IDS, type TextureId } from '../arrange/textures';
import { parseKey } from '../theory/key';

export const recipeSchema = z.object({
  level: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  /** A key code such as "G" or "F#m"; null keeps the source's. */
  key: z
    .string()
    .max(4)
    .refine((code) => parseKey(code) !== undefined, 'This names no key.')
    .nullable(),
  /** null takes the level's own. */
  texture: z.enum(TEXTURE_IDS as [TextureId, ...TextureId[]]).nullable(),
  /** Widest white-key interval of each hand: 7 a seventh … 10 a tenth. */
  reach: z.object({ right: reach(), left: reach() }),
  keyboard: z.union([z.literal(49), z.literal(61), z.literal(76), z.literal(88)]),
  counting: z.enum(['numbers', 'none']),
  pedal: z.enum(['harmony', 'none']),
});

function reach() {
  return z.union([z.literal(7), z.literal(8), z.literal(9), z.literal(10)]);
}

export type Recipe = z.infer<typeof recipeSchema>;

export const DEFAULT_RECIPE: Recipe = {
  level: 2,
  key: null,
  texture: null,
  reach: { right: 8, left: 8 },
  keyboard: 61,
  counting: 'numbers',
  pedal: 'harmony',
};

/** One thing the teacher has settled. A decision names a note by its id and waits (parked) while the note is not there. */
export const decisionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('finger'),
    note: z.string().min(1).max(80),
    finger: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)]),
  }),
]);

export type Decision = z.infer<typeof decisionSchema>;

export const decisionsSchema = z.array(decisionSchema).max(20_000);

/** Decides a finger; a later decision on the same note takes the place of the earlier one. */
export const decideFinger = (
  decisions: readonly Decision[],
  note: string,
  finger: Decision['finger'],
): Decision[] => [...withoutFinger(decisions, note), { kind: 'finger', note, finger }];

/** Gives a finger back to the engine. */
export const withoutFinger = (decisions: readonly Decision[], note: string): Decision[] =>
  decisions.filter((d) => !(d.kind === 'finger' && d.note === note));
