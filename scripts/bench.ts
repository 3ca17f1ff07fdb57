/**
 * `npm run bench`, with `-- --json` for a script: how long the core takes, each figure as a share of the time that the
 * engraver takes to load and draw the same music in the same run. Every figure is the best of several runs.
 */
import { LEVELS } from '../src/lib/core/arrange/levels';
import { formOf } from '../src/lib/core/analysis/form';
import { reportOf } from '../src/lib/core/report/report';
import { fingerHand } from '../src/lib/core/fingering/fingerHand';
import type { Finger } from '../src/lib/core/fingering/grips';
import { forgetPhrases } from '../src/lib/core/fingering/solve';
import { readMusicXml } from '../src/lib/core/io/musicxml/read';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import type { Note, Part, Score } from '../src/lib/core/score/score';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { fullOf, times } from './benchMusic';
import { rankKeys } from '../src/lib/core/keys/rank';
import { fingersOf } from '../src/lib/core/version/markSource';
import { realise } from '../src/lib/core/version/realise';
import { DEFAULT_RECIPE, type Recipe } from '../src/lib/core/version/recipe';
import { toolkit } from '../src/lib/engrave/toolkit';

const RUNS = 5;

interface Figure {
  readonly what: string;
  readonly milliseconds: number;
  /** Share of the engraver's time for the same music, or of the time named in `of`. */
  readonly share: number;
  readonly of?: string;
  /** The share that it is to stay below, where there is one. */
  readonly below?: number;
}

