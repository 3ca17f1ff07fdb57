/**
 * Writes the demo pieces, composed for Key Path, as MusicXML into demo-studio/. Run with `npm run demo-pieces`.
 *
 * A line of music is text: measures apart by `|`, notes as PITCH:QUARTERS, `r` for a rest, chords in square brackets.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { endOf, measureLength } from '../src/lib/core/score/metre';
import { notate } from '../src/lib/core/score/notate';
import type { Pitch, Step } from '../src/lib/core/score/pitch';
import type { ChordSymbol, Measure, Note, Score, TimeSignature } from '../src/lib/core/score/score';
import { TICKS_PER_QUARTER } from '../src/lib/core/score/ticks';
import { CHORD_KINDS, type ChordKindId } from '../src/lib/core/theory/chordKinds';
import { toFifths } from '../src/lib/core/theory/fifths';
import { parseKey } from '../src/lib/core/theory/key';

interface Piece {
  file: string;
  title: string;
  key: string;
  time: TimeSignature;
  tempo: number;
  /** Quarters before the first barline. */
  pickup: number;
  right: string;
  left: string;
  /** Chord symbols, one measure each, evenly spread over it; empty for a piece without symbols. */
  chords: string;
  /** Section names by measure number. */
  sections: Record<number, string>;
}

