/** What the ear makes of takes that are known note for note. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { perform } from '../performance/perform';
import { insideOf } from '../score/places';
import { scoreFrom } from '../test/shorthand';
import { expectationOf, type Expectation } from './expectation';
import { proposedGrade } from './grade';
import { judge, type Take } from './judge';
import type { Keystroke } from './keystroke';
import { pretendToPlay, type Habits } from './pretendPlayer';

const song = scoreFrom({
  key: 'G',
  time: { beats: 4, beatType: 4 },
  tempo: 90,
  right: 'G4:1 A4:1 B4:2 | D5:1 B4:1 A4:1 G4:1 | F#4:1 A4:1 D5:2 | C5:1 B4:1 A4:0.5 B4:0.5 A4:1 | G4:4',
  left: '[G3 B3 D4]:4 | [G3 B3 D4]:4 | [D3 F#3 A3]:4 | [D3 F#3 C4]:4 | [G2 D3 B3]:4',
});
const wanted = (change: Partial<Parameters<typeof expectationOf>[1]> = {}): Expectation =>
  expectationOf(perform(song), { from: 0, to: 4, ...change });
const whole = wanted();

/** Everything as it stands, at the tempo of the song. */
const exact = (expectation = whole, tempo = expectation.tempo): Keystroke[] => [
  ...pretendToPlay(expectation, { seed: 1, tempo }).keystrokes,
];
/** The keystroke of a written note of a measure, by its MIDI number. */
const strokeAt = (strokes: readonly Keystroke[], measure: number, midi: number): number => {
  const at = whole.notes.find((n) => n.measure === measure && n.midi === midi)!;
  return strokes.findIndex((k) => 'note' in k && k.note === at.index);
};
const verdicts = (take: Take, measure: number): string[] =>
  take.measures
    .find((m) => m.measure === measure)!
    .notes.flatMap((n) =>
      n.verdict === 'right' ? [] : [`${n.note.midi} ${n.verdict}${n.played ? ` ${n.played}` : ''}`],
    );

describe('what is expected', () => {
  it('is the onsets of a stretch, a hand alone where that is asked', () => {
    expect(whole.onsets).toHaveLength(16);
    expect(wanted({ hand: 'left' }).notes).toHaveLength(15);
    expect(wanted({ from: 2, to: 2 }).onsets.map((o) => o.time)).toEqual([0, 10080, 20160]);
    expect(wanted({ from: 9, to: 9 }).onsets).toEqual([]);
  });
  it('begins and ends at a beat where that is asked: what is struck before or after it is not missed', () => {
    const { measures } = song;
    const places = { from: 0, to: 1, fromBeat: 2, toBeat: 2 };
    const { notes, onsets } = wanted({ ...places, ...insideOf(measures, places) });
    // The left hand of the second measure, and A, B, D, B above it.
    expect(notes.map((n) => n.midi)).toEqual([69, 71, 55, 59, 62, 74, 71]);
    expect(onsets[0]!.time).toBe(0);
    const cut = wanted({ ...places, ...insideOf(measures, places) });
    const take = judge(cut, exact(cut), true);
    expect(take.measures.map((m) => m.notes.length)).toEqual([2, 5]);
    expect(take.isWhole).toBe(true);
  });
  it('does not ask for the notes of an ornament', () => {
    const trill = {
      ...song,
      parts: song.parts.map((p) => ({
        ...p,
        notes: p.notes.map((n, i) => (i === 0 ? { ...n, ornaments: [{ kind: 'trill-mark' as const }] } : n)),
      })),
    };
    const { notes } = expectationOf(perform(trill), { from: 0, to: 0 });
    const own = notes.filter((n) => n.id === trill.parts[0]!.notes[0]!.id);
    expect(own.filter((n) => !n.isOrnament).length).toBeLessThanOrEqual(1);
  });
});

