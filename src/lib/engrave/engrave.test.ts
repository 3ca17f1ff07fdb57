import { describe, expect, it } from 'vitest';
import { scoreFrom } from '$core/test/shorthand';
import { realise, type Version } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { engrave } from './engrave';
import { readChart } from '$core/io/chart/read';
import { withParts } from '$core/players/parts';
import { TICKS_PER_QUARTER } from '$core/score/ticks';
import { spreadWords } from '$core/score/spreadWords';
import { sheetOf, sheetSchema } from './sheet';
import { sourceSheet } from './sourceSheet';

const song = scoreFrom({
  key: 'G',
  time: { beats: 4, beatType: 4 },
  pickup: 1,
  right: 'D4:1 | G4:1.5 A4:0.5 B4:2 | r:2 D5:2 | C5:4 | B4:4 | G4:4',
  left: 'r:1 | G2:4 | D3:4 | C3:4 | G2:4 | G2:4',
  chords: ' | G | D | C | G | G',
});
const version = realise(song, { ...DEFAULT_RECIPE, level: 3 }, [
  { kind: 'texture', at: { version: true }, value: 'block-chord' },
  { kind: 'finger', at: { note: 'm1s1n0' }, value: 4 },
]);
const all = { width: 900, fingers: true, counts: true, chords: true };
const draw = (made: Version, index: number, options = all): Promise<string> =>
  engrave(sheetOf(made, made.form.phrases[index]!, options));

