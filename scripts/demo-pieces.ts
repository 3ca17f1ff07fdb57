/** Writes the demo pieces, composed for Key Path, as MusicXML into demo-studio/. Run with `npm run demo-pieces`. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom, type Line } from '../src/lib/core/test/shorthand';

type Piece = Line & { file: string };

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
  writeFileSync(
    `demo-studio/${piece.file}.musicxml`,
    writeMusicXml({ ...scoreFrom(piece), composer: 'Key Path demo studio' }),
  );
  console.log(`demo-studio/${piece.file}.musicxml`);
}
