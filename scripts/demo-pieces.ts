/** Writes the demo pieces, composed for Key Path, as MusicXML into demo-studio/. Run with `npm run demo-pieces`. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import type { Lyric, Score } from '../src/lib/core/score/score';
import { scoreFrom, type Line } from '../src/lib/core/test/shorthand';

interface Piece extends Line {
  file: string;
  /** Syllables for the notes of the right hand in order; "-" joins them to a word, "_" leaves a note out. */
  words?: string;
  swings?: boolean;
}

const bars = (...lines: readonly string[]): string => lines.join(' | ');

/* Kite Weather: a song with verse and chorus. */

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
const songVerseLeft = bars(G, Em, C, D, G, Em, AmThenD);
const songVerseChords = 'G | Em | C | D | G | Em | Am D';

const kiteWeather: Piece = {
  file: 'kite-weather',
  title: 'Kite Weather',
  key: 'G',
  time: { beats: 4, beatType: 4 },
  tempo: 104,
  pickup: 1,
  right: bars(
    'D4:1',
    songVerse,
    'G4:3 D5:1',
    'E5:2 D5:1 C5:1 | B4:1.5 C5:0.5 D5:2 | C5:1 B4:1 A4:1 G4:1 | F#4:1 G4:1 A4:2',
    'E5:2 D5:1 C5:1 | B4:1.5 A4:0.5 B4:1 D5:1 | C5:1 A4:1 F#4:1.5 G4:0.5 | G4:3 D4:1',
    songVerse,
    'G4:4',
  ),
  left: bars(
    'r:1',
    songVerseLeft,
    'G2:1 D3:1 [G3 B3]:2',
    bars(C, G, Am, D),
    bars(C, rolling('B2', 'G3', 'D4'), AmThenD),
    'G2:1 D3:1 [G3 B3]:2',
    songVerseLeft,
    'G2:1 D3:1 [G3 B3]:2',
  ),
  chords: bars(' ', songVerseChords, 'G', 'C | G | Am | D', 'C | G/B | Am D7 | G', songVerseChords, 'G'),
  sections: { 1: 'Verse', 9: 'Chorus', 17: 'Last verse' },
  words:
    'The wind has come to call us out with pa- per wings and tails of blue, oh ' +
    'hold the string and let it run un- til the day- light is through. ' +
    'High, high o- ver field and town, no- bo- dy can bring it down, ' +
    'high o- ver all the chim- ney tops on a kite day. ' +
    'Then wind it in, the light is low, the string has burned my hands a lit- tle, ' +
    'one more turn and home we go, and leave the wind to the stars.',
};

/* Mill Pond Waltz: three in a measure. */

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
const waltzOpeningLeft = bars(wD, wD2, wG, wD, wEm, wA7);
const waltzClose = 'E5:1 C#5:1 A4:1 | D5:3';
const waltzCloseLeft = bars(wA, 'D3:1 A3:1 [F#3 A3]:1');

const millPond: Piece = {
  file: 'mill-pond-waltz',
  title: 'Mill Pond Waltz',
  key: 'D',
  time: { beats: 3, beatType: 4 },
  tempo: 132,
  right: bars(
    waltzOpening,
    'D5:1 A4:1 F#4:1 | E4:1 A4:2',
    waltzOpening,
    waltzClose,
    'B4:1 D5:1 F#5:1 | F#5:2 D5:1 | G5:1 E5:1 B4:1 | E5:3 | C#5:1 E5:1 A5:1 | A5:2 G5:1 | F#5:1 E5:1 C#5:1 | E5:2 r:1',
    waltzOpening,
    waltzClose,
  ),
  left: bars(
    waltzOpeningLeft,
    bars(wD, wA),
    waltzOpeningLeft,
    waltzCloseLeft,
    bars(wBm, wBm2, wEm, waltz('B2', 'G3 B3'), wA, waltz('E3', 'A3 C#4'), wA7, wA),
    waltzOpeningLeft,
    waltzCloseLeft,
  ),
};

/* Slow Ferry: a ballad in six eighths. */

/** Root, fifth, third above, and back: the water under the boat. */
const water = (root: string, fifth: string, third: string, top: string): string =>
  `${root}:0.5 ${fifth}:0.5 ${third}:0.5 ${top}:0.5 ${third}:0.5 ${fifth}:0.5`;
/** Half a measure of it. */
const lap = (root: string, fifth: string, third: string): string => `${root}:0.5 ${fifth}:0.5 ${third}:0.5`;

