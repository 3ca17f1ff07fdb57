/** Text, lines and pages: laws that hold whatever stands on them. */
import { LEVELS } from '$core/arrange/levels';
import { realise } from '$core/version/realise';
import { recipeSchema } from '$core/version/recipe';
import { scoreFrom } from '$core/test/shorthand';
import { element } from '$lib/engrave/svg';
import { create } from 'fontkit';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { block, columns, columnWidth, heading, NEVER, paragraph, TEXT, together, type Block } from './block';
import { boxOf } from './boxes';
import { linesOn } from './lines';
import { paginate } from './paginate';
import { fitting, linesOf, textAt, textWidth } from './text';
import { unpackedWoff } from './woff';

const words = fc.array(fc.stringMatching(/^[A-Za-z♯♭é]{1,14}$/), { minLength: 1, maxLength: 30 });

describe('text', () => {
  it('is as wide as its face says', () => {
    const file = join(
      dirname(createRequire(import.meta.url).resolve('@fontsource/tinos/package.json')),
      'files/tinos-latin-400-normal.woff',
    );
    const font = create(readFileSync(file));
    const laid = 'layout' in font ? font.layout('Hamburgevons').advanceWidth / font.unitsPerEm : 0;
    const style = { size: 100, family: 'words' } as const;
    // Letters are set a hair closer to each other by pairs, which a layout need not know.
    expect(textWidth('Hamburgevons', style) / (100 * laid)).toBeCloseTo(1, 2);
  });
  it('keeps every word, in order, on lines no wider than their room', () => {
    fc.assert(
      fc.property(words, fc.integer({ min: 60, max: 400 }), (list, width) => {
        const lines = linesOf(list.join(' '), width, TEXT);
        expect(lines.join('').replace(/ /g, '')).toBe(list.join(''));
        for (const line of lines) expect(textWidth(line, TEXT)).toBeLessThanOrEqual(width + 0.01);
      }),
    );
  });
  it('is cut with an ellipsis only where it does not fit', () => {
    expect(fitting('Kite', 200, TEXT)).toBe('Kite');
    const cut = fitting('A very long title indeed', 60, TEXT);
    expect(cut.endsWith('…')).toBe(true);
    expect(textWidth(cut, TEXT)).toBeLessThanOrEqual(60);
  });
  it.each(['start', 'middle', 'end'] as const)('stands where it is told by its %s', (anchor) => {
    const box = boxOf(textAt(100, 50, 'Ferry', TEXT, anchor))!;
    const place = { start: box.left, middle: (box.left + box.right) / 2, end: box.right }[anchor];
    expect(place).toBeCloseTo(100, 0);
  });
  it('has its signs larger, and sharps lifted to the middle of the letters', () => {
    const text = textAt(0, 0, 'F♯m', TEXT);
    const sign = text.children.find((c) => typeof c === 'object');
    expect(sign).toMatchObject({ name: 'tspan', children: ['♯'] });
    expect(Number((sign as { attributes: Record<string, string> }).attributes['font-size'])).toBeGreaterThan(
      11,
    );
  });
});

describe('letters as packages have them', () => {
  it('are unpacked into the same font', () => {
    const resolve = createRequire(import.meta.url).resolve;
    const folder = join(dirname(resolve('@fontsource/noto-music/package.json')), 'files');
    const packed = readFileSync(join(folder, 'noto-music-music-400-normal.woff'));
    const [before, after] = [create(packed), create(unpackedWoff(packed))];
    if (!('numGlyphs' in before) || !('numGlyphs' in after))
      throw new Error('Collections are not asked for.');
    expect(after.numGlyphs).toBe(before.numGlyphs);
    for (const sign of '♯♭♩')
      expect(after.glyphForCodePoint(sign.codePointAt(0)!).path.toSVG()).toBe(
        before.glyphForCodePoint(sign.codePointAt(0)!).path.toSVG(),
      );
  });
  it('that are none are refused', () => {
    expect(() => unpackedWoff(Buffer.from('no font'))).toThrow('no file of letters');
  });
});

const box = (height: number, more: Partial<Block> = {}): Block =>
  block({ height, drawn: [element('rect', { x: 0, y: 0, width: 1, height })], gap: 8, ...more });

