/** Counts below the right hand: whatever the metre, the school and the room, each can be read, and none stands on another. */
import { SCHOOL_IDS } from '$core/counting/schools';
import { WHOLE } from '$core/decisions/anchor';
import { scoreFrom } from '$core/test/shorthand';
import { realise, type Version } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { describe, expect, it } from 'vitest';
import { engrave } from './engrave';
import { largeSheets } from './large';
import { sheetOf, type Sheet } from './sheet';

interface Box {
  readonly text: string;
  readonly kind: string;
  readonly y: number;
  readonly left: number;
  readonly right: number;
}

/** The counts of a picture as boxes, in the order of reading; a letter of the monospaced face is 0.6 of its size wide. */
const boxesOf = (svg: string): Box[] =>
  [
    ...svg.matchAll(
      /class="count (\w+)" x="(-?\d+)" y="(-?\d+)" text-anchor="middle" font-size="([\d.]+)px"[^>]*>([^<]+)</g,
    ),
  ].map(([, kind, x, y, size, text]) => {
    const letters = text!.replaceAll('&amp;', '&').length;
    const half = (letters * Number(size) * 0.6) / 2;
    return { text: text!, kind: kind!, y: Number(y), left: Number(x) - half, right: Number(x) + half };
  });

/** Pairs that stand on each other. */
const collisions = (boxes: readonly Box[]): string[] =>
  boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter((b) => a.y === b.y && a.left < b.right - 1 && b.left < a.right - 1)
      .map((b) => `${a.text} on ${b.text}`),
  );

const MUSIC: readonly (readonly [
  name: string,
  beats: number,
  beatType: number,
  right: string,
  left: string,
])[] = [
  [
    '5/8 in three and two',
    5,
    8,
    'B4:1.5 E5:1 | E4:1 G4:0.5 B4:0.5 A4:0.5 | F#4:2.5 | B4:0.5 E5:2',
    'E3:2.5 | E3:2.5 | B2:2.5 | E3:2.5',
  ],
  ['7/8', 7, 8, 'B4:1.5 E5:2 | E4:3.5 | G4:0.5 A4:3 | B4:3 E5:0.5', 'E3:3.5 | E3:3.5 | B2:3.5 | E3:3.5'],
  ['5/4', 5, 4, 'B4:5 | E4:1 G4:4 | F#4:4 B4:1 | E4:5', 'E3:5 | E3:5 | B2:5 | E3:5'],
  ['6/8', 6, 8, 'B4:3 | E4:1.5 G4:1.5 | F#4:2.5 B4:0.5 | E4:3', 'E3:3 | E3:3 | B2:3 | E3:3'],
  ['12/8', 12, 8, 'B4:6 | E4:0.5 G4:5.5 | F#4:5.5 B4:0.5', 'E3:6 | E3:6 | B2:6'],
  ['2/2', 2, 2, 'B4:4 | E4:0.5 G4:3.5 | F#4:3.5 B4:0.5 | E4:4', 'E3:4 | E3:4 | B2:4 | E3:4'],
  ['4/4 with rests', 4, 4, 'r:4 | E4:0.5 r:3.5 | r:3.5 B4:0.5 | E4:1.5 r:2.5', 'E3:4 | E3:4 | B2:4 | E3:4'],
  [
    '4/4 in sixteenths',
    4,
    4,
    'E4:0.25 F#4:0.25 G4:0.25 A4:0.25 B4:3 | E4:0.75 G4:0.25 A4:3 | B4:4',
    'E3:4 | E3:4 | B2:4',
  ],
];

const made = (
  school: (typeof SCHOOL_IDS)[number],
  [, beats, beatType, right, left]: (typeof MUSIC)[number],
): Version =>
  realise(
    scoreFrom({ key: 'Em', time: { beats, beatType }, tempo: 80, right, left }),
    { ...DEFAULT_RECIPE, level: 6, style: 'solo' },
    [{ kind: 'counting', at: WHOLE, value: school }],
  );
const all = { fingers: true, counts: true, chords: true };
const drawn = (sheets: readonly Sheet[]): Promise<string[]> =>
  Promise.all(sheets.map((sheet) => engrave(sheet)));

