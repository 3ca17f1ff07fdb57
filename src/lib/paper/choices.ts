/** What goes on paper and how: what a teacher chooses, what is kept, and what the command line takes. */
import { parseKey } from '$core/theory/key';
import { z } from 'zod';

/** The sheets that there are, in the order in which they are usually wanted. */
export const SHEETS = {
  score: { name: 'Score', says: 'the music, fingered and counted' },
  chords: { name: 'Chords', says: 'each chord on the keyboard, with fingers' },
  slash: { name: 'Lyric chart', says: 'lyrics with chords and beats above them' },
  practice: { name: 'Practice', says: 'the week’s steps, with boxes for each day' },
  beyond: { name: 'Beyond the page', says: 'to improvise and to vary over the same left hand' },
  flashcards: { name: 'Cards', says: 'chords and positions to cut out' },
  duet: { name: 'Duet', says: 'each hand as a separate part, with the other’s cues' },
} as const;

export type SheetId = keyof typeof SHEETS;
export const SHEET_IDS = Object.keys(SHEETS) as [SheetId, ...SheetId[]];

const MOST_COPIES = 40;
/** A set of all keys is twelve. */
const MOST_KEYS = 12;

const keyCode = z
  .string()
  .max(6)
  .refine((code) => parseKey(code) !== undefined, 'that isn’t a key; write it like C, F#m or Bb');

export const choicesSchema = z.object({
  /** In order; each as often as it is wanted. */
  sheets: z
    .array(
      z.object({ sheet: z.enum(SHEET_IDS), copies: z.number().int().min(1).max(MOST_COPIES).default(1) }),
    )
    .min(1, 'Choose at least one sheet.')
    .max(20)
    .default([{ sheet: 'score', copies: 1 }]),
  paper: z.enum(['a4', 'letter']).default('a4'),
  size: z.enum(['normal', 'large', 'very large']).default('normal'),
  fingers: z.enum(['once', 'all', 'positions', 'none']).default('once'),
  counts: z.boolean().default(true),
  chords: z.boolean().default(true),
  pedal: z.boolean().default(true),
  words: z.union([z.enum(['all', 'none']), z.number().int().min(1).max(9)]).default('all'),
  /** Names of all notes; or the melody's as degrees of the key or as tones of its chords. */
  names: z.enum(['none', 'below', 'heads', 'degrees', 'tones']).default('none'),
  /** What comes again: written once where that saves a page; always as it is; always once; repeat signs written out. */
  repeats: z.enum(['short', 'as written', 'folded', 'written out']).default('short'),
  map: z.boolean().default(true),
  /** Decided fingers are filled, as on the bench. */
  decided: z.boolean().default(false),
  /** Chord sheets in these keys: the version's own where none is said, or all twelve. */
  keys: z.union([z.literal('all'), z.array(keyCode).max(MOST_KEYS)]).default([]),
});

export type Choices = Readonly<z.infer<typeof choicesSchema>>;
export const USUAL_CHOICES: Choices = choicesSchema.parse({});

/** What a browser calls the papers. */
export const PAPER_CSS = { a4: 'A4', letter: 'letter' } as const satisfies Record<Choices['paper'], string>;
