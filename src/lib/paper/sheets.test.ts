/** Every sheet from several pieces: what stands on it, that it fits its pages, and that a reader of PDFs reads it. */
import { LEVELS } from '$core/arrange/levels';
import { readScoreFile } from '$core/io/readScoreFile';
import { withParts } from '$core/players/parts';
import { noteDegree } from '$core/theory/noteDegree';
import { pitchClassName } from '$core/theory/pitch';
import { soundingNotes } from '$core/score/query';
import type { Score } from '$core/score/score';
import { scoreFrom } from '$core/test/shorthand';
import { recipeSchema, type Recipe } from '$core/version/recipe';
import type { Decision } from '$core/decisions/registry';
import { elements, walk, writeSvg, type SvgElement } from '$lib/engrave/svg';
import { readFileSync } from 'node:fs';
import { strToU8, zlibSync } from 'fflate';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import jsQR from 'jsqr';
import { describe, expect, it, vi } from 'vitest';
import type { Block } from './block';
import { choicesSchema, SHEET_IDS, type Choices, type SheetId } from './choices';
import { documentOfOne, handoutDocument, handoutName } from './handout';
import { keyboardPicture, keyRange } from './keyboard';
import { marksIn, overlapsIn } from './overlaps';
import { frameHeight, frameWidth, pagePicture, PAPERS, type PaperDocument } from './page';
import { missingGlyphs } from './missingGlyphs';
import { writePdf } from './pdf';
import { chordSheets, keysOf } from './sheets/chords';
import { duetSheet, partOf } from './sheets/duet';
import { practiceSheet } from './sheets/practice';
import { isHandFree, scoreSheet } from './sheets/score';
import { slashSheet } from './sheets/slash';
import { sourceOf, type Source } from './source';

// The engraver starts within the first of them, on a machine that may be busy.
vi.setConfig({ testTimeout: 60_000 });

const demo = (name: string): Score =>
  withParts(readScoreFile(name, readFileSync(`demo-studio/${name}.musicxml`)).score);
const kite = demo('kite-weather');

interface Wanted {
  readonly choices?: Partial<Choices>;
  readonly recipe?: Partial<Recipe>;
  readonly decisions?: readonly Decision[];
  readonly more?: Partial<Source>;
}
function sourceFrom(
  score: Score,
  level: number,
  { choices, recipe, decisions = [], more }: Wanted = {},
): Source {
  const made = sourceOf({
    recipe: recipeSchema.parse({ level, ...recipe }),
    decisions,
    levels: LEVELS,
    score,
    state: 'change 12',
    learner: 'Berit',
    choices: choicesSchema.parse(choices ?? {}),
  });
  return { ...made, ...more };
}
const frame = { width: frameWidth('a4'), height: frameHeight('a4') };
const imprint = {
  studio: 'Quay Street Studio',
  ownLine: 'By the old quay',
  date: '26 November 2026',
  areRightsKnown: true,
};
const documentOf = (
  source: Source,
  sheets: readonly SheetId[],
  more: Partial<Choices> = {},
): Promise<PaperDocument> =>
  handoutDocument(
    [source],
    choicesSchema.parse({ ...source.choices, ...more, sheets: sheets.map((sheet) => ({ sheet })) }),
    imprint,
  );
const saysOf = (blocks: readonly Block[]): string => blocks.map((b) => b.says).join('\n');
const textOf = (at: SvgElement | string): string =>
  typeof at === 'string' ? at : at.children.map(textOf).join('');
const textsIn = (blocks: readonly Block[]): string[] =>
  blocks.flatMap((b) => b.drawn.flatMap((d) => [...walk(d)].filter((e) => e.name === 'text').map(textOf)));

