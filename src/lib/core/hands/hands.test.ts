import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { pitchName } from '../theory/pitch';
import { scoreFrom } from '../test/shorthand';
import { assignHands } from './assign';
import { playablePart } from './playable';

const piece = (right: string, left: string): Score =>
  scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left });
const OCTAVE = { right: 12, left: 12 };

/** Notes by hand, each onset in order. */
function shown(score: Score, reach = OCTAVE) {
  const part = score.parts[0]!;
  const { hands, proposals } = assignHands(soundingNotes(part.notes), score.measures, reach, true);
  const of = (hand: string): string =>
    soundingNotes(part.notes)
      .filter((n) => hands.get(n.id) === hand)
      .map((n) => pitchName(n.pitch))
      .join(' ');
  return { right: of('right'), left: of('left'), says: proposals.map((p) => p.text) };
}

describe('hands', () => {
  it('are as the staves have them where they can be', () => {
    const { right, left, says } = shown(piece('C5:1 E5:1 G5:2', '[C3 E3 G3]:2 [B2 D3 G3]:2'));
    expect([right, left]).toEqual(['C5 E5 G5', 'C3 E3 G3 B2 D3 G3']);
    expect(says).toEqual([]);
  });
  it('share a chord that is wider than one of them', () => {
    const { right, left, says } = shown(piece('E5:4', '[C3 G3 E4]:4'));
    expect([right, left]).toEqual(['E4 E5', 'C3 G3']);
    expect(says[0]).toBe(
      'the right hand takes E4: the left hand would have to reach a tenth (reach: an octave)',
    );
    expect(shown(piece('E5:4', '[C3 G3 E4]:4'), { right: 16, left: 16 }).says).toEqual([]);
  });
  it('the left hand takes the low note of the right', () => {
    const { right, left } = shown(piece('[C4 G4 E5]:4', 'C3:4'));
    expect([right, left]).toEqual(['G4 E5', 'C3 C4']);
  });
  it('cross where the music crosses', () => {
    const { right, left, says } = shown(piece('C4:1 D4:1 E4:1 F4:1', 'r:1 G4:1 r:1 A4:1'));
    expect([right, left]).toEqual(['C4 D4 E4 F4', 'G4 A4']);
    expect(says).toEqual([]);
  });
  it('a key that one hand is on is struck by that hand', () => {
    const { says } = shown(piece('C5:2 C4:2', 'C4:4'));
    expect(says).toHaveLength(1);
    expect(says[0]).toMatch(/takes C4.*(already on that key|plays that key again)/);
  });
  it('let go early of what lies out of reach when more is struck', () => {
    const held = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: '[C6 E6]:4',
      left: 'C2:1 G3:3',
    });
    const part = held.parts[0]!;
    const long = part.notes.map((n) => (n.staff === 2 && n.onset === 0 ? { ...n, duration: 40320 } : n));
    expect(shown({ ...held, parts: [{ ...part, notes: long }] }).says).toEqual([
      'the left hand lets go of C2 early, to reach G3',
    ]);
  });
  it('law: no hand strikes more than it reaches where both together can, and every note has a hand', () => {
    const key = fc.integer({ min: 0, max: 14 });
    fc.assert(
      fc.property(fc.array(fc.tuple(key, key, key), { minLength: 1, maxLength: 8 }), (chords) => {
        const names = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
        const note = (step: number): string => `${names[step % 7]}${3 + Math.floor(step / 7)}`;
        const lower = chords.map(
          (steps) =>
            `[${[...new Set(steps)]
              .sort((a, b) => a - b)
              .map(note)
              .join(' ')}]:4`,
        );
        const score = piece(chords.map(() => 'C6:4').join(' | '), lower.join(' | '));
        const part = score.parts[0]!;
        const notes = soundingNotes(part.notes).filter((n) => n.staff === 2);
        const { hands } = assignHands(notes, score.measures, OCTAVE, true);
        expect(hands.size).toBe(notes.length);
        for (const measure of score.measures)
          for (const hand of ['right', 'left']) {
            const own = notes
              .filter((n) => n.onset === measure.start && hands.get(n.id) === hand)
              .map((n) => n.midi);
            // Two octaves and a note are always two handfuls of an octave each, or three notes of which two lie together.
            if (own.length > 0) expect(Math.max(...own) - Math.min(...own)).toBeLessThanOrEqual(12);
          }
      }),
    );
  });
});

describe('a part made playable', () => {
  const remedies = (right: string, left: string, reach = OCTAVE): string[][] =>
    playablePart(piece(right, left).parts[0]!, piece(right, left).measures, reach).wide.map((w) =>
      w.remedies.map((way) => `${way.kind}: ${way.text}`),
    );
  it('keeps every note, moves to the other staff what the other hand takes', () => {
    const score = piece('E5:4', '[C3 G3 E4]:4');
    const { part, wide } = playablePart(score.parts[0]!, score.measures, OCTAVE);
    expect(part.notes.map(({ id, onset, duration }) => ({ id, onset, duration }))).toEqual(
      score.parts[0]!.notes.map(({ id, onset, duration }) => ({ id, onset, duration })),
    );
    expect(part.notes.filter((n) => n.staff === 1).map((n) => pitchName(n.pitch))).toEqual(['E5', 'E4']);
    expect(wide).toEqual([]);
  });
  it('says, in order of preference, what can be done about a chord that no hand holds', () => {
    expect(remedies('[C6 E6]:4', '[C2 G2 E3]:4', { right: 12, left: 12 })[0]).toEqual([
      'broken: play C2 first, held by the pedal, then the rest',
      'rolled: roll it from the lowest note up',
      'thinned: leave out E3',
    ]);
    expect(remedies('[C6 E6]:4', '[C3 G3 E4]:4 ', { right: 9, left: 12 })[0]?.[0]).toBe(
      're-voiced: voice it as C3 E3 G3',
    );
  });
  it('rolls what neither hand can hold', () => {
    const score = piece('[C6 E6]:4', '[C2 G2 E3]:4');
    const { part } = playablePart(score.parts[0]!, score.measures, OCTAVE);
    expect(part.notes.filter((n) => n.arpeggio).map((n) => pitchName(n.pitch))).toEqual(['C2', 'G2', 'E3']);
  });
  it('leaves a melody on one staff to one hand, and parts a piano written on one staff', () => {
    const melody = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'A3:1 C4:1 E4:1 B3:1' });
    expect(
      playablePart(melody.parts[0]!, melody.measures, OCTAVE).part.notes.every((n) => n.staff === 1),
    ).toBe(true);
    const both = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: '[C3 G3 E5]:2 [F3 C4 A5]:2' });
    const { part } = playablePart(both.parts[0]!, both.measures, OCTAVE);
    expect(part.notes.filter((n) => n.staff === 2).map((n) => pitchName(n.pitch))).toEqual([
      'C3',
      'G3',
      'F3',
      'C4',
    ]);
  });
});
