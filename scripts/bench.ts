/**
 * `npm run bench`, with `-- --json` for a script: how long the core takes, each figure as a share of the time that the
 * engraver takes to load and draw the same music in the same run. Every figure is the best of several runs.
 */
import { reportOf } from '../src/lib/core/analysis/report';
import { readMusicXml } from '../src/lib/core/io/musicxml/read';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import type { Note, Part, Score } from '../src/lib/core/score/score';
import { scoreFrom } from '../src/lib/core/test/shorthand';
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

const times = (measures: number, patterns: readonly string[]): string =>
  Array.from({ length: measures }, (_, i) => patterns[i % patterns.length]).join(' | ');

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

async function readingAndWriting(name: string, score: Score): Promise<Figure[]> {
  const xml = writeMusicXml(score);
  const verovio = await toolkit();
  verovio.setOptions({ pageWidth: 2100, pageHeight: 2970, scale: 40, breaks: 'auto' });
  const engraver = await best(() => {
    verovio.loadData(xml);
    for (let page = 1; page <= verovio.getPageCount(); page++) verovio.renderToSVG(page);
  });
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
  const verovio = await toolkit();
  const xml = writeMusicXml(piano);
  const engraver = await best(() => {
    verovio.loadData(xml);
    for (let page = 1; page <= verovio.getPageCount(); page++) verovio.renderToSVG(page);
  });
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

const figures = [
  ...(await readingAndWriting('64 measures, two hands', piano)),
  ...(await readingAndWriting('22 parts, 40 measures', ensemble())),
  ...(await analysing()),
];

if (process.argv.includes('--json')) console.log(JSON.stringify({ figures }, null, 2));
else
  for (const { what, milliseconds, share, of = 'of the engraver', below } of figures)
    console.log(
      `${what.padEnd(52)} ${milliseconds.toFixed(1).padStart(8)} ms  ${share.toFixed(3).padStart(6)} ${of}${below ? ` (to stay below ${below})` : ''}`,
    );