describe('the head of a sheet', () => {
  it('has the code of the practice room where there is one, as a phone reads it', async () => {
    const link = 'http://music-room.local:5180/room/5Sa1i-9n_BiqEGyomG00tQ';
    const [plain, coded] = await Promise.all(
      [null, link].map((room) => scoreSheet(sourceFrom(kite, 3, { more: { room } }), frame)),
    );
    expect(textsIn(coded!)).toContain('Practice room');
    expect(textsIn(plain!)).not.toContain('Practice room');
    const path = coded![0]!.drawn.flatMap((d) => [...walk(d)]).find((e) => e.name === 'path')!;
    const squares = [...path.attributes.d!.matchAll(/M([\d.]+) ([\d.]+)h([\d.]+)/g)].map((m) =>
      m.slice(1).map(Number),
    );
    // Drawn as a camera sees it: on white, with white around it.
    const [scale, margin] = [6, 24];
    const side = 58 * scale + 2 * margin;
    const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
    for (const [x, y, dot] of squares as [number, number, number][])
      for (let row = Math.round(y * scale); row < Math.round((y + dot) * scale); row++)
        for (let column = Math.round(x * scale); column < Math.round((x + dot) * scale); column++)
          pixels.fill(
            0,
            ((row + margin) * side + column + margin) * 4,
            ((row + margin) * side + column + margin) * 4 + 3,
          );
    expect(jsQR(pixels, side, side)?.data).toBe(link);
  });
});

