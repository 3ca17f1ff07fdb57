/** What is proposed after a take: by known takes of a pretend player, and as laws over many. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { perform } from '../performance/perform';
import { scoreFrom } from '../test/shorthand';
import { expectationOf } from './expectation';
import { proposedGrade } from './grade';
import { judge } from './judge';
import { moveAfter, moveText, type Move } from './move';
import { pretendToPlay, type Habits } from './pretendPlayer';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C4:1 D4:1 E4:1 F4:1 | G4:1 F4:1 E4:1 D4:1 | E4:1 F4:1 G4:1 A4:1 | G4:4',
  left: 'C3:4 | G2:4 | C3:4 | C3:4',
});
const expectation = expectationOf(perform(song), { from: 0, to: 3, tempo: 80 });
const words = { measureText: (m: number) => `measure ${m + 1}`, tempoText: (t: number) => String(t) };

/** The keystrokes of a perfect take, as changed. */
function after(
  change: (index: number, midi: number) => number | undefined,
  practised: Partial<Parameters<typeof moveAfter>[2]> = {},
): Move {
  const { keystrokes } = pretendToPlay(expectation, { seed: 1 });
  const played = keystrokes.flatMap((k, i) => {
    const midi = change(i, k.midi);
    return midi === undefined ? [] : [{ ...k, midi }];
  });
  const take = judge(expectation, played, true);
  return moveAfter(take, proposedGrade(take, 80)?.grade, {
    hand: 'both',
    from: 0,
    to: 3,
    tempo: 80,
    ladder: [],
    ...practised,
  });
}

describe('the move after a take', () => {
  it('is to go to the end where the take was broken off, and a step is not done before', () => {
    const firstHalf = expectation.notes.filter((n) => n.measure < 2).length;
    expect(after((i, midi) => (i < firstHalf ? midi : undefined))).toEqual({ do: 'all' });
    // What was not right so far comes first.
    expect(after((i, midi) => (i < firstHalf ? (i === 2 ? midi + 1 : midi) : undefined))).toMatchObject({
      do: 'measure',
      measure: 0,
    });
  });

  it('goes on, or up the ladder, when it was clean', () => {
    expect(after((_, midi) => midi)).toEqual({ do: 'next' });
    expect(after((_, midi) => midi, { ladder: [60, 80, 96] })).toEqual({ do: 'faster', tempo: 96 });
    expect(after((_, midi) => midi, { ladder: [60, 80] })).toEqual({ do: 'next' });
    // One slip of twenty notes is clean enough to go on.
    expect(after((i, midi) => (i === 6 ? midi + 1 : midi))).toEqual({ do: 'next' });
  });

  it('mends the one measure that went wrong, in the hand that did', () => {
    // D4, E4 and F4 of the second measure.
    const move = after((_, midi) => midi, {});
    expect(move.do).toBe('next');
    const wrong = after((i, midi) => (i === 6 || i === 7 || i === 8 ? midi + 1 : midi));
    expect(wrong).toEqual({ do: 'measure', measure: 1, hand: 'right', tempo: 80 });
    expect(moveText(wrong, words)).toBe('Practice measure 2 alone, right hand, at 80.');
  });

  it('takes the hands apart, or goes slower, where much went wrong', () => {
    const leftOut = after((_, midi) => (midi >= 60 && midi % 2 === 0 ? undefined : midi));
    expect(leftOut).toEqual({ do: 'hand', hand: 'right', tempo: 80 });
    const oneHand = after((_, midi) => (midi >= 60 && midi % 2 === 0 ? undefined : midi), { hand: 'right' });
    expect(oneHand).toEqual({ do: 'slower', tempo: 68 });
    const rung = after((_, midi) => (midi >= 60 && midi % 2 === 0 ? undefined : midi), {
      hand: 'right',
      ladder: [60, 72, 80],
    });
    expect(rung).toEqual({ do: 'slower', tempo: 72 });
  });

  it('asks for it once more where nothing was heard', () => {
    expect(after(() => undefined)).toEqual({ do: 'again' });
  });

  it('never asks for a measure outside, nor for more than the ladder has, nor slower than 30', () => {
    fc.assert(
      fc.property(
        fc.record({
          seed: fc.integer({ min: 1, max: 500 }),
          wrong: fc.double({ min: 0, max: 0.6, noNaN: true }),
          missed: fc.double({ min: 0, max: 0.3, noNaN: true }),
          hesitating: fc.double({ min: 0, max: 0.5, noNaN: true }),
        }),
        fc.integer({ min: 30, max: 120 }),
        fc.constantFrom<'both' | 'right'>('both', 'right'),
        (habits: Habits, tempo, hand) => {
          const take = judge(expectation, pretendToPlay(expectation, habits).keystrokes, true);
          const ladder = [40, 60, 80];
          const move = moveAfter(take, proposedGrade(take, tempo)?.grade, {
            hand,
            from: 0,
            to: 3,
            tempo,
            ladder,
          });
          if (move.do === 'measure') expect(move.measure).toBeLessThanOrEqual(3);
          if (move.do === 'faster') expect(ladder).toContain(move.tempo);
          if (move.do === 'slower') {
            expect(move.tempo).toBeLessThan(tempo);
            expect(move.tempo).toBeGreaterThanOrEqual(30);
          }
          if (move.do === 'hand') expect(hand).toBe('both');
          expect(moveText(move, words)).toMatch(/^[A-Z].*\.$/);
        },
      ),
      { numRuns: 60 },
    );
  });
});
