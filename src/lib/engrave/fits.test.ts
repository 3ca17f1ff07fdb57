import { beforeAll, describe, expect, it } from 'vitest';
import { readMusicXml } from '$core/io/musicxml/read';
import { ticksOf } from '$core/score/places';
import { readChart } from '$core/io/chart/read';
import { NO_CHOICES, withParts } from '$core/players/parts';
import type { Score } from '$core/score/score';
import { scoreFrom } from '$core/test/shorthand';
import { realise } from '$core/version/realise';
import { DEFAULT_RECIPE, type Recipe } from '$core/version/recipe';
import { filled, templateOf } from './annotate';
import { engrave } from './engrave';
import { fitsOnOneSystem, widthNeeded } from './fits';
import { sheetOf, type Sheet } from './sheet';
import { toolkit } from './toolkit';

const fourFour = { beats: 4, beatType: 4 };
const chart = readChart(
  'Key: Eb\n[Verse]\n| Ebmaj7#11/Bb Cm7b5 F7sus4 Bb13b9 | Abm(maj7)/Eb Gb° | Eb6/9 | Bb7alt |',
).score;
const songs: readonly [string, Score][] = [
  [
    'a plain song',
    scoreFrom({ key: 'C', time: fourFour, right: 'C4:1 D4:1 E4:2 | G4:4 | E4:2 D4:2 | C4:4' }),
  ],
  [
    'black keys and sixteenths',
    scoreFrom({
      key: 'Db',
      time: fourFour,
      right: `${'Db5:0.25 E4:0.25 F#4:0.25 Ab4:0.25 '.repeat(4)}| Db5:0.5 C5:0.5 B4:0.5 Bb4:0.5 A4:1 G4:1`,
      left: `Db3:1 F3:1 Ab3:1 B3:1 | ${'[E3 A3]:0.5 [Eb3 Ab3]:0.5 '.repeat(4)}`,
    }),
  ],
  ['long chord names', withParts(chart, NO_CHOICES)],
];
const sheets = songs.flatMap(([name, score]) =>
  ([1, 4, 6] as Recipe['level'][]).flatMap((level) => {
    const made = realise(score, { ...DEFAULT_RECIPE, level }, []);
    return made.form.phrases.map((phrase) => ({
      name: `${name} at level ${level}`,
      sheet: sheetOf(made, phrase, { width: 900, fingers: true, counts: true, chords: true }),
    }));
  }),
);

/** Width that the engraver gives a sheet where it need not break or stretch it, in CSS pixels. */
async function naturalWidth({ xml }: Sheet): Promise<number> {
  const verovio = await toolkit();
  verovio.setOptions({ breaks: 'none' });
  verovio.loadData(xml);
  return Number(/viewBox="0 0 (\d+)/.exec(verovio.renderToSVG(1))![1]);
}

describe('short lines', () => {
  const song = scoreFrom({
    key: 'C',
    time: fourFour,
    pickup: 1,
    right: `G4:1 | C5:1 D5:1 E5:1 F5:1 | G5:4 | ${'C5:0.25 D5:0.25 E5:0.25 F5:0.25 '.repeat(4)}| C5:4 | C5:4`,
  });
  const made = realise(song, { ...DEFAULT_RECIPE, level: 6 }, []);
  const lines = (width: number) => {
    const sheet = sheetOf(
      made,
      { from: 0, to: 5 },
      { width, fingers: true, counts: true, chords: true, perLine: 2 },
    );
    let line = 0;
    return sheet.xml
      .split(/<measure\b/)
      .slice(1)
      .map((m) => (m.includes('new-system') ? ++line : line));
  };
  it('hold two measures, a pickup beside them', () => {
    expect(lines(900)).toEqual([0, 0, 0, 1, 1, 2]);
  });
  it('hold one where two have no room', () => {
    expect(lines(330).slice(3)).toEqual([1, 2, 2].map((n) => n + lines(330)[2]! - 0));
  });
  it('are never narrower than their widest measure needs', () => {
    const wish = { fingers: true, counts: true, chords: true, perLine: 2 } as const;
    const { width } = sheetOf(made, { from: 3, to: 3 }, { ...wish, width: 240 });
    expect(width).toBeGreaterThan(340);
  });
});

describe('a sheet that is said to fit on one system', () => {
  // The options of our pictures are those of the toolkit from the first picture on.
  beforeAll(() => engrave(sheets[0]!.sheet));
  it.each(sheets)('does: $name', async ({ sheet }) => {
    const natural = await naturalWidth(sheet);
    expect(fitsOnOneSystem({ ...sheet, width: natural - 1 })).toBe(false);
    expect(widthNeeded(sheet)).toBeLessThan(2 * natural);
  });
  it('is drawn as it is with line breaks looked for', async () => {
    const verovio = await toolkit();
    for (const { sheet } of sheets.filter((s) => fitsOnOneSystem(s.sheet))) {
      const picture = await engrave(sheet);
      verovio.setOptions({ breaks: 'auto' });
      verovio.loadData(sheet.xml);
      expect(picture).toBe(filled(templateOf(verovio.renderToSVG(1), sheet), sheet));
    }
  });
});

describe('a chunk that begins or ends at a beat', () => {
  it('is engraved with the notes struck there, in measures as long as it', async () => {
    for (const [, song] of songs) {
      const made = realise(song, { ...DEFAULT_RECIPE, level: 4 }, []);
      const { measures, parts } = made.score;
      for (const [fromBeat, toBeat] of [
        [2, 1],
        [3, 2],
        [4, 3],
      ] as const) {
        const places = { from: 0, to: 1, fromBeat, toBeat };
        const sheet = sheetOf(made, places, { width: 900, fingers: true, counts: true, chords: true });
        const { start, end } = ticksOf(measures, places);
        const own = parts[0]!.notes.filter((n) => n.onset >= start && n.onset < end).map((n) => n.id);
        expect(
          Object.values(sheet.notes)
            .map((n) => n.id)
            .sort(),
        ).toEqual(own.sort());
        expect(sheet.counts.every(({ tick }) => tick >= start && tick < end)).toBe(true);
        const read = readMusicXml(sheet.xml).score;
        expect(read.measures.map((m) => m.length)).toEqual([
          measures[0]!.length - (start - measures[0]!.start),
          end - measures[1]!.start,
        ]);
        expect(await engrave(sheet)).toContain('<svg');
      }
    }
  });
});
