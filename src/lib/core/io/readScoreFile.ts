/** Any score file that we read, by what is in it rather than by its name. */
import { strFromU8, Unzip, UnzipInflate } from 'fflate';
import { readAbc } from './abc/read';
import { isChordPro, isPlainChart, readChart } from './chart/read';
import { decode } from './decode';
import { checkedScore } from './private/checkedScore';
import { InputError } from './inputError';
import { MOST_UNPACKED, notTooLong, tooLarge } from './limits';
import { readMidi } from './midi/read';
import { readMusicXml } from './musicxml/read';
import type { ReadResult } from './readResult';
import { givenTitle, titleOfFile } from './private/titles';
import { child, parseXml } from './private/musicxml/xml';

const MOST_ENTRIES = 200;
/** Bytes of an archive that are unpacked at a time: what comes out of them is a thousand times as much at most. */
const AT_A_TIME = 8 * 1024;

/** Reads a file. Throws InputError with one sentence for the person who brought it. */
export function readScoreFile(name: string, bytes: Uint8Array): ReadResult {
  const { score, warnings } = readAnyFormat(name, bytes);
  const title = givenTitle(score.title) || titleOfFile(name);
  return { score: { ...checkedScore(score), title }, warnings };
}

function readAnyFormat(name: string, bytes: Uint8Array): ReadResult {
  if (bytes.length === 0) throw new InputError(`“${name}” is empty.`);
  const large = tooLarge(name, bytes.length);
  if (large) throw new InputError(large);
  if (startsWith(bytes, 'MThd')) return readMidi(bytes);
  const isZip = startsWith(bytes, 'PK');
  const text = decode(isZip ? unpack(name, bytes) : bytes);
  if (/^[\s\uFEFF]*</.test(text)) return readMusicXml(text);
  return readText(name, text);
}

/** Control characters other than tabs and line ends: a text has none. */
function isNoText(character: string): boolean {
  const code = character.codePointAt(0)!;
  return (
    (code < 0x20 && !(code >= 0x09 && code <= 0x0d)) || (code >= 0x7f && code <= 0x9f) || code === 0xfffd
  );
}

/** Music as text, by what is in it, and by the ending of the file's name where that says nothing. */
function readText(name: string, text: string): ReadResult {
  notTooLong(text);
  if ([...text.slice(0, 4000)].some(isNoText))
    throw new InputError(`Key Path can’t read “${name}”. Use MusicXML, MIDI, ABC or a chord chart.`);
  if (/\.abc$/i.test(name) || /^(X:\s*\d|K:\s*[A-G])/m.test(text)) return readAbc(text);
  if (/\.(pro|cho|crd|chopro|chordpro)$/i.test(name) || isChordPro(text) || isPlainChart(text))
    return readChart(text);
  if (/\.(music)?xml$/i.test(name))
    throw new InputError(`“${name}” is not a MusicXML file: nothing in it could be read as music.`);
  throw new InputError(
    `“${name}” is neither MusicXML, MIDI, ABC nor a chord chart: nothing in it could be read as music.`,
  );
}

const startsWith = (bytes: Uint8Array, text: string): boolean =>
  [...text].every((c, i) => bytes[i] === c.charCodeAt(0));

/** The score inside a compressed MusicXML archive; no path from the archive is ever used. */
function unpack(name: string, bytes: Uint8Array): Uint8Array {
  try {
    const files = unzipped(name, bytes);
    const container = files.get('META-INF/container.xml');
    const rootfile =
      container &&
      child(child(parseXml(strFromU8(container)), 'rootfiles'), 'rootfile')?.attributes['full-path'];
    const score =
      (rootfile ? files.get(rootfile) : undefined) ??
      [...files].find(([path]) => !path.startsWith('META-INF/'))?.[1];
    if (!score) throw new InputError(`“${name}” is an archive without a score in it.`);
    return score;
  } catch (error) {
    if (error instanceof InputError) throw error;
    throw new InputError(`“${name}” is an archive that cannot be opened: it may have been cut off.`);
  }
}

/**
 * The files of an archive that may be scores. It is unpacked bit by bit and judged by what comes out of it: what an
 * archive says of its own sizes may be wrong. Throws InputError where it is more than a score can be.
 */
function unzipped(name: string, bytes: Uint8Array): ReadonlyMap<string, Uint8Array> {
  const swells = new InputError(`“${name}” unpacks to far more than a score; it was not opened.`);
  const files = new Map<string, Uint8Array>();
  let entries = 0;
  let total = 0;
  const unzip = new Unzip((file) => {
    entries += 1;
    if (entries > MOST_ENTRIES) throw swells;
    if (!/\.(xml|musicxml)$/i.test(file.name)) return;
    const chunks: Uint8Array[] = [];
    file.ondata = (error, chunk, isLast) => {
      if (error) throw error;
      total += chunk.length;
      if (total > MOST_UNPACKED) throw swells;
      chunks.push(chunk);
      if (isLast) files.set(file.name, joined(chunks));
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  for (let at = 0; at < bytes.length; at += AT_A_TIME)
    unzip.push(bytes.subarray(at, at + AT_A_TIME), at + AT_A_TIME >= bytes.length);
  return files;
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(chunks.reduce((sum, c) => sum + c.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}