describe('an engraved phrase', () => {
  it('has a badge for every struck note: round or square, outlined or filled', async () => {
    const svg = await draw(version, 0);
    const struck = Object.keys(version.fingers).filter((id) =>
      version.score.parts[0]!.notes.some(
        (n) => n.id === id && n.onset < version.score.measures[version.form.phrases[0]!.to + 1]!.start,
      ),
    );
    for (const id of struck) expect(svg).toContain(`data-finger-of="${id}"`);
    expect(svg.match(/class="badge (right|left)/g)).toHaveLength(struck.length);
    expect(svg.match(/class="badge right decided"/g)).toHaveLength(1);
    expect(svg).toMatch(/class="badge right[^>]*><circle/);
    expect(svg).toMatch(/class="badge left[^>]*><rect/);
  });

  it('can be clicked: every note carries its id, every measure has an area', async () => {
    const svg = await draw(version, 0);
    const { from, to } = version.form.phrases[0]!;
    for (const note of version.score.parts[0]!.notes.filter(
      (n) => n.onset < version.score.measures[to + 1]!.start,
    ))
      expect(svg).toContain(`data-id="${note.id}"`);
    const areas = [...svg.matchAll(/measure-area" data-measure="(\d+)"/g)].map((m) => Number(m[1]));
    expect(areas).toEqual(Array.from({ length: to - from + 1 }, (_, i) => from + i));
  });

  it('counts every beat, in order from left to right, held ones lighter', async () => {
    const svg = await draw(version, 0);
    const counts = [...svg.matchAll(/class="count (\w+)" x="(\d+)"[^>]*>([^<]+)</g)].map(
      ([, kind, x, say]) => ({
        kind,
        x: Number(x),
        say,
      }),
    );
    expect(counts.slice(0, 6).map((c) => c.say)).toEqual(['4', '1', '(2)', '&amp;', '3', '(4)']);
    expect(counts.filter((c) => c.kind === 'rest').map((c) => c.say)).toEqual(['(1)', '(2)']);
    counts.slice(1).forEach((c, i) => expect(c.x).toBeGreaterThan(counts[i]!.x));
  });

  it('shows only what was asked for', async () => {
    const plain = await draw(version, 0, { width: 900, fingers: false, counts: false, chords: false });
    expect(plain).not.toContain('class="badge');
    expect(plain).not.toContain('class="count');
    expect(plain).not.toContain('class="harm"');
    expect(await draw(version, 0)).toContain('class="harm"');
  });

  it('lifts a sharp to the middle of the letters and sets what follows on their line again', async () => {
    const named = scoreFrom({
      key: 'D',
      time: { beats: 4, beatType: 4 },
      right: 'C#5:4 | D5:4',
      chords: 'C#dim | Bb',
    });
    const made = realise(named, { ...DEFAULT_RECIPE, level: 3, key: 'D' }, []);
    const names = (await draw(made, 0)).split('class="harm"').slice(1);
    const pieces = (svg: string): string[] =>
      [...svg.matchAll(/<tspan([^>]*)>([^<]+)<\/tspan>/g)].map(
        ([, look = '', text = '']) => `${text} ${/dy="(-?\d+)"/.exec(look)?.[1] ?? 0}`,
      );
    expect(pieces(names[0]!).slice(0, 3)).toEqual(['C 0', '♯ -61', 'dim 61']);
    expect(pieces(names[1]!).slice(0, 2)).toEqual(['B 0', '♭ 0']);
  });

  it('prints the time signature once and numbers each line, a pickup never', async () => {
    const [first, second] = [await draw(version, 0), await draw(version, 1)];
    expect(first).toMatch(/class="meterSig"[^>]*><path/);
    expect(second).not.toMatch(/class="meterSig"[^>]*><path/);
    expect(first).not.toContain('class="measure-number"');
    expect(second).toMatch(/class="measure-number"[^>]*>\d+</);
    // The engraver's own numbers are gone, and both staves of every measure are still there.
    expect(first).not.toContain('class="mNum"');
    expect(first.match(/ class="staff"/g)).toHaveLength(2 * (version.form.phrases[0]!.to + 1));
  });

  it('stacks the badges of a chord without one covering another', async () => {
    const svg = await draw(version, 0);
    const chord = [
      ...svg.matchAll(/badge left \w+" data-finger-of="Lm1-[^"]+"><rect x="(-?\d+)" y="(-?\d+)"/g),
    ];
    expect(chord).toHaveLength(3);
    const ys = chord.map((m) => Number(m[2])).sort((a, b) => a - b);
    expect(ys[1]! - ys[0]!).toBeGreaterThan(330);
    expect(ys[2]! - ys[1]!).toBeGreaterThan(330);
    expect(new Set(chord.map((m) => m[1])).size).toBe(1);
  });

  it('is well-formed, and its input is what the worker accepts', async () => {
    const sheet = sheetOf(version, version.form.phrases[0]!, all);
    expect(sheetSchema.parse(sheet)).toEqual(sheet);
    expect(sheetSchema.safeParse({ ...sheet, width: 'wide' }).success).toBe(false);
    const svg = await engrave(sheet);
    expect(svg.match(/<g[ >]/g)!.length).toBe(
      svg.match(/<\/g>/g)!.length + (svg.match(/<g [^>]*\/>/g) ?? []).length,
    );
  });

  it('draws every sign where it stands', async () => {
    const svg = await draw(version, 0);
    expect(svg).not.toMatch(/<use|<defs|xlink:href/);
    // Each struck note has its head in its group.
    for (const [, note] of svg.matchAll(/<g class="note" data-id="[^"]+">(.*?)<\/g>/g))
      expect(note).toMatch(
        /<path transform="translate\(\d+, -?\d+\) scale\([^)]+\) scale\(1,-1\)" d="[^"]+" class="notehead"/,
      );
  });

  it('that comes again is the same music with its own ids, measures and numbers', async () => {
    const twice = realise(
      scoreFrom({
        key: 'C',
        time: { beats: 4, beatType: 4 },
        right: Array(4).fill('C5:1 E5:1 G5:2 | F5:2 E5:2 | D5:4 | C5:4').join(' | '),
        left: Array(4).fill('C3:4 | F3:4 | G3:4 | C3:4').join(' | '),
      }),
      { ...DEFAULT_RECIPE, level: 3 },
      [],
    );
    const [second, third] = [1, 2].map((i) => sheetOf(twice, twice.form.phrases[i]!, all));
    expect(third!.xml).toBe(second!.xml);
    const [one, other] = [await engrave(second!), await engrave(third!)];
    for (const { id } of Object.values(third!.notes)) expect(other).toContain(`data-id="${id}"`);
    expect(other).toContain(`data-measure="${third!.measures[0]!.index}"`);
    expect(other).toMatch(new RegExp(`class="measure-number"[^>]*>${third!.measures[0]!.number}<`));
    const bare = (svg: string): string =>
      svg.replace(/data-(id|finger-of|measure)="[^"]*"/g, '').replace(/measure-number"[^>]*>\d+/g, '');
    expect(bare(other)).toBe(bare(one));
  });

  it('that cannot be read is an error, not an empty picture', async () => {
    const sheet = sheetOf(version, version.form.phrases[0]!, all);
    await expect(engrave({ ...sheet, xml: 'nonsense' })).rejects.toThrow(/could not read/);
  });
});

describe('a source before it is kept', () => {
  it('is drawn with its melody and its hands, flats in chord names as signs of our own face', async () => {
    const flat = scoreFrom({
      key: 'F',
      time: { beats: 4, beatType: 4 },
      right: 'F4:4 | D4:4 | C4:4 | C4:4 | F4:4',
      left: 'F3:4 | Bb2:4 | C3:4 | C3:4 | F3:4',
      chords: 'F | Bb | C7 | C7 | F',
    });
    const sheet = sourceSheet(withParts(flat), 640);
    expect(sheetSchema.parse(sheet).measures).toHaveLength(4);
    const svg = await engrave(sheet);
    expect(svg).toMatch(/>B<\/tspan>\s*<tspan[^>]*>♭</);
    for (const { id } of Object.values(sheet.notes)) expect(svg).toContain(`data-id="${id}"`);
  });
  it('can be a chart without a note', async () => {
    const { score } = readChart('Verse:\nF / / | Bb/C / / |\nDown the lane');
    const svg = await engrave(sourceSheet(withParts(score), 640));
    expect(svg).toContain('Down');
  });
});

describe('words of a chart', () => {
  it('stand one after another over the beats of their chord', () => {
    const Q = TICKS_PER_QUARTER;
    const spread = (text: string, beats: number): string[] =>
      spreadWords(text, 0, beats * Q, Q).map((w) => `${w.tick / Q} ${w.text}`);
    expect(spread('row for the day', 4)).toEqual(['0 row', '1 for', '2 the', '3 day']);
    expect(spread('row now', 4)).toEqual(['0 row', '1 now']);
    expect(spread('one two three four five six', 3)).toEqual(['0 one two', '1 three four', '2 five six']);
    expect(spread('  ', 4)).toEqual([]);
  });
  it('are drawn on one line across a system, in order, none on the other', async () => {
    const chart = readChart(
      'Title: Lanterns\nKey: G\n\nVerse:\nG               D          Em          C\nLights upon the water hold the line to shore again\n',
    ).score;
    const version = realise(withParts(chart), { ...DEFAULT_RECIPE, level: 2 }, []);
    const sheet = sheetOf(version, { from: version.introduction, to: version.introduction + 3 }, all);
    const svg = await engrave(sheet);
    const words = [...svg.matchAll(/class="sung" x="(\d+)" y="(\d+)"[^>]*>([^<]*)</g)].map((m) => ({
      x: Number(m[1]),
      y: Number(m[2]),
      text: m[3]!,
    }));
    expect(words.map((w) => w.text).join(' ')).toBe('Lights upon the water hold the line to shore again');
    expect(new Set(words.map((w) => w.y)).size).toBe(1);
    words.forEach((w, i) => {
      if (i > 0) expect(w.x).toBeGreaterThan(words[i - 1]!.x + words[i - 1]!.text.length * 180);
    });
  });
  it('and names and degrees of what sounds are there when they are wanted', async () => {
    const version = realise(song, { ...DEFAULT_RECIPE, level: 2 }, []);
    const [phrase] = version.form.phrases;
    const svg = await engrave(
      sheetOf(version, phrase!, { ...all, degrees: true, names: true, pedal: false }),
    );
    const plain = await engrave(sheetOf(version, phrase!, all));
    expect(svg.length).toBeGreaterThan(plain.length);
    expect(svg).toMatch(/<tspan[^>]*>I<\/tspan>/);
    expect(plain).not.toMatch(/<tspan[^>]*>I<\/tspan>/);
  });
});