describe('a note', () => {
  it('is right where its key is struck', () => {
    const take = judge(whole, exact());
    expect(take.right).toBe(1);
    expect(take.played).toEqual([0, 1, 2, 3, 4]);
    expect(take.passes).toHaveLength(1);
  });
  it('is another key, which is named: F, not F sharp', () => {
    const strokes = exact();
    const at = strokeAt(strokes, 2, 66);
    strokes[at] = { ...strokes[at]!, midi: 65 };
    expect(verdicts(judge(whole, strokes), 2)).toEqual(['66 other 65']);
  });
  it('is missed where nothing is struck for it', () => {
    const strokes = exact();
    strokes.splice(strokeAt(strokes, 3, 72), 1);
    expect(verdicts(judge(whole, strokes), 3)).toEqual(['72 missed']);
  });
  it('is right in a chord that is rolled, and where neighbours come in the other order', () => {
    const rolled = exact().map((k, i) => ({ ...k, onset: k.onset + (k.midi < 64 ? 0.05 * (i % 4) : 0) }));
    expect(judge(whole, rolled).right).toBe(1);
    const strokes = exact();
    const [a, b] = [strokeAt(strokes, 1, 74), strokeAt(strokes, 1, 55)];
    strokes[a] = { ...strokes[a]!, onset: strokes[b]!.onset - 0.09 };
    expect(judge(whole, strokes).right).toBe(1);
  });
  it('is unsure, and no mistake, where the ear is', () => {
    const strokes = exact();
    const at = strokeAt(strokes, 2, 66);
    strokes[at] = { ...strokes[at]!, midi: 65, certainty: 0.3 };
    const take = judge(whole, strokes);
    expect(verdicts(take, 2)).toEqual(['66 unsure']);
    expect(take.right).toBe(1);
    const extra = judge(whole, [...exact(), { onset: 3, midi: 100, certainty: 0.2 }]);
    expect(extra.measures.flatMap((m) => m.extra)).toEqual([]);
  });
  it('is not missed before its time', () => {
    const soFar = exact().slice(0, 9);
    const take = judge(whole, soFar, false);
    expect(take.measures.flatMap((m) => m.notes).filter((n) => n.verdict === 'missed')).toEqual([]);
  });
});

describe('a key too many', () => {
  it('is named with its measure', () => {
    const strokes = [...exact(), { onset: exact()[9]!.onset + 0.1, midi: 90 }];
    const extra = judge(whole, strokes).measures.flatMap((m) => m.extra);
    expect(extra.map((e) => e.midi)).toEqual([90]);
    expect(extra[0]!.measure).toBe(1);
  });
});

