import { describe, expect, it } from 'vitest';
import { foldedPath, formOf } from '$core/analysis/form';
import { scoreFrom } from '$core/test/shorthand';
import { firstNoteOf, walk, type Move } from './bench/walk';
import { layPath, measureNear } from '$lib/engrave/pathLayout';
import { differenceText, measuresText, plural, tempoText, toBeats, toQuarters } from './text';

describe('walking', () => {
  const score = scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: 'E4:2 [C4 G4]:2 | A4:4 | B4:4',
    left: 'C3:4 | [F2 C3]:4 | r:4',
  });
  const notes = score.parts[0]!.notes;
  const id = (pitch: string, measure: number): string =>
    notes.find(
      (n) =>
        `${n.pitch.step}${n.pitch.octave}` === pitch &&
        n.onset >= score.measures[measure]!.start &&
        n.onset < score.measures[measure]!.start + score.measures[measure]!.length,
    )!.id;
  const go = (from: string | undefined, ...moves: Move[]): string | undefined =>
    moves.reduce<string | undefined>((at, move) => walk(notes, score.measures, at, move), from);

  it('begins with the right hand', () => expect(go(undefined, 'next')).toBe(id('E4', 0)));
  it('goes by onset in one hand and stops at the ends', () => {
    expect(go(id('E4', 0), 'next')).toBe(id('G4', 0));
    expect(go(id('E4', 0), 'next', 'next', 'next', 'next')).toBe(id('B4', 2));
    expect(go(id('E4', 0), 'previous')).toBe(id('E4', 0));
  });
  it('goes by measure, over a measure in which the hand rests', () => {
    expect(go(id('E4', 0), 'next-measure')).toBe(id('A4', 1));
    expect(go(id('B4', 2), 'previous-measure', 'previous-measure')).toBe(id('E4', 0));
    expect(go(id('C3', 1), 'next-measure')).toBe(id('C3', 1));
  });
  it('goes down through a chord and to the note the other hand holds', () => {
    expect(go(id('G4', 0), 'down')).toBe(id('C4', 0));
    expect(go(id('G4', 0), 'down', 'down')).toBe(id('C3', 0));
    expect(go(id('C3', 0), 'up')).toBe(id('E4', 0));
    expect(go(id('B4', 2), 'down')).toBe(id('C3', 1));
  });
  it('finds the first note of a measure', () => {
    expect(firstNoteOf(notes, score.measures[1]!)).toBe(id('A4', 1));
  });
});

describe('the shape of the path', () => {
  const form = formOf(
    scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: Array(3).fill('C4:4 | D4:4 | E4:4 | F4:4').join(' | '),
    }),
  );
  const shape = layPath(foldedPath(form), [10, 20, 30, 40], { width: 600, rise: 34 });
  it('runs from left to right, harder measures higher', () => {
    const xs = shape.stones.map((s) => s.x);
    expect([...xs].sort((a, b) => a - b)).toEqual(xs);
    expect(shape.stones[3]!.y).toBeLessThan(shape.stones[0]!.y);
    expect(xs.at(-1)!).toBeLessThan(600);
  });
  it('never leaves its place, however many measures there are', () => {
    const long = layPath(
      Array.from({ length: 300 }, (_, measure) => ({
        kind: 'measure' as const,
        measure,
        section: Math.floor(measure / 20),
      })),
      [],
      { width: 900, rise: 20 },
    );
    expect(long.width).toBe(900);
    expect(long.stones[0]!.x).toBeGreaterThan(0);
    expect(long.stones.at(-1)!.x).toBeLessThan(900);
    for (const [i, section] of long.sections.entries())
      if (i > 0) expect(section.from).toBeGreaterThanOrEqual(long.sections[i - 1]!.to);
    for (const stone of long.stones)
      if (stone.item.kind === 'measure') expect(measureNear(long, stone.x)).toBe(stone.item.measure);
  });
  it('spans each section', () => {
    for (const section of shape.sections) expect(section.to).toBeGreaterThan(section.from);
  });
});

describe('words', () => {
  it('tell a tempo in the beat of the time signature, and read it back', () => {
    expect(tempoText({ beats: 4, beatType: 4 }, 84)).toBe('♩ = 84');
    expect(tempoText({ beats: 6, beatType: 8 }, 90)).toBe('♩. = 60');
    for (const [beats, beatType] of [
      [4, 4],
      [6, 8],
      [2, 2],
      [3, 8],
    ] as const)
      expect(toBeats({ beats, beatType }, toQuarters({ beats, beatType }, 60))).toBe(60);
  });
  it('name measures as a teacher would', () => {
    const numbers = ['0', '1', '2', '3'];
    expect(measuresText(numbers, 0, 2)).toBe('pickup to measure 2');
    expect(measuresText(numbers, 1, 3)).toBe('measures 1 to 3');
    expect(measuresText(numbers, 2, 2)).toBe('measure 2');
    expect([plural(1, 'note'), plural(2, 'note'), plural(0, 'a', 'none')]).toEqual([
      '1 note',
      '2 notes',
      '0 none',
    ]);
  });
});

describe('what differs in a measure', () => {
  it.each([
    ['B4', 'A4', 'B4 instead of A4'],
    ['', 'D5', 'without D5'],
    ['D5', '', 'also D5'],
    ['', '', 'different voicing'],
  ])('%j for %j', (now, before, text) => expect(differenceText(now, before)).toBe(text));
});
