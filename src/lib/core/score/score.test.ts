import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { shownAccidentals } from './accidentals';
import { excerpt } from './excerpt';
import { beatLength, groupStarts, isCompound, measureLength, metricalStrength } from './metre';
import { notate, readableValues, writtenValue } from './notate';
import { pitchName, toMidi } from '../theory/pitch';
import { byOnset, measureAt, soundingNotes } from './query';
import type { Measure, TimeSignature } from './score';
import { noteValue, quarters, TICKS_PER_QUARTER as Q } from './ticks';

const time = (beats: number, beatType: number): TimeSignature => ({ beats, beatType });

describe('pitch', () => {
  it('counts middle C as 60 and crosses octaves with B sharp and C flat', () => {
    expect(toMidi({ step: 'C', alter: 0, octave: 4 })).toBe(60);
    expect(toMidi({ step: 'B', alter: 1, octave: 3 })).toBe(60);
    expect(toMidi({ step: 'C', alter: -1, octave: 4 })).toBe(59);
    expect(pitchName({ step: 'E', alter: -1, octave: 5 })).toBe('E♭5');
  });
});

describe('ticks', () => {
  it('are whole for triplets, quintuplets and septuplets down to sixteenths', () => {
    for (const n of [3, 5, 7, 9]) expect(Number.isInteger(noteValue(16) / n)).toBe(true);
  });
  it('are told as reduced fractions of quarters', () => {
    expect([0, Q, Q * 1.5, Q / 3, Q * 2].map(quarters)).toEqual(['0', '1', '3/2', '1/3', '2']);
  });
});

describe('metre', () => {
  it('beats dotted in compound meter, and counts 3/8 in three', () => {
    expect(beatLength(time(6, 8))).toBe(Q * 1.5);
    expect(beatLength(time(2, 2))).toBe(Q * 2);
    expect(beatLength(time(3, 8))).toBe(Q / 2);
    expect([time(6, 8), time(9, 8), time(12, 8), time(3, 8), time(6, 4), time(5, 8)].map(isCompound)).toEqual(
      [true, true, true, false, false, false],
    );
  });
  it('knows the strong places', () => {
    const at = (place: number) => metricalStrength(time(4, 4), place * Q);
    expect([0, 1, 2, 3, 0.5, 0.25].map(at)).toEqual([4, 2, 3, 2, 1, 0]);
    expect(metricalStrength(time(6, 8), Q * 1.5)).toBe(2);
    expect(metricalStrength(time(3, 4), Q * 1.5)).toBe(1);
  });
});

describe('groups of a time signature', () => {
  const startsIn = (beats: number, beatType: number, rests: string, pickup?: number): number[] =>
    [
      ...groupStarts(
        scoreFrom({ key: 'C', time: time(beats, beatType), right: rests, ...(pickup ? { pickup } : {}) })
          .measures,
      ),
    ].map((tick) => tick / Q);
  it.each([
    ['four quarters have halves', 4, 4, 'r:4 | r:4', [0, 2, 4, 6]],
    ['three have none', 3, 4, 'r:3 | r:3', [0, 3]],
    ['five are three and two', 5, 4, 'r:5 | r:5', [0, 3, 5, 8]],
    ['seven eighths are two, two and three', 7, 8, 'r:3.5', [0, 1, 2]],
    ['eight eighths are three, three and two', 8, 8, 'r:4', [0, 1.5, 3]],
    ['six eighths are two dotted quarters', 6, 8, 'r:3', [0, 1.5]],
    ['nine eighths are one group of three', 9, 8, 'r:4.5', [0]],
  ] as const)('%s', (_, beats, beatType, rests, starts) =>
    expect(startsIn(beats, beatType, rests)).toEqual(starts),
  );
  it('a pickup has the groups that are left to it', () => {
    expect(startsIn(4, 4, 'r:1 | r:4', 1)).toEqual([0, 1, 3]);
    expect(startsIn(4, 4, 'r:3 | r:4', 3)).toEqual([0, 1, 3, 5]);
  });
});