describe('the score', () => {
  it('holds every measure once, from the head to the last', async () => {
    const source = sourceFrom(kite, 3);
    const blocks = await scoreSheet(source, frame);
    expect(blocks[0]).toMatchObject({ tag: 'H1', says: 'Kite Weather' });
    const music = blocks.filter((b) => b.isSystem).map((b) => b.says);
    expect(music[0]).toBe('Music, pickup to measure 4');
    expect(music.at(-1)).toBe('Music, measures 21 to 24');
    // Each line but the first, which begins with the pickup, has its number.
    const numbers = blocks
      .filter((b) => b.isSystem)
      .flatMap((b) =>
        [...walk(b.drawn[0]!)].filter((e) => e.attributes.class === 'measure-number').map(textOf),
      );
    expect(numbers).toEqual(['5', '9', '13', '17', '21']);
  });
  it('of eight measures is one page', async () => {
    const eight = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: Array.from({ length: 8 }, () => 'C5:1 D5:1 E5:2').join(' | '),
      left: Array.from({ length: 8 }, () => 'C3:4').join(' | '),
    });
    for (const size of ['normal', 'large'] as const)
      expect((await documentOf(sourceFrom(eight, 2), ['score'], { size })).pages).toHaveLength(1);
  });
  it('has larger notes on more lines where it is asked to', async () => {
    const staffs: number[] = [];
    for (const size of ['normal', 'large', 'very large'] as const) {
      const blocks = await scoreSheet(sourceFrom(kite, 2, { choices: { size } }), frame);
      const systems = blocks.filter((b) => b.isSystem);
      staffs.push(systems.length);
      for (const { box } of systems.flatMap((b) => marksIn(b.drawn)))
        expect(box.right).toBeLessThanOrEqual(frame.width + 1);
    }
    expect(staffs[1]).toBeGreaterThanOrEqual(staffs[0]!);
    expect(staffs[2]).toBeGreaterThan(staffs[1]!);
  });
  it('folds what comes again only where word and note are the same', async () => {
    const again = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: [...Array(3)].map(() => 'C5:1 D5:1 E5:2 | G5:4 | E5:2 D5:2 | C5:4').join(' | '),
      left: Array.from({ length: 12 }, () => 'C3:4').join(' | '),
      sections: { 1: 'Verse', 5: 'Chorus', 9: 'Verse again' },
    });
    const plain = await scoreSheet(sourceFrom(again, 2), frame);
    const folded = await scoreSheet(sourceFrom(again, 2, { choices: { repeats: 'folded' } }), frame);
    expect(saysOf(folded)).toContain('repeat measures 1 to 4.');
    expect(folded.filter((b) => b.isSystem).length).toBeLessThan(plain.filter((b) => b.isSystem).length);
  });
  it('writes repeats out where it is asked to', async () => {
    const repeated = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:4 | D5:4 | E5:4 | C5:4',
      left: 'C3:4 | G3:4 | C3:4 | C3:4',
    });
    const withSigns: Score = {
      ...repeated,
      measures: repeated.measures.map((m, i) => ({
        ...m,
        ...(i === 0 ? { repeatStart: true } : {}),
        ...(i === 3 ? { repeatEnd: true } : {}),
      })),
    };
    const out = await scoreSheet(sourceFrom(withSigns, 2, { choices: { repeats: 'written out' } }), frame);
    expect(out.filter((b) => b.isSystem).at(-1)!.says).toMatch(/8$/);
  });
  it('prints the fingers of a chord that is struck again once, and only new positions where that is wished', async () => {
    const chords = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'E5:4 | F5:4',
      left: '[C3 E3 G3]:1 [C3 E3 G3]:1 [C3 E3 G3]:2 | [C3 F3 A3]:4',
    });
    const count = async (fingers: Choices['fingers']): Promise<number> => {
      const blocks = await scoreSheet(sourceFrom(chords, 6, { choices: { fingers } }), frame);
      return blocks.flatMap((b) => (b.isSystem ? marksIn(b.drawn) : [])).filter((m) => m.kind === 'finger')
        .length;
    };
    expect(await count('all')).toBe(2 + 4 * 3);
    expect(await count('once')).toBe(2 + 2 * 3);
    expect(await count('none')).toBe(0);
    expect(await count('positions')).toBeLessThanOrEqual(await count('once'));
    expect(await count('positions')).toBeGreaterThan(0);
  });
  it('has names in the heads, each its own note’s', async () => {
    const source = sourceFrom(kite, 1, { choices: { names: 'heads', size: 'very large' } });
    const blocks = await scoreSheet(source, frame);
    const inHeads = blocks.flatMap((b) =>
      b.drawn.flatMap((d) => [...walk(d)].filter((e) => e.attributes.class === 'in-head').map(textOf)),
    );
    const written = source.version.score.parts[0]!.notes.map((n) => pitchClassName(n.pitch));
    expect([...inHeads].sort()).toEqual([...written].sort());
  });
  it('has the melody as degrees of the key, or as tones of its chords', async () => {
    const texts = async (names: 'degrees' | 'tones'): Promise<string[]> => {
      const blocks = await scoreSheet(sourceFrom(kite, 1, { choices: { names, counts: false } }), frame);
      return blocks.flatMap((b) =>
        b.drawn.flatMap((d) => [...walk(d)].filter((e) => e.name === 'text').map(textOf)),
      );
    };
    const source = sourceFrom(kite, 1).version;
    const melody = source.score.parts[0]!.notes.filter(
      (n) => n.staff === 1 && n.tie !== 'stop' && n.tie !== 'both',
    );
    const wanted = melody.map((n) => noteDegree(n.pitch, source.key));
    const printed = await texts('degrees');
    for (const degree of new Set(wanted))
      expect(printed.filter((t) => t === degree).length, degree).toBeGreaterThanOrEqual(
        wanted.filter((d) => d === degree).length,
      );
    expect((await texts('tones')).some((t) => /^\(\d\)$/.test(t))).toBe(true);
  });
  it('shows what is decided only where it is asked to', async () => {
    const note = sourceFrom(kite, 3).version.score.parts[0]!.notes.find((n) => n.staff === 1)!;
    const decisions: Decision[] = [{ kind: 'finger', at: { note: note.id }, value: 2 }];
    const filled = async (decided: boolean): Promise<number> => {
      const blocks = await scoreSheet(sourceFrom(kite, 3, { decisions, choices: { decided } }), frame);
      return blocks
        .flatMap((b) => b.drawn.flatMap((d) => [...walk(d)]))
        .filter((e) => e.attributes.class?.includes('decided')).length;
    };
    expect(await filled(true)).toBe(1);
    expect(await filled(false)).toBe(0);
  });
  it('knows where a hand is free to turn the page', () => {
    const made = (right: string, left: string) =>
      sourceFrom(scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left }), 6).version;
    expect(isHandFree(made('C5:4 | D5:4', 'C3:4 | D3:4'), 0)).toBe(false);
    expect(isHandFree(made('C5:3 r:1 | D5:4', 'C3:4 | D3:4'), 0)).toBe(true);
    expect(isHandFree(made('C5:4 | D5:4', 'C3:4 | r:1 D3:3'), 0)).toBe(true);
  });
});

