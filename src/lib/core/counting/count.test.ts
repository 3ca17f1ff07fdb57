import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beatLength } from '../score/metre';
import { soundingNotes } from '../score/query';
import type { TimeSignature } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import {
  countMeasure,
  countMeasures,
  countsInWords,
  USUAL_COUNTING,
  withOtherWords,
  type CountingOptions,
} from './count';
import { feelOf } from './feel';
import { whyCounted } from './why';
import { SCHOOL_IDS, type SchoolId } from './schools';

const counted = (right: string, beats: number, beatType: number, pickup = 0): string[] => {
  const time: TimeSignature = { beats, beatType };
  const score = scoreFrom({ key: 'C', time, pickup, right });
  return countMeasures(score.measures, soundingNotes(score.parts[0]!.notes)).map((m) =>
    countsInWords(m.counts),
  );
};

describe('counting in numbers', () => {
  it.each([
    ['quarters', 'C4:1 C4:1 C4:1 C4:1', 4, 4, '1 2 3 4'],
    ['eighths', 'C4:0.5 C4:0.5 C4:1 C4:2', 4, 4, '1 & 2 3 (4)'],
    ['a dotted quarter and an eighth', 'C4:1.5 C4:0.5 C4:2', 4, 4, '1 (2) & 3 (4)'],
    ['sixteenths', 'C4:0.25 C4:0.25 C4:0.25 C4:0.25 C4:1', 2, 4, '1 e & a 2'],
    ['a dotted eighth and a sixteenth', 'C4:0.75 C4:0.25 C4:1', 2, 4, '1 a 2'],
    ['a whole note', 'C4:4', 4, 4, '1 (2) (3) (4)'],
    ['rests', 'C4:1 r:1 C4:1', 3, 4, '1 (2) 3'],
    ['a measure of rest', 'r:3', 3, 4, '(1) (2) (3)'],
    ['6/8 in two', 'C4:0.5 C4:0.5 C4:0.5 C4:1.5', 6, 8, '1 & a 2'],
    ['6/8 with a quarter and an eighth', 'C4:1 C4:0.5 C4:1.5', 6, 8, '1 (&) a 2'],
    ['3/8 in three', 'C4:0.5 C4:1', 3, 8, '1 2 (3)'],
    ['cut time in halves', 'C4:1 C4:1 C4:2', 2, 2, '1 & 2'],
    ['five', 'C4:2 C4:3', 5, 4, '1 (2) 3 (4) (5)'],
  ])('%s', (_name, right, beats, beatType, expected) => {
    expect(counted(right, beats, beatType)).toEqual([expected]);
  });

  it('counts a pickup from where it stands', () => {
    expect(counted('D4:1 | G4:4', 4, 4, 1)).toEqual(['4', '1 (2) (3) (4)']);
    expect(counted('D4:0.5 | G4:4', 4, 4, 0.5)).toEqual(['&', '1 (2) (3) (4)']);
    expect(counted('D4:0.5 E4:0.5 | G4:3', 3, 4, 1)).toEqual(['3 &', '1 (2) (3)']);
    expect(counted('D4:0.5 | G4:3', 6, 8, 0.5)).toEqual(['a', '1 (2)']);
  });

  it.each([
    ['numbers', '1 ka di mi ti 2'],
    ['pulses', '1 ka di mi ti 2'],
    ['beat-pulse', '1 2 3 4 5 2'],
    ['ta-titi', 'ti ri ti ri ri ta'],
    ['takadimi', 'ta ka di mi ti ta'],
  ] as const)('says a quintuplet part by part in %s', (school, expected) => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 C4:1' });
    const notes = [0, 1, 2, 3, 4].map((i) => ({ onset: (i * Q) / 5, duration: Q / 5 }));
    const [measure] = countMeasures(score.measures, [...notes, { onset: Q, duration: Q }], () => ({
      ...USUAL_COUNTING,
      school,
    }));
    expect(countsInWords(measure!.counts)).toBe(expected);
  });
  it('says five over two beats by where each part falls', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 C4:1' });
    const notes = [0, 1, 2, 3, 4].map((i) => ({ onset: (i * 2 * Q) / 5, duration: (2 * Q) / 5 }));
    const [measure] = countMeasures(score.measures, notes);
    expect(countsInWords(measure!.counts)).toBe('1 di ti (2) ka mi');
  });

  it('says triplets as a word', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 C4:1' });
    const third = Q / 3;
    const notes = [0, 1, 2].map((i) => ({ onset: i * third, duration: third }));
    const [measure] = countMeasures(score.measures, [...notes, { onset: Q, duration: Q }]);
    expect(countsInWords(measure!.counts)).toBe('1 trip let 2');
  });

  it('counts a note held over the barline as held', () => {
    expect(counted('C4:4 | r:4', 4, 4)[1]).toBe('(1) (2) (3) (4)');
    const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C4:4 | r:4' });
    const [, second] = countMeasures(score.measures, [{ onset: 0, duration: 6 * Q }]);
    expect(second!.counts.map((c) => c.kind)).toEqual(['held', 'held', 'rest', 'rest']);
  });
});