describe('written values', () => {
  it('name plain, dotted and triplet values', () => {
    expect(writtenValue(Q)).toEqual({ type: 4, dots: 0 });
    expect(writtenValue(Q * 1.5)).toEqual({ type: 4, dots: 1 });
    expect(writtenValue(Q / 3)).toEqual({ type: 8, dots: 0, tuplet: { actual: 3, normal: 2 } });
    expect(writtenValue(Q * 5)).toBeUndefined();
  });

  it.each([
    ['a syncopated quarter after an eighth stays whole', time(4, 4), 0.5, 1.5, [1]],
    ['an off-beat note over the middle of 4/4 is tied there', time(4, 4), 1.5, 2.5, [0.5, 0.5]],
    ['a half note on beat two stays whole', time(4, 4), 1, 3, [2]],
    ['a dotted half may fill the measure after its first beat', time(4, 4), 1, 4, [3]],
    ['five eighths from the first beat', time(4, 4), 0, 2.5, [2, 0.5]],
    ['a whole measure of 3/4', time(3, 4), 0, 3, [3]],
    ['a dotted quarter in 6/8', time(6, 8), 1.5, 3, [1.5]],
    ['a quarter over the beat of 6/8 is cut', time(6, 8), 1, 2, [0.5, 0.5]],
    ['a full measure of 6/8', time(6, 8), 0, 3, [3]],
  ])('%s', (_name, metre, from, to, expected) => {
    expect(readableValues(metre, from * Q, to * Q).map((v) => v / Q)).toEqual(expected);
  });

  it('rests never hide a beat', () => {
    expect(readableValues(time(4, 4), Q, 4 * Q, true).map((v) => v / Q)).toEqual([1, 2]);
    expect(readableValues(time(4, 4), 0.5 * Q, 2 * Q, true).map((v) => v / Q)).toEqual([0.5, 1]);
    expect(readableValues(time(3, 4), Q, 3 * Q, true).map((v) => v / Q)).toEqual([1, 1]);
  });

  it('law: the pieces fill the stretch exactly, and each can be written', () => {
    const metres = [
      time(2, 4),
      time(3, 4),
      time(4, 4),
      time(5, 4),
      time(6, 8),
      time(9, 8),
      time(12, 8),
      time(7, 8),
    ];
    fc.assert(
      fc.property(fc.constantFrom(...metres), fc.nat(200), fc.nat(200), fc.boolean(), (metre, a, b, rest) => {
        const slots = measureLength(metre) / noteValue(32);
        const [from, to] = [a % slots, b % (slots + 1)].sort((x, y) => x - y) as [number, number];
        const pieces = readableValues(metre, from * noteValue(32), to * noteValue(32), rest);
        expect(pieces.reduce((x, y) => x + y, 0)).toBe((to - from) * noteValue(32));
        for (const piece of pieces) expect(writtenValue(piece)).toBeDefined();
      }),
    );
  });
});

describe('notating and sounding', () => {
  const frame = scoreFrom({ key: 'C', time: time(4, 4), right: 'r:4 | r:4 | r:4' }).measures;

  it('ties a note over barlines, the first piece keeping the id', () => {
    const long = {
      id: 'x',
      onset: 3 * Q,
      duration: 6 * Q,
      pitch: { step: 'G' as const, alter: 0, octave: 4 },
      staff: 1,
      voice: 1,
      finger: 2,
    };
    const written = notate(frame, [long]);
    expect(written.map((n) => [n.id, n.duration / Q, n.tie])).toEqual([
      ['x', 1, 'start'],
      ['x.1', 4, 'both'],
      ['x.2', 1, 'stop'],
    ]);
    expect(written.map((n) => n.finger)).toEqual([2, undefined, undefined]);
    const [sounding, ...none] = soundingNotes(written);
    expect(none).toEqual([]);
    expect(sounding).toMatchObject({ id: 'x', onset: 3 * Q, duration: 6 * Q, written: ['x', 'x.1', 'x.2'] });
  });

  it('law: what is notated sounds as it was', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(23), fc.integer({ min: 1, max: 20 })), { maxLength: 6 }),
        (spans) => {
          const notes = spans.map(([start, length], i) => ({
            id: `n${i}`,
            onset: start * (Q / 2),
            duration: Math.min(length, 24 - start) * (Q / 2),
            pitch: { step: 'C' as const, alter: 0, octave: i + 1 },
            staff: 1,
            voice: 1,
          }));
          const back = soundingNotes(notate(frame, notes));
          expect(back.map((n) => [n.id, n.onset, n.duration]).sort()).toEqual(
            notes.map((n) => [n.id, n.onset, n.duration]).sort(),
          );
        },
      ),
    );
  });

  it('does not join notes that are repeated rather than tied', () => {
    const score = scoreFrom({ key: 'C', time: time(2, 4), right: 'C4:1 C4:1' });
    expect(soundingNotes(score.parts[0]!.notes)).toHaveLength(2);
  });
});

