/** The parser of abcjs behind a narrow door: its answer is checked by a schema and said in our types. */
import Parser from 'abcjs/src/parse/abc_parse.js';
import { z } from 'zod';
import { tunesIn } from '../../abc/book';
import { prepareAbc, type PreparedAbc } from './prepare';
import { InputError } from '../../inputError';
import { notTooLong } from '../../limits';

const tie = z.union([z.object({}), z.boolean()]).optional();

const pitch = z.object({
  /** Letters above middle C. */
  pitch: z.number(),
  accidental: z.string().optional(),
  startTie: tie,
  endTie: tie,
  startSlur: z.array(z.object({ label: z.number() })).optional(),
  endSlur: z.array(z.number()).optional(),
});

const count = z.coerce.number().int().min(1).max(64);

const meter = z.object({
  type: z.string(),
  value: z.array(z.object({ num: z.string(), den: z.string().optional() })).optional(),
});

const key = z.object({
  accidentals: z.array(z.object({ acc: z.string(), note: z.string() })).optional(),
  root: z.string().optional(),
  acc: z.string().optional(),
  mode: z.string().optional(),
});

const clef = z.object({ type: z.string().optional() });

const tempo = z.object({ duration: z.array(z.number()).optional(), bpm: z.number().optional() });

const note = z.object({
  el_type: z.literal('note'),
  startChar: z.number().default(0),
  /** In whole notes. */
  duration: z.number().min(0).max(4000),
  pitches: z.array(pitch).optional(),
  rest: z.object({ type: z.string(), text: count.optional() }).optional(),
  gracenotes: z
    .array(pitch.extend({ duration: z.number().optional(), acciaccatura: z.boolean().optional() }))
    .optional(),
  decoration: z.array(z.string()).optional(),
  chord: z.array(z.object({ name: z.string(), position: z.string().optional() })).optional(),
  lyric: z.array(z.object({ syllable: z.string(), divider: z.string() })).optional(),
  startTriplet: count.optional(),
  tripletMultiplier: z.number().min(0.01).max(16).optional(),
  endTriplet: z.boolean().optional(),
  startBeam: z.boolean().optional(),
  endBeam: z.boolean().optional(),
  startSlur: z.array(z.object({ label: z.number() })).optional(),
  endSlur: z.array(z.number()).optional(),
});

const bar = z.object({
  el_type: z.literal('bar'),
  type: z.string(),
  startEnding: z.string().optional(),
  endEnding: z.boolean().optional(),
  decoration: z.array(z.string()).optional(),
});

const element = z.union([
  note,
  bar,
  key.extend({ el_type: z.literal('key') }),
  meter.extend({ el_type: z.literal('meter') }),
  clef.extend({ el_type: z.literal('clef') }),
  tempo.extend({ el_type: z.literal('tempo') }),
  z.object({ el_type: z.literal('part'), title: z.string() }),
  z.object({ el_type: z.string() }).transform(() => undefined),
]);

const staff = z.object({
  voices: z.array(z.array(element)),
  key: key.optional(),
  meter: meter.optional(),
  clef: clef.optional(),
  brace: z.string().optional(),
  title: z.array(z.string().nullish()).optional(),
});

const tuneSchema = z.object({
  metaText: z.object({
    title: z.string().optional(),
    composer: z.string().optional(),
    tempo: tempo.optional(),
  }),
  warnings: z.array(z.string()).optional(),
  lines: z.array(z.object({ staff: z.array(staff).optional() })),
});

type AbcTune = z.infer<typeof tuneSchema>;
export type AbcNote = z.infer<typeof note>;
export type AbcBar = z.infer<typeof bar>;
export type AbcPitch = z.infer<typeof pitch>;
export type AbcKey = z.infer<typeof key>;
export type AbcMeter = z.infer<typeof meter>;
export type AbcTempo = z.infer<typeof tempo>;

/** The tunes of a text. Throws InputError where it is too long or cannot be parsed. */
export function parseAbc(text: string): {
  readonly tune: AbcTune;
  readonly tunes: number;
  readonly prepared: Omit<PreparedAbc, 'text'>;
} {
  notTooLong(text);
  const tunes = tunesIn(withHeader(text));
  const { text: abc, ...prepared } = prepareAbc(tunes[0]?.text ?? '');
  const parser = new Parser();
  try {
    parser.parse(abc, {}, 0);
  } catch {
    throw new InputError('This ABC text can’t be read: one of its lines isn’t ABC music.');
  }
  const tune = tuneSchema.safeParse({ ...parser.getTune(), warnings: parser.getWarnings() });
  if (!tune.success) {
    const at = tune.error.issues[0]?.path.join(', ');
    throw new InputError(`This ABC text can’t be read: something in it is far out of range (${at}).`);
  }
  return { tune: tune.data, tunes: tunes.length, prepared };
}

/** A tune typed in haste may lack its number, its key, or the whole of its header. */
function withHeader(text: string): string {
  const clean = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const numbered = /^X:/m.test(clean) ? clean : `X:1\n${clean.replace(/^\s*\n/, '')}`;
  if (/^K:/m.test(numbered)) return numbered;
  const lines = numbered.split('\n');
  const music = lines.findIndex((line, i) => i > 0 && !/^([A-Za-z]:|%)/.test(line));
  const at = music < 0 ? lines.length : music;
  return [...lines.slice(0, at), 'K:C', ...lines.slice(at)].join('\n');
}