const fF = water('F2', 'C3', 'F3', 'A3');
const fDm = water('D3', 'A3', 'D4', 'A3');
const fBb = water('Bb2', 'F3', 'Bb3', 'F3');
const fC = water('C3', 'G3', 'C4', 'G3');
const fGm = water('G2', 'D3', 'Bb3', 'D3');
const fC7 = water('C3', 'G3', 'Bb3', 'E4');
const fClose = `${lap('C3', 'F3', 'A3')} ${lap('C3', 'E3', 'Bb3')}`;

const ferryA = 'C5:1.5 A4:1 C5:0.5 | F5:1.5 E5:1 D5:0.5 | D5:1 C5:0.5 Bb4:1 A4:0.5';
const ferryALeft = bars(fF, fDm, fBb);

const slowFerry: Piece = {
  file: 'slow-ferry',
  title: 'Slow Ferry',
  key: 'F',
  time: { beats: 6, beatType: 8 },
  tempo: 84,
  right: bars(
    ferryA,
    'G4:1.5 r:1 G4:0.5 | A4:1 Bb4:0.5 C5:1 A4:0.5 | D5:1.5 F5:1 D5:0.5 | C5:1 A4:0.5 Bb4:1 G4:0.5 | F4:3',
    ferryA,
    'G4:1.5 C5:1 Bb4:0.5 | A4:1 C5:0.5 F5:1 E5:0.5 | D5:1.5 G5:1 F5:0.5 | E5:1 F5:0.5 G5:1 E5:0.5 | F5:3',
    'A5:1.5 G5:1 F5:0.5 | E5:1.5 C5:1.5 | D5:1 E5:0.5 F5:1 G5:0.5 | A5:1.5 F5:1.5',
    'Bb4:1 C5:0.5 D5:1 G5:0.5 | F#5:1.5 D5:1.5 | Bb4:1 D5:0.5 C5:1 Bb4:0.5 | C5:1.5 Bb4:1 G4:0.5',
    ferryA,
    'G4:1.5 r:1 G4:0.5 | A4:1 Bb4:0.5 C5:1 Eb5:0.5 | D5:1.5 Db5:1.5 | C5:1 A4:0.5 Bb4:1 G4:0.5 | F4:3',
  ),
  left: bars(
    ferryALeft,
    bars(fC, fF, fBb, fClose, fF),
    ferryALeft,
    bars(fC, fF, fGm, fC7, fF),
    bars(fDm, water('A2', 'E3', 'C4', 'E3'), fBb, fF),
    bars(fGm, water('F#2', 'D3', 'A3', 'C4'), `${lap('G2', 'D3', 'Bb3')} ${lap('C3', 'E3', 'Bb3')}`, fC7),
    ferryALeft,
    bars(fC, water('F2', 'C3', 'A3', 'Eb4'), `${lap('Bb2', 'F3', 'D4')} ${lap('Bb2', 'F3', 'Db4')}`, fClose),
    'F2:0.5 C3:0.5 A3:0.5 F3:1.5',
  ),
  chords: bars(
    'F | Dm | Bb | C | F | Bb | F/C C7 | F',
    'F | Dm | Bb | C | F | Gm | C7 | F',
    'Dm | Am | Bb | F | Gm | D7/F# | Gm C7 | C7',
    'F | Dm | Bb | C | F7 | Bb Bbm | F/C C7 | F',
  ),
  sections: { 1: 'Verse', 9: 'Verse', 17: 'Bridge', 25: 'Last verse' },
  words:
    'Slow goes the fer- ry and wide is the wa- ter, the lamp on the land- ing, so far; row, row me slow- ly. ' +
    'Low goes the sun- light and cool is the eve- ning; the gulls fol- low the mast all the way o- ver the bay home. ' +
    `${'_ '.repeat(24)}` +
    'Slow goes the fer- ry and near is the har- bour, the kitch- en is warm and bright; row, row me slow- ly.',
};

/* Fox at the Gate: a minor key, and a pickup. */

/** Bass and chord in turn, the bass on two notes. */
const lowAndChord = (low: string, chord: string, other: string): string =>
  `${low}:1 [${chord}]:1 ${other}:1 [${chord}]:1`;

const xEm = lowAndChord('E3', 'G3 B3', 'B2');
const xAm = lowAndChord('A2', 'E3 C4', 'E3').replace('E3:1 [', 'C3:1 [');
const xB7 = lowAndChord('B2', 'A3 D#4', 'F#3');
const xG = lowAndChord('G2', 'D3 B3', 'D3');
const xC = lowAndChord('C3', 'G3 E4', 'G2');
const xD = lowAndChord('D3', 'F#3 A3', 'A2');