describe('queries', () => {
  const score = scoreFrom({ key: 'C', time: time(3, 4), pickup: 1, right: 'G4:1 | C5:1 [E4 G4]:2 | C5:3' });

  it('find the measure of a tick by its start', () => {
    expect([0, Q - 1, Q, 4 * Q - 1, 4 * Q, 99 * Q].map((t) => measureAt(score.measures, t).number)).toEqual([
      '0',
      '0',
      '1',
      '1',
      '2',
      '2',
    ]);
  });
  it('group what is struck together', () => {
    expect(byOnset(soundingNotes(score.parts[0]!.notes)).map((g) => g.notes.length)).toEqual([1, 1, 2, 1]);
  });
  it('place a pickup at the end of its measure', () => {
    expect(score.measures[0]!.beginsAt).toBe(2 * Q);
  });
});

describe('accidentals', () => {
  const shown = (right: string, key: string): string[] => {
    const score = scoreFrom({ key, time: time(4, 4), right });
    const ids = score.measures.flatMap((m: Measure) => [
      ...shownAccidentals(
        m,
        score.parts[0]!.notes.filter((n) => n.onset >= m.start && n.onset < m.start + m.length),
      ),
    ]);
    return ids.map((id) => pitchName(score.parts[0]!.notes.find((n) => n.id === id)!.pitch));
  };
  it('appear once in a measure and are taken back by a natural', () => {
    expect(shown('F#4:1 F#4:1 F4:1 F#4:1', 'C')).toEqual(['F♯4', 'F4', 'F♯4']);
  });
  it('follow the signature and start afresh at the barline', () => {
    expect(shown('F#4:2 F4:2 | F#4:2 F4:2', 'G')).toEqual(['F4', 'F4']);
  });
  it('belong to one octave', () => {
    expect(shown('F#4:2 F#5:2', 'C')).toEqual(['F♯4', 'F♯5']);
  });
});

describe('excerpts', () => {
  const score = {
    ...scoreFrom({ key: 'C', time: time(2, 4), right: 'C4:2 | D4:2 | E4:2 | F4:2' }),
    pedals: [
      { onset: 0, type: 'start' as const },
      { onset: 4 * Q, type: 'change' as const },
      { onset: 8 * Q, type: 'stop' as const },
    ],
  };
  it('hold the notes of their measures and keep their onsets', () => {
    const part = excerpt(score, { from: 1, to: 2 });
    expect(part.measures.map((m) => m.index)).toEqual([1, 2]);
    expect(part.parts[0]!.notes.map((n) => n.onset / Q)).toEqual([2, 4]);
  });
  it('open a pedal that is already down and close one that stays down', () => {
    expect(excerpt(score, { from: 1, to: 2 }).pedals.map((p) => [p.onset / Q, p.type])).toEqual([
      [2, 'start'],
      [4, 'change'],
      [6, 'stop'],
    ]);
    expect(excerpt(score, { from: 2, to: 3 }).pedals.map((p) => [p.onset / Q, p.type])).toEqual([
      [4, 'start'],
      [8, 'stop'],
    ]);
  });
});