describe('on the score nothing runs into anything', () => {
  it.each(['kite-weather', 'teakettle-stroll', 'mill-pond-waltz'])(
    '%s, easy and hard, solo and to sing to',
    async (name) => {
      const score = demo(name);
      for (const [level, style] of [
        [2, 'solo'],
        [5, 'solo'],
        [3, 'sing-along'],
        [6, 'sing-along'],
      ] as const) {
        const source = sourceFrom(score, level, { recipe: { style }, choices: { fingers: 'all' } });
        for (const block of await scoreSheet(source, frame)) {
          if (!block.isSystem) continue;
          const marks = marksIn(block.drawn);
          expect(overlapsIn(marks), `${name} ${level} ${style} ${block.says}`).toEqual([]);
          expect(marks.some((m) => m.kind === 'finger')).toBe(true);
        }
      }
    },
  );
  it('and what does is found', async () => {
    const source = sourceFrom(kite, 2);
    const system = (await scoreSheet(source, frame)).find((b) => b.isSystem)!;
    const marks = marksIn(system.drawn);
    const [finger] = marks.filter((m) => m.kind === 'finger');
    const moved = marks.map((m) => (m.kind === 'count' ? { ...m, box: finger!.box } : m));
    expect(overlapsIn(moved).some((o) => o.kinds.includes('count') && o.kinds.includes('finger'))).toBe(true);
  });
});

/** Keys of a picture by what is drawn over them: the white or black key under the middle of each mark. */
function keysUnder(drawn: readonly SvgElement[], low: number): number[] {
  const rects = drawn
    .flatMap((d) => [...walk(d)])
    .filter((e) => e.name === 'rect' && e.attributes['data-midi'] === undefined);
  const number = (e: SvgElement, name: string): number => Number(e.attributes[name]);
  const whites = rects
    .filter((e) => e.attributes.stroke !== undefined)
    .sort((a, b) => number(a, 'x') - number(b, 'x'));
  const blacks = rects.filter((e) => e.attributes.stroke === undefined);
  const whiteMidis: number[] = [];
  for (let midi = low; whiteMidis.length < whites.length; midi++)
    if (![1, 3, 6, 8, 10].includes(midi % 12)) whiteMidis.push(midi);
  return drawn
    .flatMap((d) => [...walk(d)])
    .filter((e) => e.attributes['data-midi'] !== undefined)
    .map((mark) => {
      const isCircle = mark.name === 'circle';
      const x = isCircle ? number(mark, 'cx') : number(mark, 'x') + number(mark, 'width') / 2;
      const y = isCircle ? number(mark, 'cy') : number(mark, 'y') + number(mark, 'height') / 2;
      const over = (e: SvgElement): boolean =>
        x > number(e, 'x') && x < number(e, 'x') + number(e, 'width') && y < number(e, 'height');
      const black = blacks.find(over);
      if (black) {
        const left = whites.findLast((w) => number(w, 'x') <= number(black, 'x'))!;
        return whiteMidis[whites.indexOf(left)]! + 1;
      }
      return whiteMidis[whites.findIndex(over)]!;
    });
}

describe('a keyboard picture', () => {
  it('has its marks on their keys, whichever they are', () => {
    for (const marks of [
      [48, 52, 55],
      [49, 54, 58, 61],
      [36, 60, 63, 66, 70, 84],
    ]) {
      const range = keyRange(marks);
      const { drawn } = keyboardPicture(
        range,
        marks.map((midi) => ({ midi, hand: 'right' as const, finger: 1 })),
        240,
      );
      expect(keysUnder(drawn, range.low)).toEqual(marks);
      expect(range.low % 12 === 0 || range.low % 12 === 5).toBe(true);
    }
  });
});