const foxOpening = 'E5:1.5 D5:0.5 B4:1 G4:1 | A4:1 C5:1 E5:1 C5:1 | B4:1.5 A4:0.5 F#4:1 D#4:1 | E4:3 B4:1';
const foxOpeningLeft = bars(xEm, xAm, xB7, 'E3:1 [G3 B3]:1 E3:2');

const foxAtTheGate: Piece = {
  file: 'fox-at-the-gate',
  title: 'Fox at the Gate',
  key: 'Em',
  time: { beats: 4, beatType: 4 },
  tempo: 116,
  pickup: 1,
  right: bars(
    'B4:1',
    foxOpening,
    'E5:1.5 F#5:0.5 G5:1 E5:1 | C5:1 E5:1 G5:1 F#5:0.5 E5:0.5 | F#5:1 D#5:1 B4:1 A4:1 | G4:1 E4:2 B4:1',
    'D5:1.5 E5:0.5 D5:1 B4:1 | A4:1 D5:1 F#5:1 E5:0.5 D5:0.5 | E5:1.5 D5:0.5 C5:1 E5:1 | D5:3 D5:1',
    'G5:1.5 F#5:0.5 E5:1 D5:1 | C5:1 E5:1 A5:1 G5:0.5 F#5:0.5 | E5:1 C5:1 D#5:1 F#5:1 | B4:3 B4:1',
    foxOpening,
    'E5:1.5 F#5:0.5 G5:1 E5:1 | C5:1 E5:1 A5:1 G5:1 | F#5:1 D#5:1 C5:1 B4:1 | E5:2 E4:2',
  ),
  left: bars(
    'r:1',
    foxOpeningLeft,
    bars(xEm, xC, xB7, 'E3:1 [G3 B3]:1 E3:2'),
    bars(xG, xD, xC, 'G2:1 [D3 B3]:1 G2:2'),
    bars(xG, xAm, 'F#3:1 [A3 C4]:1 B2:1 [F#3 A3]:1', 'B2:1 [F#3 A3]:1 B2:2'),
    foxOpeningLeft,
    bars(xEm, xAm, xB7, 'E3:1 B2:1 [E3 G3]:2'),
  ),
  chords: bars(
    ' ',
    'Em | Am | B7 | Em | Em | C | B7 | Em',
    'G | D | C | G | G | Am | F#m7b5 B7 | B7',
    'Em | Am | B7 | Em | Em | Am | B7 | Em',
  ),
  sections: { 1: 'A', 9: 'B', 17: 'A' },
};

/* Teakettle Stroll: a swing melody, AABA. */

const pair = (low: string, chord: string): string => `${low}:1 [${chord}]:1`;

const kBb = lowAndChord('Bb2', 'D3 G3', 'F2');
const kGm = lowAndChord('G2', 'D3 F3', 'D3').replace('D3:1 [', 'Bb2:1 [');
const kCm = lowAndChord('C3', 'Eb3 Bb3', 'G2');
const kF7 = lowAndChord('F2', 'Eb3 A3', 'C3');

const strollA =
  'r:0.5 F4:0.5 G4:0.5 Bb4:0.5 D5:1.5 Bb4:0.5 | G4:1 Bb4:0.5 D5:1 C5:0.5 Bb4:1 | ' +
  'r:0.5 Eb4:0.5 G4:0.5 C5:0.5 Eb5:1.5 C5:0.5 | A4:1 C5:0.5 Eb5:1 D5:0.5 C5:1 | ' +
  'r:0.5 F4:0.5 G4:0.5 Bb4:0.5 D5:1.5 Bb4:0.5 | F5:1 D5:0.5 Bb4:1 G4:0.5 F4:1 | ' +
  'G4:0.5 Bb4:0.5 Eb5:1 D5:0.5 C5:0.5 A4:1';
const strollALeft = bars(kBb, kGm, kCm, kF7, kBb, kGm, `${pair('C3', 'Eb3 Bb3')} ${pair('F2', 'Eb3 A3')}`);
const strollAChords = 'Bb6 | Gm7 | Cm7 | F7 | Bb6 | Gm7 | Cm7 F7 | Bb6';

