/** How much there is to do for a piece: by its notes and measures, not by the bytes of its file, which say little. */
import type { Score } from '$core/score/score';

export interface Weight {
  readonly notes: number;
  readonly measures: number;
}

/** More than that is worked on beside what opens pages: about a third of a second of arranging. */
const HEAVY: Weight = { notes: 2500, measures: 260 };

export const isHeavy = ({ notes, measures }: Weight): boolean =>
  notes > HEAVY.notes || measures > HEAVY.measures;

/** More than that the bench does not open: to arrange it takes many seconds and the memory of a thread. */
export const MOST_ON_BENCH: Weight = { notes: 25_000, measures: 1500 };

/** Whether a piece is too long for the bench; not said of one that nobody has counted. */
export const isTooLong = (weight: Weight | null): boolean =>
  weight !== null && (weight.notes > MOST_ON_BENCH.notes || weight.measures > MOST_ON_BENCH.measures);

export const weightOf = (score: Score): Weight => ({
  notes: score.parts.reduce((sum, part) => sum + part.notes.length, 0),
  measures: score.measures.length,
});

/** Where the file begins in a form's body, and its name: as far as that is needed to know how much it may be, without parsing the form. */
export function fileWithin(body: Uint8Array): { readonly name: string; readonly bytes: Uint8Array } {
  const buffer = Buffer.from(body.buffer, body.byteOffset, body.byteLength);
  const named = buffer.indexOf('filename="');
  const head = named < 0 ? -1 : buffer.indexOf('\r\n\r\n', named);
  if (head < 0) return { name: '', bytes: body };
  const start = named + 'filename="'.length;
  return {
    name: buffer.toString('utf8', start, Math.max(start, buffer.indexOf('"', start))),
    bytes: body.subarray(head + 4),
  };
}

/** A file larger than this is not looked through to know that it is heavy. */
const MOST_LOOKED_AT = 400_000;
/** Bytes of a note in a MIDI file: its beginning and its end, with their times. */
const PER_MIDI_NOTE = 8;
/** As much as an archive packs music. */
const PACKED = 20;
const PER_XML_NOTE = 220;

const count = (text: string, pattern: RegExp): number => text.match(pattern)?.length ?? 0;

/** What a file that nobody has read yet may hold: more rather than less, and found faster than by reading it. */
export function estimated(name: string, bytes: Uint8Array): Weight {
  if (bytes.length > MOST_LOOKED_AT) return { notes: Infinity, measures: Infinity };
  const head = Buffer.from(bytes.subarray(0, 64)).toString('latin1');
  if (head.startsWith('MThd')) return { notes: bytes.length / PER_MIDI_NOTE, measures: 0 };
  if (head.startsWith('PK') || /\.(mxl|zip)$/i.test(name))
    return { notes: (bytes.length * PACKED) / PER_XML_NOTE, measures: 0 };
  // Of two bytes to a letter half are empty.
  const text = Buffer.from(bytes).toString('latin1').replaceAll('\0', '');
  if (text.includes('<'))
    return { notes: count(text, /<note[\s>]/g), measures: count(text, /<measure[\s>]/g) };
  // ABC and charts: letters of notes and chords, and what stands between bars or on lines of words.
  return { notes: count(text, /[A-Ga-g]/g) / 2, measures: count(text, /\|/g) + count(text, /\n/g) };
}