describe('the chord sheet', () => {
  it.each([2, 3, 5])('shows at level %d what its hands play under each chord', (level) => {
    const source = sourceFrom(kite, level, { recipe: { style: 'sing-along', introduction: 0 } });
    const { version } = source;
    const played = soundingNotes(version.score.parts[0]!.notes);
    const spans = version.chords.filter((c) => c.chord);
    const pictures = chordSheets(source, frame)
      .flatMap((b) => b.drawn.flatMap((d) => [...walk(d)]))
      .filter((e) => elements(e).some((c) => c.attributes['data-midi'] !== undefined))
      .map((e) => elements(e).flatMap((c) => Number(c.attributes['data-midi']) || []));
    // Those of the key's reference come behind them.
    expect(pictures.length).toBeGreaterThanOrEqual(spans.length / 3);
    const first = pictures[0]!;
    const [span] = spans;
    const inSpan = new Set(
      played
        .filter((n) => n.onset < span!.onset + span!.duration && n.onset + n.duration > span!.onset)
        .map((n) => n.midi),
    );
    for (const midi of first) expect(inSpan).toContain(midi);
  });
  it('holds the chord in the right hand where the version plays the tune, by the engine’s own fingers', () => {
    const blocks = chordSheets(sourceFrom(kite, 3), frame);
    expect(saysOf(blocks)).toContain('the chord to hold instead of the melody');
    expect(saysOf(blocks)).toMatch(/G: G left 5, D left 1, B right \d/);
  });
  it('says that a section has the same chords instead of drawing them again', () => {
    const again = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: [...Array(2)].map(() => 'C5:4 | F5:4 | G5:4 | C5:4').join(' | '),
      // Fuller than the level: what is within it would stay as it is, the ends of both sections alike.
      left: [...Array(2)]
        .map(() => '[C2 G2 C3 E3]:4 | [F2 C3 F3 A3]:4 | [G2 D3 G3 B3]:4 | [C2 G2 C3 E3]:4')
        .join(' | '),
      chords: [...Array(2)].map(() => 'C | F | G | C').join(' | '),
      sections: { 1: 'Verse', 5: 'Chorus' },
    });
    expect(saysOf(chordSheets(sourceFrom(again, 3), frame))).toContain(
      'The same chords as Verse, but for this.',
    );
  });
  it('sets the shapes of one chord side by side, each with how often it stands', () => {
    const says = saysOf(chordSheets(sourceFrom(kite, 3), frame));
    expect(says).toContain('The same chord in several voicings');
    const [, count, shapes] = /\nG in (\d) shapes: (.*)/.exec(says)!;
    expect(Number(count)).toBeGreaterThan(1);
    expect(shapes).toMatch(/^G as G D G B D, \d times, first in measure 1\. G as/);
  });
  it('is in one key, in several, or in all twelve with contents', async () => {
    const names = (keys: Choices['keys']): number =>
      keysOf(sourceFrom(kite, 3, { choices: { keys } })).length;
    expect([names([]), names(['C', 'Bb']), names('all')]).toEqual([1, 2, 12]);
    const source = sourceFrom(kite, 2, { choices: { keys: ['C', 'Bb'] } });
    const document = await documentOf(source, ['chords'], { keys: ['C', 'Bb'] });
    const heads = document.pages.flatMap((p) => p.placed.filter((b) => b.block.outline === 1));
    expect(heads.map((h) => h.block.inOutline)).toEqual([undefined, 'in C major', 'in B♭ major']);
    expect(saysOf(document.pages[0]!.placed.map((p) => p.block))).toContain('B♭ major: B♭');
  });
});