describe('a player', () => {
  it('may begin again: what was played last counts', () => {
    const { keystrokes } = pretendToPlay(whole, {
      seed: 3,
      route: [
        [0, 6],
        [3, 15],
      ],
    });
    const strokes = keystrokes.map((k) => (k.pass === 0 && k.midi === 74 ? { ...k, midi: 73 } : k));
    const take = judge(whole, strokes);
    expect(take.passes).toHaveLength(2);
    expect(take.right).toBe(1);
    expect(take.measures.find((m) => m.measure === 1)!.times).toBe(2);
    expect(take.passes[0]!.notes.some((n) => n.verdict === 'other' && n.played === 73)).toBe(true);
  });
  it('may skip measures: they were not played, and nothing in them was missed', () => {
    const take = judge(
      whole,
      pretendToPlay(whole, {
        seed: 4,
        route: [
          [0, 2],
          [10, 15],
        ],
      }).keystrokes,
    );
    expect(take.played).toEqual([0, 3, 4]);
    expect(take.right).toBe(1);
  });
  it('may play one hand alone', () => {
    const take = judge(whole, pretendToPlay(whole, { seed: 5, hand: 'left' }).keystrokes);
    expect(take.handAlone).toBe('left');
    expect(take.right).toBe(1);
    expect(judge(whole, exact()).handAlone).toBeUndefined();
  });
  it('plays at a tempo of their own', () => {
    expect(judge(whole, exact(whole, 61)).tempo).toBeCloseTo(61, 0);
  });
  it('stands still, and is heard late or early against the tempo around', () => {
    const strokes = exact();
    const from = strokes[strokeAt(strokes, 2, 66)]!.onset;
    const stopped = judge(
      whole,
      strokes.map((k) => (k.onset >= from ? { ...k, onset: k.onset + 2 } : k)),
    );
    expect(stopped.measures.filter((m) => m.stood > 0).map((m) => m.measure)).toEqual([2]);
    expect(stopped.stops).toBe(1);
    const at = strokeAt(strokes, 3, 71);
    const late = strokes.map((k, i) => (i === at ? { ...k, onset: k.onset + 0.3 } : k));
    const timed = judge(whole, late).measures[3]!.notes.filter((n) => n.timing);
    expect(timed.map((n) => [n.note.midi, n.timing])).toEqual([[71, 'late']]);
    expect(
      judge(whole, strokes)
        .measures.flatMap((m) => m.notes)
        .every((n) => !n.timing),
    ).toBe(true);
  });
  it('law: who plays like a human is accused of nothing', () => {
    const human = fc.record({
      seed: fc.integer({ min: 1, max: 100_000 }),
      jitter: fc.constantFrom(0, 0.02, 0.04),
      rolled: fc.constantFrom(0, 0.5),
      drift: fc.constantFrom(0, 0.15),
      tempo: fc.integer({ min: 50, max: 110 }),
    });
    fc.assert(
      fc.property(human, (habits: Habits) => {
        const take = judge(whole, pretendToPlay(whole, habits).keystrokes);
        expect(take.right).toBe(1);
        expect(take.measures.flatMap((m) => m.extra)).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
  it('law: one mistake is named, and nothing else', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), fc.integer({ min: 0, max: 200 }), (seed, which) => {
        const strokes = [...pretendToPlay(whole, { seed, jitter: 0.02 }).keystrokes];
        const at = which % strokes.length;
        const { midi } = strokes[at]!;
        const chord = whole.onsets.find((o) => o.notes.some((n) => n.index === strokes[at]!.note))!.notes;
        const other = [midi + 1, midi - 1, midi + 3].find((m) => chord.every((n) => n.midi !== m))!;
        strokes[at] = { ...strokes[at]!, midi: other };
        const take = judge(whole, strokes);
        const wrong = take.measures.flatMap((m) => m.notes).filter((n) => n.verdict !== 'right');
        expect(wrong.map((n) => [n.note.midi, n.verdict, n.played])).toEqual([[midi, 'other', other]]);
        expect(take.measures.flatMap((m) => m.extra)).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});

describe('the grade that is proposed', () => {
  const graded = (habits: Partial<Habits>): number | undefined =>
    proposedGrade(judge(whole, pretendToPlay(whole, { seed: 11, ...habits }).keystrokes), whole.tempo)?.grade;
  it('asks for right notes, an even pace, no stop, and the tempo', () => {
    expect(graded({})).toBe(4);
    expect(graded({ tempo: 80 })).toBe(3);
    expect(graded({ tempo: 55 })).toBe(2);
    expect(graded({ tempo: 40 })).toBe(1);
    expect(graded({ wrong: 0.2 })).toBeLessThanOrEqual(2);
    expect(graded({ hesitating: 1 })).toBeLessThanOrEqual(2);
  });
  it('is none where nothing was played', () => {
    expect(proposedGrade(judge(whole, []), 90)).toBeUndefined();
  });
});

describe('the pretend player', () => {
  it('plays the same from the same seed, and says what it did wrong', () => {
    const habits: Habits = { seed: 21, wrong: 0.1, missed: 0.1, extra: 0.1, jitter: 0.03 };
    expect(pretendToPlay(whole, habits)).toEqual(pretendToPlay(whole, habits));
    const { keystrokes, mistakes } = pretendToPlay(whole, habits);
    const count = (kind: string): number => mistakes.filter((m) => m.kind === kind).length;
    expect(keystrokes).toHaveLength(whole.notes.length - count('missed') + count('extra'));
    expect(mistakes.length).toBeGreaterThan(2);
  });
});
