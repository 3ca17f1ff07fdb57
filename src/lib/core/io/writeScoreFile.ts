/** A score in any format that we write, by the ending of a file's name. */
import { strToU8, zipSync } from 'fflate';
import type { Score } from '../score/score';
import { writeAbc } from './private/abc/write';
import { writeChordPro, writePlainChart } from './chart/write';
import { writeMidi } from './private/midi/write';
import { writeMusicXml } from './musicxml/write';

interface WrittenFormat {
  /** The ending, with its point. */
  readonly ending: string;
  /** What a teacher would call it. */
  readonly name: string;
  readonly mediaType: string;
  readonly write: (score: Score) => string | Uint8Array;
}

/** The formats in the order in which they are offered. */
export const WRITTEN_FORMATS: readonly WrittenFormat[] = [
  {
    ending: '.musicxml',
    name: 'MusicXML',
    mediaType: 'application/vnd.recordare.musicxml+xml',
    write: writeMusicXml,
  },
  {
    ending: '.mxl',
    name: 'MusicXML, compressed',
    mediaType: 'application/vnd.recordare.musicxml',
    write: (score) => compressed(writeMusicXml(score)),
  },
  { ending: '.mid', name: 'MIDI', mediaType: 'audio/midi', write: writeMidi },
  { ending: '.abc', name: 'ABC', mediaType: 'text/vnd.abc', write: writeAbc },
  { ending: '.pro', name: 'Chord chart (ChordPro)', mediaType: 'text/plain', write: writeChordPro },
  { ending: '.txt', name: 'Chord chart (plain text)', mediaType: 'text/plain', write: writePlainChart },
];

/** Other endings of the same formats. */
const SAME_AS: Readonly<Record<string, string>> = {
  '.xml': '.musicxml',
  '.midi': '.mid',
  '.cho': '.pro',
  '.chordpro': '.pro',
};

/** The format of an ending such as ".mxl"; undefined where there is none. */
export function formatOf(ending: string): WrittenFormat | undefined {
  const lower = ending.toLowerCase();
  return WRITTEN_FORMATS.find((f) => f.ending === (SAME_AS[lower] ?? lower));
}

const CONTAINER =
  '<?xml version="1.0" encoding="UTF-8"?><container><rootfiles><rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>';

/** An .mxl archive: the type first and uncompressed, as the format wants it. */
const compressed = (xml: string): Uint8Array =>
  zipSync({
    mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
    'META-INF/container.xml': strToU8(CONTAINER),
    'score.musicxml': strToU8(xml),
  });