describe('the slash chart', () => {
  it('has every word, chords at their strokes, and says what a section borrows', () => {
    const source = sourceFrom(kite, 3);
    const texts = textsIn(slashSheet(source, frame)).join(' ');
    for (const word of ['wind', 'paper', 'kite', 'stars.']) expect(texts).toContain(word);
    expect(saysOf(slashSheet(source, frame))).toContain(
      'Start singing “High” on the underlined beats at the end of Verse',
    );
  });
  it('sets the singer’s range beside the tune’s, in the octave of the voice', () => {
    const pitch = (step: 'C' | 'G' | 'A', octave: number) => ({ step, octave, alter: 0 });
    const low = sourceFrom(kite, 3, { more: { voice: { low: pitch('A', 2), high: pitch('C', 4) } } });
    expect(saysOf(slashSheet(low, frame))).toContain(
      'The melody from D3 to E4; Berit from A2 to C4. It goes a major third above the voice.',
    );
    const wide = sourceFrom(kite, 3, { more: { voice: { low: pitch('A', 3), high: pitch('G', 5) } } });
    expect(saysOf(slashSheet(wide, frame))).toContain('It fits the voice.');
  });
  it('shows one verse or none where that is wished', () => {
    const texts = (words: Choices['words']) =>
      textsIn(slashSheet(sourceFrom(kite, 3, { choices: { words } }), frame)).join(' ');
    expect(texts('none')).not.toContain('wind');
    expect(texts(1)).toContain('wind');
  });
});

describe('the practice sheet', () => {
  it('has for each chunk its beginning, its steps, a tempo and seven boxes', async () => {
    const blocks = await practiceSheet(sourceFrom(kite, 3), frame);
    const items = blocks.filter((b) => b.says.includes('A box for each day'));
    expect(items).toHaveLength(3);
    for (const item of items) {
      const drawn = item.drawn.flatMap((d) => [...walk(d)]);
      expect(drawn.filter((e) => e.name === 'rect' && e.attributes.rx === '3')).toHaveLength(7);
      expect(drawn.some((e) => e.attributes.class === 'notehead')).toBe(true);
      expect(item.says).toMatch(/= \d+, \d+ minutes a day/);
    }
    expect(saysOf(blocks)).toContain('see a doctor');
    expect(saysOf(blocks)).toContain('for a parent');
  });
  it('has the week as it was set, also of other pieces', async () => {
    const week = {
      minutesADay: 20,
      note: 'Bring the book.',
      items: [
        {
          piece: null,
          places: { from: 5, to: 8 },
          measures: 'Verse, measures 5 to 8',
          steps: ['Left hand'],
          tempo: '♩ = 50',
          minutes: 12,
        },
        {
          piece: 'Slow Ferry',
          places: undefined,
          measures: 'A, measures 1 to 4',
          steps: ['Play it again'],
          tempo: null,
          minutes: 2,
        },
      ],
    };
    const says = saysOf(await practiceSheet(sourceFrom(kite, 3, { more: { week } }), frame));
    expect(says).toContain('20 minutes a day');
    expect(says).toContain('Verse, measures 5 to 8: Left hand; ♩ = 50, 12 minutes a day');
    expect(says).toContain('Slow Ferry, A, measures 1 to 4: Play it again; 2 minutes a day');
    expect(says).toContain('Bring the book.');
  });
});