describe('pages', () => {
  const blocks = fc.array(
    fc.record({
      height: fc.integer({ min: 10, max: 160 }),
      isSystem: fc.boolean(),
      isHeading: fc.boolean(),
      endsPage: fc.integer({ min: 0, max: 20 }),
    }),
    { minLength: 1, maxLength: 40 },
  );
  const HEIGHT = 600;

  it('hold every block once, in order, none over the edge, none upon another', () => {
    fc.assert(
      fc.property(blocks, (list) => {
        const made = list.map(({ isHeading, isSystem, ...own }) =>
          isHeading ? box(20, { endsPage: NEVER }) : box(own.height, { isSystem, endsPage: own.endsPage }),
        );
        const pages = paginate(made, HEIGHT);
        expect(pages.flat().map((p) => p.block)).toEqual(made);
        for (const page of pages)
          page.forEach(({ block: own, y }, i) => {
            expect(y + own.height).toBeLessThanOrEqual(HEIGHT + 0.01);
            const before = page[i - 1];
            if (before) expect(y).toBeGreaterThanOrEqual(before.y + before.block.height);
          });
      }),
    );
  });
  it('are two thirds full, whatever turns they would rather have: all but the last', () => {
    const systems = fc.array(
      fc.record({ height: fc.integer({ min: 60, max: 110 }), endsPage: fc.integer({ min: 0, max: 20 }) }),
      { minLength: 8, maxLength: 40 },
    );
    fc.assert(
      fc.property(systems, (list) => {
        const made = list.map(({ height, endsPage }) => box(height, { isSystem: true, endsPage }));
        for (const page of paginate(made, HEIGHT).slice(0, -1)) {
          const last = page.at(-1)!;
          expect(last.y + last.block.height).toBeGreaterThan((2 / 3) * HEIGHT);
        }
      }),
    );
  });
  it('never end with a heading', () => {
    fc.assert(
      fc.property(blocks, (list) => {
        const made = [
          ...list.map(({ isHeading, ...own }) =>
            isHeading ? box(20, { endsPage: NEVER }) : box(own.height),
          ),
          box(50),
        ];
        // A row of headings longer than a page cannot be kept together.
        fc.pre(!made.some((_, i) => made.slice(i, i + 12).every((b) => b.endsPage === NEVER)));
        for (const page of paginate(made, HEIGHT)) expect(page.at(-1)!.block.endsPage).not.toBe(NEVER);
      }),
    );
  });
  it('never leave a system alone', () => {
    for (let count = 2; count <= 24; count++) {
      const systems = Array.from({ length: count }, () => box(110, { isSystem: true, endsPage: 20 }));
      const pages = paginate(systems, HEIGHT);
      if (count > 5) for (const page of pages) expect(page.length, `${count} systems`).toBeGreaterThan(1);
      expect(pages.length).toBe(Math.ceil(count / 5));
    }
  });
  it('turn where a hand is free', () => {
    const systems = Array.from({ length: 8 }, (_, i) =>
      box(110, { isSystem: true, endsPage: i === 3 ? 0 : 20 }),
    );
    expect(paginate(systems, HEIGHT).map((p) => p.length)).toEqual([4, 4]);
  });
  it('begin anew where a block asks for it, and hold what is too high for any', () => {
    const pages = paginate([box(50), box(50, { beginsPage: true }), box(900), box(50)], HEIGHT);
    expect(pages.map((p) => p.length)).toEqual([1, 1, 1, 1]);
  });
});

describe('blocks', () => {
  it('beside each other are as high as the highest, and none is lost', () => {
    const rows = columns([box(10), box(30), box(20), box(5), box(7)], 2, 200, 20);
    expect(rows.map((r) => r.height)).toEqual([30, 20, 7]);
    expect(columnWidth(2, 200, 20)).toBe(90);
    expect(rows.flatMap((r) => r.drawn)).toHaveLength(5);
  });
  it('together are as high as all of them with their gaps', () => {
    expect(together([box(10), box(20)]).height).toBe(38);
  });
  it('say what they show', () => {
    expect(heading('Verse', 300)).toMatchObject({ tag: 'H2', says: 'Verse', outline: 2, endsPage: NEVER });
    expect(paragraph('Some words to read', 40, TEXT).height).toBeGreaterThan(2 * 11);
  });
});

describe('lines of music', () => {
  const four = { beats: 4, beatType: 4 };
  const measures = 24;
  const version = realise(
    scoreFrom({
      key: 'C',
      time: four,
      pickup: 1,
      right: [
        'E4:1',
        ...Array.from({ length: measures }, (_, i) => (i % 4 === 3 ? 'C5:4' : 'C5:1 D5:1 E5:1 F5:1')),
      ].join(' | '),
      left: ['r:1', ...Array.from({ length: measures }, () => 'C3:4')].join(' | '),
      sections: { 1: 'A', 9: 'B', 17: 'C' },
    }),
    recipeSchema.parse({ level: 3 }),
    [],
    LEVELS,
  );
  const frame = { form: version.form, measures: version.score.measures };
  const range = { from: 0, to: measures };
  const lines = (widths: readonly number[], width: number) =>
    linesOn(frame, range, { clefs: 60, measures: widths }, width);

  it('hold every measure once, in order, within their room where a measure allows', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 40, max: 500 }), { minLength: measures + 1, maxLength: measures + 1 }),
        fc.integer({ min: 300, max: 1200 }),
        (widths, width) => {
          const made = lines(widths, width);
          expect(made[0]!.from).toBe(0);
          expect(made.at(-1)!.to).toBe(measures);
          made.forEach((line, i) => {
            if (i > 0) expect(line.from).toBe(made[i - 1]!.to + 1);
            const used = widths.slice(line.from, line.to + 1).reduce((a, b) => a + b, 0);
            if (line.to > line.from) expect(used).toBeLessThanOrEqual(width - 60);
            expect(line.ratio).toBeCloseTo((width - 60) / used, 5);
          });
        },
      ),
    );
  });
  it('begin with every section, its pickup with it, and end with phrases where there is room', () => {
    const made = lines(
      Array.from({ length: measures + 1 }, (_, i) => (i === 0 ? 40 : 100)),
      560,
    );
    for (const section of version.form.sections) expect(made.map((l) => l.from)).toContain(section.from);
    const ends = new Set(version.form.phrases.map((p) => p.to));
    for (const line of made) expect(ends, `line ${line.from}–${line.to}`).toContain(line.to);
  });
  it('part a phrase in halves where it has no room', () => {
    const made = lines(
      Array.from({ length: measures + 1 }, (_, i) => (i === 0 ? 40 : 100)),
      330,
    );
    expect(new Set(made.map((l) => l.to - l.from + 1 - (l.from === 0 ? 1 : 0)))).toEqual(new Set([2]));
  });
});