function pitch(text: string): Pitch {
  const match = /^([A-G])(#|b)?(\d)$/.exec(text);
  if (!match) throw new Error(`Not a pitch: ${text}`);
  const alter = match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0;
  return { step: match[1] as Step, alter, octave: Number(match[3]) };
}

function chord(text: string): ChordSymbol['chord'] {
  const match = /^([A-G])(#|b)?([^/]*)(?:\/([A-G])(#|b)?)?$/.exec(text);
  if (!match) throw new Error(`Not a chord: ${text}`);
  const place = (step: string, accidental?: string): number =>
    toFifths({ step: step as Step, alter: accidental === '#' ? 1 : accidental === 'b' ? -1 : 0 });
  const kind = (Object.keys(CHORD_KINDS) as ChordKindId[]).find((k) => CHORD_KINDS[k].symbol === match[3]);
  if (!kind) throw new Error(`Not a chord: ${text}`);
  return { root: place(match[1]!, match[2]), kind, ...(match[4] ? { bass: place(match[4], match[5]) } : {}) };
}

const measureTexts = (line: string): string[] => line.split('|').map((m) => m.trim());

function notesOf(line: string, measures: readonly Measure[], staff: number): Note[] {
  return measureTexts(line).flatMap((text, i) => {
    const measure = measures[i];
    if (!measure) throw new Error(`Staff ${staff} has more than ${measures.length} measures.`);
    let onset = measure.start;
    let count = 0;
    const notes = text.split(/\s+(?![^[]*\])/).flatMap((token): Note[] => {
      const [what, quarters] = token.split(':');
      const duration = Number(quarters) * TICKS_PER_QUARTER;
      const at = onset;
      onset += duration;
      const pitches = what === 'r' ? [] : what!.replace(/[[\]]/g, '').split(' ');
      return pitches.map((p) => ({
        id: `m${i}s${staff}n${count++}`,
        onset: at,
        duration,
        pitch: pitch(p),
        staff,
        voice: 1,
      }));
    });
    if (onset !== endOf(measure))
      throw new Error(
        `Staff ${staff}, measure ${measure.number}: ${(onset - measure.start) / TICKS_PER_QUARTER} quarters.`,
      );
    return notes;
  });
}

function build(piece: Piece): Score {
  const key = parseKey(piece.key)!;
  const full = measureLength(piece.time);
  const count = measureTexts(piece.right).length;
  let start = 0;
  const measures = Array.from({ length: count }, (_, index): Measure => {
    const isPickup = index === 0 && piece.pickup > 0;
    const length = isPickup ? piece.pickup * TICKS_PER_QUARTER : full;
    const number = String(piece.pickup > 0 ? index : index + 1);
    const section = piece.sections[Number(number)];
    start += length;
    return {
      index,
      number,
      start: start - length,
      length,
      time: piece.time,
      key,
      beginsAt: full - length,
      ...(section ? { section } : {}),
      ...(index === count - 1 ? { barline: 'final' as const } : {}),
    };
  });
  const symbols = piece.chords === '' ? [] : measureTexts(piece.chords);
  return {
    title: piece.title,
    composer: 'Key Path demo studio',
    tempo: piece.tempo,
    measures,
    parts: [
      {
        id: 'P1',
        name: 'Piano',
        staves: 2,
        notes: notate(measures, [...notesOf(piece.right, measures, 1), ...notesOf(piece.left, measures, 2)]),
      },
    ],
    chordSymbols: symbols.flatMap((text, i) => {
      const names = text.split(/\s+/).filter(Boolean);
      return names.map((name, j) => ({
        onset: measures[i]!.start + (j * measures[i]!.length) / names.length,
        chord: chord(name),
      }));
    }),
    pedals: [],
  };
}

/** Low root, fifth and tenth, fifth again: the wide left hand of the song. */
const rolling = (root: string, fifth: string, tenth: string): string =>
  `${root}:1 ${fifth}:1 ${tenth}:1 ${fifth}:1`;

/** Two chords in a measure: root and fifth of each. */
const half = (root: string, fifth: string): string => `${root}:1 ${fifth}:1`;

const [G, Em, C, D, Am] = [
  rolling('G2', 'D3', 'B3'),
  rolling('E2', 'B2', 'G3'),
  rolling('C3', 'G3', 'E4'),
  rolling('D3', 'A3', 'F#4'),
  rolling('A2', 'E3', 'C4'),
];
const AmThenD = `${half('A2', 'E3')} ${half('D3', 'A3')}`;

const songVerse =
  'G4:1.5 A4:0.5 B4:1 D5:1 | B4:1.5 A4:0.5 G4:2 | C5:1 B4:0.5 A4:0.5 G4:1 E4:1 | D4:1 F#4:1 A4:1 D4:1 | ' +
  'G4:1.5 A4:0.5 B4:1 D5:1 | E5:1.5 D5:0.5 B4:2 | C5:1 B4:0.5 A4:0.5 B4:0.5 A4:0.5 F#4:1';
const songVerseLeft = [G, Em, C, D, G, Em, AmThenD].join(' | ');
const songVerseChords = 'G | Em | C | D | G | Em | Am D';

const kiteWeather: Piece = {
  file: 'kite-weather',
  title: 'Kite Weather',
  key: 'G',
  time: { beats: 4, beatType: 4 },
  tempo: 104,
  pickup: 1,
  right: [
    'D4:1',
    songVerse,
    'G4:3 D5:1',
    'E5:2 D5:1 C5:1 | B4:1.5 C5:0.5 D5:2 | C5:1 B4:1 A4:1 G4:1 | F#4:1 G4:1 A4:2',
    'E5:2 D5:1 C5:1 | B4:1.5 A4:0.5 B4:1 D5:1 | C5:1 A4:1 F#4:1.5 G4:0.5 | G4:3 D4:1',
    songVerse,
    'G4:4',
  ].join(' | '),
  left: [
    'r:1',
    songVerseLeft,
    'G2:1 D3:1 [G3 B3]:2',
    [C, G, Am, D].join(' | '),
    [C, rolling('B2', 'G3', 'D4'), AmThenD].join(' | '),
    'G2:1 D3:1 [G3 B3]:2',
    songVerseLeft,
    'G2:1 D3:1 [G3 B3]:2',
  ].join(' | '),
  chords: [' ', songVerseChords, 'G', 'C | G | Am | D', 'C | G/B | Am D7 | G', songVerseChords, 'G'].join(
    ' | ',
  ),
  sections: { 1: 'Verse', 9: 'Chorus', 17: 'Last verse' },
};

/** Low note, then the chord twice. */
const waltz = (low: string, chordNotes: string): string => `${low}:1 [${chordNotes}]:1 [${chordNotes}]:1`;

const wD = waltz('D3', 'F#3 A3');
const wD2 = waltz('A2', 'F#3 D4');
const wG = waltz('G2', 'D3 B3');
const wA = waltz('A2', 'E3 C#4');
const wA7 = waltz('A2', 'G3 C#4');
const wEm = waltz('E3', 'G3 B3');
const wBm = waltz('B2', 'F#3 D4');
const wBm2 = waltz('F#3', 'B3 D4');

const waltzOpening =
  'A4:1 D5:1 F#5:1 | F#5:2 E5:1 | D5:1 B4:1 G4:1 | A4:3 | G4:1 B4:1 E5:1 | E5:1.5 D5:0.5 C#5:1';
const waltzOpeningLeft = [wD, wD2, wG, wD, wEm, wA7].join(' | ');
const waltzClose = 'E5:1 C#5:1 A4:1 | D5:3';
const waltzCloseLeft = [wA, 'D3:1 A3:1 [F#3 A3]:1'].join(' | ');

const millPond: Piece = {
  file: 'mill-pond-waltz',
  title: 'Mill Pond Waltz',
  key: 'D',
  time: { beats: 3, beatType: 4 },
  tempo: 132,
  pickup: 0,
  right: [
    waltzOpening,
    'D5:1 A4:1 F#4:1 | E4:1 A4:2',
    waltzOpening,
    waltzClose,
    'B4:1 D5:1 F#5:1 | F#5:2 D5:1 | G5:1 E5:1 B4:1 | E5:3 | C#5:1 E5:1 A5:1 | A5:2 G5:1 | F#5:1 E5:1 C#5:1 | E5:2 r:1',
    waltzOpening,
    waltzClose,
  ].join(' | '),
  left: [
    waltzOpeningLeft,
    [wD, wA].join(' | '),
    waltzOpeningLeft,
    waltzCloseLeft,
    [wBm, wBm2, wEm, waltz('B2', 'G3 B3'), wA, waltz('E3', 'A3 C#4'), wA7, wA].join(' | '),
    waltzOpeningLeft,
    waltzCloseLeft,
  ].join(' | '),
  chords: '',
  sections: {},
};

mkdirSync('demo-studio', { recursive: true });
for (const piece of [kiteWeather, millPond]) {
  writeFileSync(`demo-studio/${piece.file}.musicxml`, writeMusicXml(build(piece)));
  console.log(`demo-studio/${piece.file}.musicxml`);
}