/** Best of several runs, in milliseconds. */
async function best(run: () => unknown): Promise<number> {
  let least = Infinity;
  for (let i = 0; i < RUNS; i++) {
    const start = performance.now();
    await run();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

/** Measures for two hands: eighths and chords, as a pianist of some years plays. */
const pianoOf = (measures: number): Score =>
  scoreFrom({
    title: 'Two hands',
    key: 'D',
    time: { beats: 4, beatType: 4 },
    tempo: 100,
    right: times(measures, [
      'D5:0.5 E5:0.5 F#5:1 A5:0.5 G5:0.5 F#5:1',
      '[B4 G5]:1.5 A5:0.5 [D5 F#5]:1 E5:1',
      'D5:0.5 C#5:0.5 B4:0.5 A4:0.5 [G4 B4]:1 [F#4 A4]:1',
      '[E4 A4 C#5]:2 [D4 F#4 D5]:2',
    ]),
    left: times(measures, [
      'D3:0.5 A3:0.5 F#3:0.5 A3:0.5 D3:0.5 A3:0.5 F#3:0.5 A3:0.5',
      'G2:0.5 D3:0.5 B3:0.5 D3:0.5 [D3 A3]:1 [A2 A3]:1',
      'B2:1 [D3 F#3]:1 E3:1 [G3 B3]:1',
      'A2:1 [E3 G3]:1 D3:2',
    ]),
    chords: times(measures, ['D', 'G D', 'Bm Em', 'A7 D']),
  });

const piano = pianoOf(64);

/** Twenty-two parts of forty measures, as a score for many instruments brings them. */
function ensemble(): Score {
  const one = scoreFrom({
    title: 'Twenty-two parts',
    key: 'F',
    time: { beats: 4, beatType: 4 },
    right: times(40, ['F4:0.5 G4:0.5 A4:1 C5:0.5 Bb4:0.5 A4:1', 'G4:1.5 A4:0.5 Bb4:1 G4:1', 'A4:2 F4:1 r:1']),
  });
  const parts = Array.from({ length: 22 }, (_, p): Part => ({
    ...one.parts[0]!,
    id: `P${p + 1}`,
    name: `Part ${p + 1}`,
    notes: one.parts[0]!.notes.map((n): Note => ({ ...n, id: `p${p}${n.id}` })),
  }));
  return { ...one, parts };
}

/** What the engraver takes to load and draw a score. */
async function engraving(score: Score): Promise<number> {
  const xml = writeMusicXml(score);
  const verovio = await toolkit();
  verovio.setOptions({ pageWidth: 2100, pageHeight: 2970, scale: 40, breaks: 'auto' });
  return best(() => {
    verovio.loadData(xml);
    for (let page = 1; page <= verovio.getPageCount(); page++) verovio.renderToSVG(page);
  });
}

async function readingAndWriting(name: string, score: Score): Promise<Figure[]> {
  const xml = writeMusicXml(score);
  const engraver = await engraving(score);
  const reading = await best(() => readMusicXml(xml));
  const writing = await best(() => writeMusicXml(score));
  return [
    { what: `${name}: engraver, load and draw`, milliseconds: engraver, share: 1 },
    { what: `${name}: reading MusicXML`, milliseconds: reading, share: reading / engraver, below: 0.3 },
    { what: `${name}: writing MusicXML`, milliseconds: writing, share: writing / engraver },
  ];
}

async function analysing(): Promise<Figure[]> {
  // Without symbols, so that the chords have to be heard.
  const unnamed = (score: Score): Score => ({ ...score, chordSymbols: [] });
  const engraver = await engraving(piano);
  const own = await best(() => reportOf(unnamed(piano)));
  const [short, long] = [unnamed(pianoOf(128)), unnamed(pianoOf(1024))];
  const few = await best(() => reportOf(short));
  const many = await best(() => reportOf(long));
  return [
    { what: '64 measures: analysing', milliseconds: own, share: own / engraver, below: 0.5 },
    { what: '128 measures: analysing', milliseconds: few, share: few / engraver },
    { what: '1024 measures: analysing', milliseconds: many, share: many / engraver },
    {
      what: '1024 measures: analysing, against 128',
      milliseconds: many,
      share: many / few,
      of: 'times the time of 128',
      below: 9,
    },
  ];
}

async function fingering(): Promise<Figure[]> {
  const score = fullOf(64);
  const part = score.parts[0]!;
  const engraver = await engraving(score);
  const reach = { right: 14, left: 14 };
  const own = await best(() => {
    forgetPhrases();
    return fingersOf(score, part, { reach, keep: false });
  });
  /** Both hands; the form of a piece, which says where phrases begin, is known. */
  const hands = (of: Score): (() => void) => {
    const known = formOf(of);
    return () => {
      forgetPhrases();
      for (const hand of ['right', 'left'] as const)
        fingerHand(of, of.parts[0]!, hand, known, { reach: 14, locks: new Map(), steadiness: 1 });
    };
  };
  const measuresOf = (count: number): number => Math.round((count * 64) / part.notes.length);
  const short = await best(hands(fullOf(measuresOf(1000))));
  const long = await best(hands(fullOf(measuresOf(10_000))));
  // One finger is locked after another, as a teacher does; everything else is known already.
  const form = formOf(score);
  const edits: number[] = [];
  const isAlone = (n: Note): boolean =>
    part.notes.every((m) => m === n || m.onset !== n.onset || m.staff !== n.staff);
  const notes = part.notes.filter((n) => n.staff === 1 && isAlone(n));
  for (let i = 0; i < 60; i++) {
    const note = notes[(i * 37) % notes.length]!;
    const locks = new Map<string, Finger>([[note.id, ((i % 5) + 1) as Finger]]);
    const start = performance.now();
    fingerHand(score, part, 'right', form, { reach: 14, locks, steadiness: 1 });
    edits.push(performance.now() - start);
  }
  const median = edits.sort((a, b) => a - b)[30]!;
  return [
    {
      what: `fingering ${part.notes.length} notes of 64 measures`,
      milliseconds: own,
      share: own / engraver,
      below: 0.25,
    },
    {
      what: 'fingering 10,000 notes, against 1,000',
      milliseconds: long,
      share: long / short,
      of: 'times the time of 1,000',
      below: 10,
    },
    { what: 'one finger decided', milliseconds: median, share: median, of: 'ms at the median', below: 5 },
  ];
}

/** From a source that nobody has seen to finished versions, and the ranking of all keys with the real fingering solver. */
async function arranging(): Promise<Figure[]> {
  const score = fullOf(64);
  const engraver = await engraving(score);
  /** The same music as a new source, so that nothing is known about it. */
  const unseen = (): Score => ({ ...score, chordSymbols: [] });
  const recipe: Recipe = { ...DEFAULT_RECIPE, level: 3 };
  const levels = LEVELS.map((l) => l.level);
  const one = await best(() => {
    forgetPhrases();
    realise(unseen(), recipe, []);
  });
  const six = await best(() => {
    forgetPhrases();
    const source = unseen();
    for (const level of levels) realise(source, { ...recipe, level }, []);
  });
  const keys = await best(() => {
    forgetPhrases();
    rankKeys(unseen(), recipe);
  });
  return [
    { what: 'source to version, 64 measures', milliseconds: one, share: one / engraver, below: 1 },
    { what: 'source to all six levels, 64 measures', milliseconds: six, share: six / engraver, below: 4 },
    {
      what: 'ranking all keys, 64 measures',
      milliseconds: keys,
      share: keys / 1000,
      of: 'seconds',
      below: 2,
    },
  ];
}

const figures = [
  ...(await readingAndWriting('64 measures, two hands', piano)),
  ...(await readingAndWriting('22 parts, 40 measures', ensemble())),
  ...(await analysing()),
  ...(await fingering()),
  ...(await arranging()),
];

if (process.argv.includes('--json')) console.log(JSON.stringify({ figures }, null, 2));
else
  for (const { what, milliseconds, share, of = 'of the engraver', below } of figures)
    console.log(
      `${what.padEnd(52)} ${milliseconds.toFixed(1).padStart(8)} ms  ${share.toFixed(3).padStart(6)} ${of}${below ? ` (to stay below ${below})` : ''}`,
    );