describe('the schools', () => {
  const said = (
    school: SchoolId,
    right: string,
    beats: number,
    beatType: number,
    cutTime?: 'quarters',
  ): string => {
    const score = scoreFrom({ key: 'C', time: { beats, beatType }, right });
    const notes = soundingNotes(score.parts[0]!.notes);
    const options = { school, cutTime: cutTime ?? ('halves' as const) };
    return countsInWords(countMeasures(score.measures, notes, () => options)[0]!.counts);
  };
  const QUARTERS = 'C4:1 C4:1 C4:1 C4:1';
  const EIGHTHS = 'C4:0.5 C4:0.5 C4:0.5 C4:0.5';
  const SIXTEENTHS = 'C4:0.25 C4:0.25 C4:0.25 C4:0.25';
  const SIX = 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5';
  it.each<[SchoolId, string, string, string, string, string]>([
    ['numbers', '1 2 3 4', '1 & 2 &', '1 e & a', '1 & a 2 & a', '1 & a 2 & a 3 & a 4 & a'],
    ['pulses', '1 2 3 4', '1 & 2 &', '1 e & a', '1 2 3 4 5 6', '1 2 3 4 5 6 7 8 9 10 11 12'],
    ['beat-pulse', '1 2 3 4', '1 & 2 &', '1 e & a', '1 2 3 2 2 3', '1 2 3 2 2 3 3 2 3 4 2 3'],
    [
      'ta-titi',
      'ta ta ta ta',
      'ti ti ti ti',
      'ti ri ti ri',
      'ti ti ti ti ti ti',
      'ti ti ti ti ti ti ti ti ti ti ti ti',
    ],
    [
      'takadimi',
      'ta ta ta ta',
      'ta di ta di',
      'ta ka di mi',
      'ta ki da ta ki da',
      'ta ki da ta ki da ta ki da ta ki da',
    ],
  ])('%s', (school, quarters, eighths, sixteenths, six, twelve) => {
    expect(said(school, QUARTERS, 4, 4)).toBe(quarters);
    expect(said(school, EIGHTHS, 2, 4)).toBe(eighths);
    expect(said(school, SIXTEENTHS, 1, 4)).toBe(sixteenths);
    expect(said(school, SIX, 6, 8)).toBe(six);
    expect(said(school, `${SIX} ${SIX}`, 12, 8)).toBe(twelve);
  });
  it.each<[SchoolId, string]>([
    ['numbers', '1 trip let'],
    ['pulses', '1 trip let'],
    ['beat-pulse', '1 2 3'],
    ['ta-titi', 'tri o la'],
    ['takadimi', 'ta ki da'],
  ])('%s says a triplet', (school, expected) => {
    const score = scoreFrom({ key: 'C', time: { beats: 1, beatType: 4 }, right: 'C4:1' });
    const notes = [0, 1, 2].map((i) => ({ onset: (i * Q) / 3, duration: Q / 3 }));
    expect(countsInWords(countMeasure(score.measures[0]!, notes, { school, cutTime: 'halves' }))).toBe(
      expected,
    );
  });
  it.each<[SchoolId, string, string, number, number]>([
    ['numbers', '1 (&) 2 &', 'C4:0.5 r:0.5 C4:0.5 C4:0.5', 2, 4],
    ['numbers', '1 & (2) & 3 &', 'C4:0.5 C4:1 C4:0.5 C4:0.5 C4:0.5', 3, 4],
    ['numbers', '1 2 3 4 5 6 7', 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5', 7, 8],
    ['numbers', '1 2 (3) 4 5', 'C4:0.5 C4:1 C4:0.5 C4:0.5', 5, 8],
    ['numbers', '1 & a 2 3', `C4:0.5 C4:0.5 C4:0.5 C4:1.5 C4:1.5`, 9, 8],
    ['numbers', '1 (2) (3) 4 5', 'C4:4.5 C4:1.5 C4:1.5', 15, 8],
    ['pulses', '1 (2) 3 4 (5) (6)', 'C4:1 C4:0.5 C4:1.5', 6, 8],
    ['beat-pulse', '1 (2) 3 2 (2) (3)', 'C4:1 C4:0.5 C4:1.5', 6, 8],
    ['ta-titi', 'ta (ti) ti ta (ta)', 'C4:1.5 C4:0.5 C4:2', 4, 4],
    ['ta-titi', 'ti ta (ti) ti', 'C4:0.5 C4:1 C4:0.5', 2, 4],
    ['ta-titi', 'ti ti ri', 'C4:0.5 C4:0.25 C4:0.25', 1, 4],
    ['ta-titi', 'ta ti ta', 'C4:1 C4:0.5 C4:1.5', 6, 8],
    ['takadimi', 'ta (ta) di ta (ta)', 'C4:1.5 C4:0.5 C4:2', 4, 4],
    ['takadimi', 'ta mi', 'C4:0.75 C4:0.25', 1, 4],
    // Groups, not pulses, are the beats of seven and five.
    ['ta-titi', 'ta ta ta', 'C4:1 C4:1 C4:1.5', 7, 8],
    ['ta-titi', 'ti ti ti ti ti ti ti', 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5', 7, 8],
    ['takadimi', 'ta di ta di ta ki da', 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5', 7, 8],
    ['takadimi', 'ta (ta) (ta)', 'C4:3.5', 7, 8],
    ['beat-pulse', '1 2 2 2 3 2 3', 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5', 7, 8],
    ['pulses', '1 (2) 3 (4) 5 (6) (7)', 'C4:1 C4:1 C4:1.5', 7, 8],
    ['takadimi', 'ta ki da ta di', 'C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5', 5, 8],
    ['takadimi', 'ta va ki di da ma ta', 'C4:0.25 C4:0.25 C4:0.25 C4:0.25 C4:0.25 C4:0.25 C4:1.5', 6, 8],
  ])('%s: %s', (school, expected, right, beats, beatType) => {
    expect(said(school, right, beats, beatType)).toBe(expected);
  });
  it('cut time may be counted in quarters', () => {
    expect(said('numbers', QUARTERS, 2, 2)).toBe('1 & 2 &');
    expect(said('numbers', QUARTERS, 2, 2, 'quarters')).toBe('1 2 3 4');
  });
  it('a time signature that changes inside a measure is counted from there', () => {
    const score = scoreFrom({
      key: 'C',
      time: { beats: 5, beatType: 4 },
      right: 'C4:1 C4:1 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5 C4:0.5',
    });
    const changes = [{ onset: 2 * Q, time: { beats: 6, beatType: 8 } }];
    const notes = soundingNotes(score.parts[0]!.notes);
    expect(countsInWords(countMeasure({ ...score.measures[0]!, changes }, notes))).toBe('1 2 1 & a 2 & a');
  });
  it('the second half of a measure that a repeat cuts goes on counting', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C4:4' });
    const cut = { ...score.measures[0]!, length: Q, beginsAt: 3 * Q };
    expect(
      countsInWords(
        countMeasure(cut, [
          { onset: 0, duration: Q / 2 },
          { onset: Q / 2, duration: Q / 2 },
        ]),
      ),
    ).toBe('4 &');
  });
  it('other words take the places of those proposed, brackets as they are', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C4:1.5 C4:0.5 C4:2' });
    const counts = countMeasure(score.measures[0]!, soundingNotes(score.parts[0]!.notes));
    expect(countsInWords(withOtherWords(counts, 'one (two) and three four')!)).toBe(
      'one (two) and three (four)',
    );
    expect(withOtherWords(counts, 'one two')).toBeUndefined();
  });
  it('law: every onset and every beat has a word, in order, in every school', () => {
    const value = fc.constantFrom(Q / 4, Q / 2, Q / 3, Q, (3 * Q) / 2, 2 * Q);
    fc.assert(
      fc.property(
        fc.array(fc.record({ length: value, rest: fc.boolean() }), { minLength: 1, maxLength: 12 }),
        fc.constantFrom(...SCHOOL_IDS),
        fc.constantFrom([2, 4], [3, 4], [4, 4], [5, 4], [7, 8], [6, 8], [9, 8], [2, 2]),
        (line, school, [beats, beatType]) => {
          const score = scoreFrom({
            key: 'C',
            time: { beats: beats!, beatType: beatType! },
            right: `r:${(beats! * 4) / beatType!}`,
          });
          const measure = score.measures[0]!;
          let at = 0;
          const notes = line.flatMap(({ length, rest }) => {
            const onset = at;
            at += length;
            return rest || onset >= measure.length ? [] : [{ onset, duration: length }];
          });
          const counts = countMeasure(measure, notes, { school, cutTime: 'halves' });
          const places = counts.map((c) => c.at);
          expect([...places].sort((a, b) => a - b)).toEqual(places);
          for (const n of notes)
            expect(counts.find((c) => c.at === n.onset)).toMatchObject({ kind: 'onset' });
          const groups = beatType === 8 && beats === 7 ? [2, 2, 3] : undefined;
          for (let beat = 0, i = 0; beat < measure.length; i++) {
            expect(places).toContain(beat);
            beat += groups ? (groups[i]! * Q) / 2 : beatLength(measure.time);
          }
          expect(counts.every((c) => c.say.length > 0)).toBe(true);
        },
      ),
    );
  });
});

describe('why a measure is counted so', () => {
  const why = (
    right: string,
    beats: number,
    beatType: number,
    options: Partial<CountingOptions> = {},
  ): string => {
    const score = scoreFrom({ key: 'C', time: { beats, beatType }, right });
    const all = { ...USUAL_COUNTING, ...options };
    const measure = score.measures[0]!;
    return whyCounted(measure, countMeasure(measure, soundingNotes(score.parts[0]!.notes), all), all);
  };
  it.each<[string, string, number, number, Partial<CountingOptions>]>([
    ['Counted in quarters, nothing here is shorter.', 'C4:2 C4:2', 4, 4, {}],
    [
      'Counted in quarters, eighths in between, as fine as this measure needs.',
      'C4:1.5 C4:0.5 C4:2',
      4,
      4,
      {},
    ],
    [
      'Counted in quarters, sixteenths in between, as fine as this measure needs.',
      'C4:0.75 C4:0.25 C4:1',
      2,
      4,
      {},
    ],
    ['Counted in halves, quarters in between, as fine as this measure needs.', 'C4:1 C4:1 C4:2', 2, 2, {}],
    ['Counted in quarters, nothing here is shorter.', 'C4:1 C4:1 C4:2', 2, 2, { cutTime: 'quarters' }],
    ['Counted in eighths, nothing here is shorter.', 'C4:0.5 C4:1 C4:1.5', 6, 8, { school: 'pulses' }],
    [
      'Counted in dotted quarters, eighths in between, as fine as this measure needs.',
      'C4:1 C4:0.5 C4:1.5',
      6,
      8,
      {},
    ],
  ])('%s', (text, right, beats, beatType, options) => {
    expect(why(right, beats, beatType, options)).toBe(text);
  });
});

describe('the feel', () => {
  const withWords = (text: string) => {
    const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C4:4' });
    const marks = [{ kind: 'words' as const, onset: 0, staff: 1, text }];
    return { ...score, parts: [{ ...score.parts[0]!, marks }] };
  };
  it.each([
    ['Medium Swing', 'swing'],
    ['slow shuffle', 'swing'],
    ['Straight eighths', 'straight'],
    ['Allegro', 'straight'],
  ])('of "%s" is %s', (text, feel) => expect(feelOf(withWords(text))).toBe(feel));
});
