/** What is too large to be a piece for a keyboard. Each is judged before the work that it bounds. */
import { InputError } from './inputError';

/** Largest file that is read, in bytes: a score of 100,000 notes as MusicXML has 20 MB. */
export const MOST_BYTES = 24 * 1024 * 1024;
/** Largest MIDI file, in bytes: a note takes eight. */
export const MOST_MIDI_BYTES = 6 * 1024 * 1024;
/** Largest score out of an archive, in bytes. */
export const MOST_UNPACKED = 40 * 1024 * 1024;
/** Longest text, in characters: some thousand measures. */
const MOST_CHARACTERS = 600_000;
export const MOST_MEASURES = 4000;
export const MOST_PARTS = 200;
/** Measures of all parts together. */
export const MOST_PART_MEASURES = 100_000;
/** Notes of all parts together. */
export const MOST_NOTES = 250_000;

/** Said of a file that is larger; undefined for one that is not. */
export const tooLarge = (name: string, bytes: number): string | undefined =>
  bytes > MOST_BYTES
    ? `“${name}” has ${Math.round(bytes / 1024 / 1024)} MB; a score of up to ${MOST_BYTES / 1024 / 1024} MB can be read.`
    : undefined;

/** Throws InputError where there are more than can be read. `what` is the plural of the thing counted. */
export function atMost(count: number, most: number, what: string): void {
  if (count > most)
    throw new InputError(
      `The score has more than ${most.toLocaleString('en')} ${what}, which is more than can be read.`,
    );
}

/** Throws InputError where a text is longer than can be read. */
export function notTooLong(text: string): void {
  if (text.length > MOST_CHARACTERS)
    throw new InputError(
      `The text has ${text.length.toLocaleString('en')} characters; up to ${MOST_CHARACTERS.toLocaleString('en')} can be read. Add one tune or song at a time.`,
    );
}