const teakettleStroll: Piece = {
  file: 'teakettle-stroll',
  title: 'Teakettle Stroll',
  key: 'Bb',
  time: { beats: 4, beatType: 4 },
  tempo: 138,
  swings: true,
  right: bars(
    strollA,
    'Bb4:1.5 F4:0.5 Bb4:1 r:1',
    strollA,
    'Bb4:1.5 F4:0.5 Bb4:1 r:1',
    'Bb4:1 C5:0.5 Eb5:1.5 G5:1 | Gb5:1.5 Eb5:0.5 C5:1 Bb4:1 | D5:1 F5:0.5 D5:1.5 Bb4:1 | B4:1.5 D5:0.5 F5:1 D5:1',
    'E5:1 D5:0.5 C5:1.5 Bb4:1 | C5:1.5 E5:0.5 G5:1 E5:1 | Eb5:1 D5:0.5 C5:1.5 G4:1 | A4:0.5 C5:0.5 Eb5:0.5 G5:0.5 F5:1 r:1',
    strollA,
    '[D4 G4 Bb4]:4',
  ),
  left: bars(
    strollALeft,
    'Bb2:1 [D3 G3]:1 Bb2:1 r:1',
    strollALeft,
    'Bb2:1 [D3 G3]:1 Bb2:1 r:1',
    bars(
      lowAndChord('Eb3', 'G3 Bb3', 'Bb2'),
      lowAndChord('Eb3', 'Gb3 Bb3', 'Bb2'),
      kBb,
      lowAndChord('G2', 'F3 B3', 'D3'),
    ),
    bars(
      lowAndChord('C3', 'E3 Bb3', 'G2'),
      lowAndChord('C3', 'E3 Bb3', 'G2'),
      kCm,
      'F2:1 [Eb3 A3]:1 F2:1 r:1',
    ),
    strollALeft,
    'Bb2:1 F2:1 Bb1:2',
  ),
  chords: bars(strollAChords, strollAChords, 'Eb | Ebm | Bb6 | G7 | C7 | C7 | Cm7 | F7', strollAChords),
  sections: { 1: 'A', 9: 'A', 17: 'B', 25: 'A' },
};

/* Long Shadows at Low Tide: a lyric piece with a wide left hand. */

/** Up over a tenth or twelfth and back, in eighths. */
const tide = (...notes: readonly [string, string, string, string, string]): string =>
  [0, 1, 2, 3, 4, 3, 2, 1].map((i) => `${notes[i]!}:0.5`).join(' ');
/** Half a measure: root, fifth, tenth, fifth. */
const ebb = (root: string, fifth: string, tenth: string): string =>
  `${root}:0.5 ${fifth}:0.5 ${tenth}:0.5 ${fifth}:0.5`;

const tEb = tide('Eb2', 'Bb2', 'Eb3', 'G3', 'Bb3');
const tCm = tide('C2', 'G2', 'C3', 'Eb3', 'G3');
const tAb = tide('Ab2', 'Eb3', 'Ab3', 'C4', 'Eb4');
const tBb = tide('Bb2', 'F3', 'Bb3', 'D4', 'F4');
const tEbG = tide('G2', 'Eb3', 'G3', 'Bb3', 'Eb4');
const tFm = tide('F2', 'C3', 'F3', 'Ab3', 'C4');
const tGm = tide('G2', 'D3', 'G3', 'Bb3', 'D4');
const tFmBb = `${ebb('F2', 'C3', 'Ab3')} ${ebb('Bb2', 'F3', 'D4')}`;

const tideA = 'G5:2 F5:0.5 Eb5:0.5 Bb4:1 | C5:1.5 D5:0.5 Eb5:2 | C6:1.5 Bb5:0.5 Ab5:1 G5:1';
const tideClose = 'F5:1 Eb5:0.5 D5:0.5 C5:0.5 D5:0.5 F5:1';