describe.each(MUSIC)('%s', (...music) => {
  it.each(SCHOOL_IDS)('counted by %s: none stands on another, on paper and in a lesson', async (school) => {
    const version = made(school, music);
    const whole = { from: 0, to: version.score.measures.length - 1 };
    const pictures = await drawn([
      sheetOf(version, whole, { ...all, width: 700 }),
      ...largeSheets(version, whole, all),
    ]);
    for (const svg of pictures) {
      const boxes = boxesOf(svg);
      expect(boxes.length).toBeGreaterThan(0);
      expect(collisions(boxes)).toEqual([]);
      // The order of reading is the order of time.
      for (const [i, box] of boxes.entries())
        if (boxes[i + 1]?.y === box.y) expect(boxes[i + 1]!.left).toBeGreaterThan(box.left);
    }
  });
});

describe('held beats', () => {
  it('are smaller where there is less room, and never an onset', async () => {
    const version = made('numbers', MUSIC[0]!);
    const sizes = (svg: string, kind: string): number[] =>
      [...svg.matchAll(new RegExp(`class="count ${kind}"[^>]*font-size="([\\d.]+)px"`, 'g'))].map((m) =>
        Number(m[1]),
      );
    const [wide] = await drawn([sheetOf(version, { from: 2, to: 2 }, { ...all, width: 700 })]);
    const [narrow] = await drawn([sheetOf(version, { from: 0, to: 3 }, { ...all, width: 520 })]);
    expect(Math.min(...sizes(narrow!, 'held'))).toBeLessThan(Math.min(...sizes(wide!, 'held')));
    expect(new Set(sizes(narrow!, 'onset'))).toEqual(new Set(sizes(wide!, 'onset')));
  });
});

describe('names of notes', () => {
  it('have their own line, also where the right hand rests and only the left hand is named', async () => {
    const version = made('numbers', ['4/4', 4, 4, 'r:4 | r:4', 'E3:1 G3:1 B3:1 G3:1 | B2:2 E3:2']);
    const [svg] = await drawn([sheetOf(version, { from: 0, to: 1 }, { ...all, names: true, width: 700 })]);
    const counted = new Set(boxesOf(svg!).map((box) => box.y));
    const named = [...svg!.matchAll(/<text [^>]*\by="(-?\d+)"[^>]*>(?:<tspan[^>]*>)+[A-G]</g)].map((m) =>
      Number(m[1]),
    );
    expect(named.length).toBeGreaterThan(0);
    expect(counted.size).toBe(1);
    for (const y of named) for (const line of counted) expect(Math.abs(y - line)).toBeGreaterThan(300);
  });
});

describe('a phrase that stands by itself', () => {
  it('has its time signature, which otherwise is printed only where it is new', () => {
    const version = made('numbers', MUSIC[3]!);
    const at = { from: 1, to: 2 };
    expect(sheetOf(version, at, { ...all, width: 700 }).xml).toContain('<time print-object="no"');
    expect(sheetOf(version, at, { ...all, width: 700, metre: true }).xml).not.toContain('print-object="no"');
    expect(sheetOf(version, { from: 0, to: 1 }, { ...all, width: 700 }).xml).not.toContain(
      'print-object="no"',
    );
  });
});

describe('music as large as it fits', () => {
  it('is on one system where that is wide enough, else in halves, a pickup beside its measure', () => {
    const wide = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      pickup: 1,
      right: `G4:1 | ${Array(4).fill('C5:0.25 D5:0.25 E5:0.25 F5:0.25 G5:0.25 F5:0.25 E5:0.25 D5:0.25 C5:1 G4:1').join(' | ')}`,
      left: `r:1 | ${Array(4).fill('C3:4').join(' | ')}`,
    });
    const version = realise(wide, { ...DEFAULT_RECIPE, level: 6 }, []);
    const halves = largeSheets(version, { from: 0, to: 4 }, all).map((s) => s.measures.map((m) => m.index));
    expect(halves.length).toBeGreaterThan(1);
    expect(halves.flat()).toEqual([0, 1, 2, 3, 4]);
    expect(halves[0]!.length).toBeGreaterThan(1);
    expect(largeSheets(version, { from: 1, to: 1 }, all)).toHaveLength(1);
    const easy = made('numbers', MUSIC[3]!);
    expect(largeSheets(easy, { from: 0, to: 3 }, all)).toHaveLength(1);
  });
});