describe('a duet', () => {
  it('has each hand as a part, the other’s notes as cues that have no fingers', () => {
    const { version } = sourceFrom(kite, 3);
    const part = partOf(version, 'left');
    for (const note of part.score.parts[0]!.notes) {
      expect(note.cue ?? false).toBe(note.staff === 1);
      if (note.cue) expect(note.finger).toBeUndefined();
    }
    expect(part.score.parts[0]!.notes).toHaveLength(version.score.parts[0]!.notes.length);
  });
  it('gives the players of a class the parts in turn, with each other’s names', async () => {
    const [berit, runa] = ['Berit', 'Runa'].map((learner) => sourceFrom(kite, 3, { more: { learner } }));
    const document = await handoutDocument(
      [berit!, runa!],
      choicesSchema.parse({ sheets: [{ sheet: 'duet' }] }),
      imprint,
    );
    const texts = document.pages.flatMap((p) => textsIn(p.placed.map((b) => b.block))).join(' | ');
    expect(texts).toContain('upper part of two');
    expect(texts).toContain('lower part of two');
    expect(texts).toContain('The small notes belong to Runa');
    expect(texts).toContain('The small notes belong to Berit');
    expect(await duetSheet(berit!, frame)).not.toHaveLength(0);
    // Parted, each has the part out of the whole, not both hands.
    const own = documentOfOne(document, runa!, 1);
    const ownTexts = own.pages.flatMap((p) => textsIn(p.placed.map((b) => b.block))).join(' | ');
    expect(ownTexts).toContain('lower part of two');
    expect(ownTexts).not.toContain('upper part of two');
    expect(own.title).toBe('Kite Weather, level 3, Runa');
    const others = documentOfOne(document, berit!, 0).pages;
    expect([...others, ...own.pages]).toEqual(document.pages);
  });
});

describe('every sheet of every piece', () => {
  it.each(['fox-at-the-gate', 'long-shadows', 'slow-ferry'])(
    '%s fits its pages and names what it is',
    async (name) => {
      const score = demo(name);
      for (const level of [1, 4]) {
        const document = await documentOf(sourceFrom(score, level), SHEET_IDS, { paper: 'letter' });
        for (const { placed, foot, height, width } of document.pages) {
          expect([width, height]).toEqual([PAPERS.letter.width, PAPERS.letter.height]);
          for (const { block, y } of placed)
            expect(y + block.height).toBeLessThanOrEqual(frameHeight('letter') + 0.5);
          const text = foot.map(textOf).join(' ');
          expect(text).toContain('Quay Street Studio · By the old quay');
          expect(text).toContain('26 November 2026 · change 12');
          expect(text).toMatch(/\d+ of \d+/);
        }
        expect(new Set(document.pages.map((p) => p.sheet)).size).toBe(SHEET_IDS.length);
      }
    },
  );
  it('says on every page that rights are not known, and only then', async () => {
    const source = sourceFrom(kite, 2);
    const choices = choicesSchema.parse({ sheets: [{ sheet: 'score' }, { sheet: 'practice' }] });
    const unknown = await handoutDocument([source], choices, { ...imprint, areRightsKnown: false });
    for (const page of unknown.pages) expect(page.foot.map(textOf).join(' ')).toContain('Copyright unknown');
    expect((await documentOf(source, ['score'])).pages[0]!.foot.map(textOf).join(' ')).not.toContain(
      'rights',
    );
  });
  it('comes as often and in the order that was chosen', async () => {
    const choices = choicesSchema.parse({
      sheets: [
        { sheet: 'practice', copies: 2 },
        { sheet: 'score', copies: 1 },
      ],
    });
    const document = await handoutDocument([sourceFrom(kite, 2)], choices, imprint);
    expect(document.pages.map((p) => p.sheet).slice(0, 3)).toEqual(['Practice', 'Practice', 'Score']);
    expect(handoutName([sourceFrom(kite, 2)], choices)).toBe('Kite Weather, level 2, Berit - Handout');
  });
});

/** What an independent reader finds in a PDF. */
async function readPdf(bytes: Uint8Array) {
  expect(missingGlyphs(bytes)).toMatchObject({ missing: 0 });
  const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  const texts: string[] = [];
  for (let i = 1; i <= pdf.numPages; i++) {
    const content = await (await pdf.getPage(i)).getTextContent();
    texts.push(
      content.items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''),
    );
  }
  const { info } = await pdf.getMetadata();
  const first = await pdf.getPage(1);
  return {
    pdf,
    texts,
    info: info as Record<string, unknown>,
    tree: await first.getStructTree(),
    view: first.view,
    outline: await pdf.getOutline(),
  };
}