const longShadows: Piece = {
  file: 'long-shadows',
  title: 'Long Shadows at Low Tide',
  key: 'Eb',
  time: { beats: 4, beatType: 4 },
  tempo: 72,
  right: bars(
    tideA,
    'F5:3 Bb4:1 | [Bb4 G5]:2 Ab5:0.5 G5:0.5 F5:1 | [Ab4 Eb5]:1.5 F5:0.5 C5:2',
    tideClose,
    '[G4 Eb5]:3 r:1',
    'Eb5:0.5 D5:0.5 C5:1 G5:2 | F5:1 D5:1 [G4 Bb4]:2 | C5:0.5 D5:0.5 Eb5:1 Ab5:1.5 G5:0.5 | G5:1 F5:0.5 Eb5:0.5 [G4 Bb4]:2',
    '[C5 Ab5]:1.5 G5:0.25 Ab5:0.25 C6:1 Ab5:1 | G5:1.5 E5:0.5 C5:1 Bb4:1 | Ab4:1 C5:1 [D5 F5]:1 Ab5:1 | Ab5:0.5 G5:0.5 [D5 F5]:3',
    tideA,
    'F5:2 G5:1 Ab5:1 | G5:1.5 F5:0.5 D5:1 B4:1 | C5:1 Eb5:1 [Eb5 G5]:2',
    tideClose,
    '[G4 Eb5]:3 Bb4:1',
    'C5:1.5 Eb5:0.5 [C5 Ab5]:2 | Ab5:1.5 Eb5:0.5 Cb5:2 | Bb4:1 G5:1 F5:1 D5:1 | [G4 Bb4 Eb5]:4',
  ),
  left: bars(
    tEb,
    tCm,
    tAb,
    tBb,
    tEbG,
    tAb,
    tFmBb,
    'Eb2:0.5 Bb2:0.5 Eb3:0.5 G3:0.5 Eb3:2',
    bars(tCm, tGm, tAb, tEbG, tFm, tide('E2', 'C3', 'G3', 'Bb3', 'C4'), tFmBb, tBb),
    bars(tEb, tCm, tAb, tBb, tide('G2', 'D3', 'G3', 'B3', 'D4'), tCm, tFmBb, tEb),
    bars(
      tAb,
      tide('Ab2', 'Eb3', 'Ab3', 'Cb4', 'Eb4'),
      `${ebb('Bb2', 'Eb3', 'G3')} ${ebb('Bb2', 'F3', 'Ab3')}`,
    ),
    'Eb2:0.5 Bb2:0.5 G3:0.5 Bb3:0.5 Eb3:2',
  ),
  chords: bars(
    'Eb | Cm | Ab | Bb | Eb/G | Ab | Fm7 Bb7 | Eb',
    'Cm | Gm | Ab | Eb/G | Fm | C7/E | Fm Bb7 | Bb7',
    'Eb | Cm | Ab | Bb | G7 | Cm | Fm7 Bb7 | Eb',
    'Ab | Abm | Eb/Bb Bb7 | Eb',
  ),
  sections: { 1: 'A', 9: 'B', 17: 'A', 25: 'Coda' },
};

/** The score with its syllables on the upper notes of the right hand. */
function withWords(score: Score, words: string): Score {
  const tokens = words.trim().split(/\s+/);
  const part = score.parts[0]!;
  const carriers = part.notes.filter(
    (n, i) => n.staff === 1 && n.tie !== 'stop' && n.tie !== 'both' && part.notes[i - 1]?.onset !== n.onset,
  );
  const lyrics = new Map<string, Lyric>();
  let inWord = false;
  carriers.forEach((note, i) => {
    const token = tokens[i];
    if (!token || token === '_') return;
    const goesOn = token.endsWith('-');
    const syllabic = goesOn ? (inWord ? 'middle' : 'begin') : inWord ? 'end' : 'single';
    lyrics.set(note.id, { line: 'words', verse: 1, text: token.replace(/-$/, ''), syllabic });
    inWord = goesOn;
  });
  if (tokens.length !== carriers.length)
    throw new Error(`${score.title}: ${tokens.length} syllables for ${carriers.length} notes.`);
  return {
    ...score,
    parts: [
      {
        ...part,
        notes: part.notes.map((n) => (lyrics.has(n.id) ? { ...n, lyrics: [lyrics.get(n.id)!] } : n)),
      },
    ],
  };
}

const withSwing = (score: Score): Score => ({
  ...score,
  parts: score.parts.map((p) => ({
    ...p,
    marks: [{ kind: 'words', onset: 0, staff: 1, above: true, text: 'Swing' }],
  })),
});

mkdirSync('demo-studio', { recursive: true });
for (const piece of [kiteWeather, millPond, slowFerry, foxAtTheGate, teakettleStroll, longShadows]) {
  const plain: Score = { ...scoreFrom(piece), composer: 'Key Path demo studio' };
  const worded = piece.words ? withWords(plain, piece.words) : plain;
  const score = piece.swings ? withSwing(worded) : worded;
  writeFileSync(`demo-studio/${piece.file}.musicxml`, writeMusicXml(score));
  console.log(`demo-studio/${piece.file}.musicxml, ${score.measures.length} measures`);
}
