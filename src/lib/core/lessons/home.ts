/**
 * A practice room that is one file: what it holds, and the results that come of it. Results are text: it can be saved, or copied
 * into a message, and is taken in once, since everything in it carries its own name.
 */
import { unzlibSync, zlibSync } from 'fflate';
import { z } from 'zod';
import type { Locale } from '../locale';
import { plural } from '../plural';
import { InputError } from '../io/inputError';
import { roomSentSchema, type RoomSent } from './record';
import type { RoomPiece, RoomTask } from './room';

/** A piece in a file: its pictures for a wide screen and for a phone. */
export interface HomePiece {
  readonly music: RoomPiece['music'];
  readonly wide: RoomPiece['pictures'];
  readonly narrow: RoomPiece['pictures'];
}

/** What a file holds. */
export interface HomeContents {
  /** Names the record in the browser: files of one student go on with the same. */
  readonly id: string;
  /** Whose room it is, or of which piece. */
  readonly name: string;
  readonly locale: Locale;
  readonly tasks: readonly RoomTask[];
  /** By assignment. */
  readonly pieces: Readonly<Record<string, HomePiece>>;
}

/** Marks the place in the page where its contents go. */
export const CONTENTS_HERE = '"CONTENTS"';

/** As they stand in the page: JSON in which nothing ends the element around it. */
export const contentsText = (contents: HomeContents): string =>
  JSON.stringify(contents).replace(/</g, '\\u003c');

/** Bytes of results at most, once they are unpacked. */
const LARGEST = 4_000_000;
/** Things that results tell at most. */
const MOST = 5000;

const resultsSchema = z.object({
  name: z.string().max(200),
  sent: z.array(roomSentSchema).max(MOST),
});
type Results = z.infer<typeof resultsSchema>;

/** Before the results: which kind of text this is. */
const KIND = 'kp1';

/** A check over text, so that a letter that was lost is noticed (Fowler, Noll and Vo, 1a, 32 bits). */
function checkOf(text: string): string {
  let sum = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) sum = Math.imul(sum ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return sum.toString(36);
}

function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text).replace(/\+/g, '-').replace(/\//g, '_').replace(/=+$/, '');
}

const fromBase64 = (text: string): Uint8Array =>
  Uint8Array.from(atob(text.replace(/-/g, '+').replace(/_/g, '/')), (c) => c.charCodeAt(0));

/** Results as text. */
export function resultsText(name: string, sent: readonly RoomSent[]): string {
  const packed = toBase64(zlibSync(new TextEncoder().encode(JSON.stringify({ name, sent })), { level: 9 }));
  return `${KIND}.${packed}.${checkOf(packed)}.`;
}

/** Reads results out of a text; what a message has put around it, and its line breaks, do not matter. Throws InputError. */
export function resultsIn(text: string): Results {
  const found = /kp1\s*\.([\w\s-]+)\.([a-z0-9\s]+)\./.exec(text);
  if (!found) {
    throw new InputError(
      /kp1\s*\./.test(text)
        ? 'The results are cut off. Copy the whole text, or use the saved file.'
        : 'These aren’t practice results. They begin with “kp1.”',
    );
  }
  const [packed, check] = [found[1]!, found[2]!].map((part) => part.replace(/\s/g, ''));
  if (checkOf(packed!) !== check) {
    throw new InputError(
      'Part of the results is missing or changed. Copy the whole text, or use the saved file.',
    );
  }
  try {
    // What would be larger is cut off there, and then no JSON any more.
    const bytes = unzlibSync(fromBase64(packed!), { out: new Uint8Array(LARGEST) });
    return resultsSchema.parse(JSON.parse(new TextDecoder().decode(bytes)));
  } catch (error) {
    throw new InputError('The results can’t be read. Save them once more in the practice file.', {
      cause: error,
    });
  }
}

/** "2 results and 14 minutes of practice", without minutes where none was full. */
export function resultsInWords(sent: readonly RoomSent[]): string {
  const steps = plural(sent.filter((s) => s.kind === 'event').length, 'result');
  const minutes = Math.round(practisedIn(sent) / 60);
  return minutes === 0 ? steps : `${steps} and ${plural(minutes, 'minute')} of practice`;
}

/** Seconds of practice in results. */
export const practisedIn = (sent: readonly RoomSent[]): number =>
  sent.reduce((sum, s) => sum + (s.kind === 'practice' ? s.seconds : 0), 0);