describe('a PDF', () => {
  it('is read by another program: pages, words, signs, title, language, outline, tags', async () => {
    const document = await documentOf(sourceFrom(kite, 3), ['score', 'chords', 'slash']);
    const bytes = await writePdf(document);
    const { pdf, texts, info, tree, view, outline } = await readPdf(bytes);
    expect(pdf.numPages).toBe(document.pages.length);
    expect(info).toMatchObject({
      Title: 'Kite Weather, level 3, Berit',
      Author: 'Quay Street Studio',
      Language: 'en',
    });
    expect(view[2]).toBeCloseTo(595.28, 1);
    const all = texts.join(' ');
    for (const word of ['Kite Weather', 'Verse', 'wind', 'F♯', '♩', 'Quay Street Studio'])
      expect(all).toContain(word);
    expect(outline.map((o: { title: string }) => o.title)).toEqual([
      'Score: Kite Weather',
      'Chords: Kite Weather',
      'Lyric chart: Kite Weather',
    ]);
    expect(outline[0]!.items.map((o: { title: string }) => o.title)).toEqual([
      'Verse',
      'Chorus',
      'Last verse',
    ]);
    const tags = JSON.stringify(tree);
    for (const tag of ['H1', 'H2', 'Figure']) expect(tags).toContain(`"role":"${tag}"`);
    expect(tags).toContain('"alt":"Music, pickup to measure 4"');
    expect(bytes.length / document.pages.length).toBeLessThan(300_000);
  });
  it('has the letters of other alphabets', async () => {
    const source = sourceFrom(kite, 2, {
      more: { title: 'Žluťoučký – Πρωί – Вечер', learner: 'Zoë Ångström' },
    });
    const { texts } = await readPdf(await writePdf(await documentOf(source, ['practice'])));
    for (const word of ['Žluťoučký', 'Πρωί', 'Вечер', 'Zoë Ångström'])
      expect(texts.join(' ').replace(/\s+/g, ' ')).toContain(word);
  });
  it('has a face for every letter and sign: tempos that change, chord signs, letters that nobody has', async () => {
    const score: Score = {
      ...kite,
      tempoChanges: [
        { onset: kite.measures[3]!.start, tempo: 60 },
        { onset: kite.measures[6]!.start, tempo: 99 },
      ],
    };
    const source = sourceFrom(score, 4, { more: { title: '日本 and 🎹 nothing', composer: 'Ж' } });
    const bytes = await writePdf(await documentOf(source, ['score', 'chords', 'slash', 'practice']));
    const { missing, letters } = missingGlyphs(bytes);
    expect(letters).toBeGreaterThan(500);
    expect(missing).toBe(0);
    const { texts } = await readPdf(bytes);
    expect(texts.join(' ')).toContain('·· and nothing');
    expect(texts.join(' ')).toContain('\u{1D15F}');
  });
  it('counts what has no glyph', () => {
    const page = (strings: string): Uint8Array => {
      const content = zlibSync(strToU8(`BT ${strings} TJ ET`));
      return Uint8Array.from([...strToU8('<< >>\nstream\n'), ...content, ...strToU8('\nendstream')]);
    };
    expect(missingGlyphs(page('[<00010002> 0]'))).toEqual({ missing: 0, letters: 2 });
    expect(missingGlyphs(page('[<00010000> 0 <0003>]'))).toEqual({ missing: 1, letters: 3 });
  });
  it('shows the same as the pictures of its pages', async () => {
    const document = await documentOf(sourceFrom(kite, 2), ['practice', 'flashcards']);
    const { texts } = await readPdf(await writePdf(document));
    document.pages.forEach((page, i) => {
      const picture = pagePicture(page, i);
      expect(writeSvg(picture)).toContain('viewBox="0 0 595.28 841.89"');
      const words = [...walk(picture)]
        .filter((e) => e.name === 'text')
        .map(textOf)
        .join('')
        .replace(/\s/g, '');
      expect([...texts[i]!.replace(/\s/g, '')].sort().join('')).toBe([...words].sort().join(''));
    });
  });
});
