import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { blursUnder } from './blur';
import { PEDAL_STYLES, pedalMarks, type PedalStyle } from './pedal';

const piece = (right: string, left: string, chords: string, beats = 4): Score =>
  scoreFrom({ key: 'C', time: { beats, beatType: 4 }, right, left, chords });

const marksOf = (
  score: Score,
  style: PedalStyle | ((measure: number) => PedalStyle),
  starts: number[] = [],
) =>
  pedalMarks(soundingNotes(score.parts[0]!.notes), {
    measures: score.measures,
    chords: chordsOf(score),
    phraseStarts: new Set(starts.map((s) => s * Q)),
    styleIn: typeof style === 'function' ? style : () => style,
  });

const shown = (
  score: Score,
  style: PedalStyle | ((measure: number) => PedalStyle),
  starts: number[] = [],
): string =>
  marksOf(score, style, starts)
    .map((p) => `${p.type}@${p.onset / Q}`)
    .join(' ');

const blurs = (score: Score, style: PedalStyle): string[] =>
  blursUnder(soundingNotes(score.parts[0]!.notes), chordsOf(score), marksOf(score, style)).map(
    (b) => `${b.onset / Q}: ${b.text}`,
  );

describe('pedal that is lifted where it blurs', () => {
  it('is cleared where the bass goes by step, above middle C as well', () => {
    const song = piece('E5:4', 'E4:2 D4:2', 'C');
    expect(marksOf(song, 'lifted').map((m) => m.because)).toContain('change: the bass goes by step');
    expect(shown(song, 'lifted')).toBe('start@0 change@2 stop@4');
    expect(shown(piece('E5:4', 'E4:2 C4:2', 'C'), 'lifted')).toBe('start@0 stop@4');
  });
});

describe('pedal per harmony', () => {
  it.each<[string, string, string, string, number[], string]>([
    [
      'goes down with the first bass, is cleared with each chord and comes up at the end',
      'E5:4 | F5:4 | E5:4',
      'C3:4 | F3:4 | C3:4',
      'C | F | C',
      [],
      'start@0 change@4 change@8 stop@12',
    ],
    ['stays down while the chord stays', 'E5:4 | G5:4', 'C3:2 G3:2 | C3:4', 'C | ', [], 'start@0 stop@8'],
    [
      'comes up where both hands rest',
      'E5:2 r:2 | F5:4',
      'C3:2 r:2 | F3:4',
      'C | F',
      [],
      'start@0 stop@2 start@4 stop@8',
    ],
    [
      'is never held over a change of chord without a new bass',
      'E5:2 F5:2 | E5:4',
      'C3:2 r:2 | C3:4',
      'C F | C',
      [],
      'start@0 stop@2 start@4 stop@8',
    ],
    ['is cleared where a phrase ends', 'E5:4 | G5:4', 'C3:4 | C3:4', 'C | ', [4], 'start@0 change@4 stop@8'],
    [
      'waits for the bass after a pickup',
      'G4:1 A4:1 B4:2 | E5:4',
      'r:4 | C3:4',
      'G | C',
      [],
      'start@4 stop@8',
    ],
  ])('%s', (_name, right, left, chords, starts, expected) => {
    expect(shown(piece(right, left, chords), 'harmony', starts)).toBe(expected);
  });
  it('comes up at staccato and goes down with the next bass', () => {
    const score = piece('E5:1 G5:1 E5:2 | F5:4', 'C3:1 E3:1 G3:2 | F3:4', 'C | F');
    const part = score.parts[0]!;
    const notes = part.notes.map((n) => (n.onset === Q ? { ...n, articulations: ['staccato' as const] } : n));
    expect(shown({ ...score, parts: [{ ...part, notes }] }, 'harmony')).toBe(
      'start@0 stop@1 start@2 change@4 stop@8',
    );
  });
});

describe('staccato in one hand', () => {
  it.each<[PedalStyle, number]>([
    ['harmony', 1],
    ['harmony', 2],
    ['lifted', 2],
  ])('lifts the pedal of the %s style, whichever hand it is (staff %i)', (style, staff) => {
    const score = piece('E5:2 G5:2', 'C3:2 G3:2', 'C');
    const part = score.parts[0]!;
    const notes = part.notes.map((n) =>
      n.onset === 2 * Q && n.staff === staff ? { ...n, articulations: ['staccato' as const] } : n,
    );
    expect(shown({ ...score, parts: [{ ...part, notes }] }, style)).toBe('start@0 stop@2');
  });
});

describe('the other styles', () => {
  it('lifted: cleared where low neighbours would blur, and not where they lie high', () => {
    const low = piece('E5:4', 'C3:1 D3:1 E3:1 G3:1', 'C');
    expect(shown(low, 'harmony')).toBe('start@0 stop@4');
    expect(shown(low, 'lifted')).toBe('start@0 change@1 change@2 stop@4');
    expect(shown(piece('C5:1 D5:1 E5:2', 'C3:4', 'C'), 'lifted')).toBe('start@0 stop@4');
  });
  it('low note to chord: down with the bass, up as the chord is played', () => {
    expect(
      shown(
        piece('E5:3 | F5:3', 'C3:1 [E4 G4]:1 [E4 G4]:1 | F2:1 [A3 C4]:1 [A3 C4]:1', 'C | F', 3),
        'low-to-chord',
      ),
    ).toBe('start@0 stop@1 start@3 stop@4');
    expect(shown(piece('E5:4', '[C2 C3]:1 [E3 G3]:1 G2:1 [E3 G3]:1', 'C'), 'low-to-chord')).toBe(
      'start@0 stop@1 start@2 stop@3',
    );
  });
  it('long notes only: down on a beat and a half or more, up on moving notes', () => {
    expect(shown(piece('E5:2 D5:1 C5:1 | G4:4', 'C3:2 G3:1 A3:1 | C3:4', 'C | C'), 'long')).toBe(
      'start@0 stop@2 start@4 stop@8',
    );
    expect(shown(piece('E5:2 F5:2', 'C3:2 F3:2', 'C F'), 'long')).toBe('start@0 change@2 stop@4');
  });
  it('none is none, and a style may change from measure to measure', () => {
    const score = piece('E5:4 | F5:4 | E5:4', 'C3:4 | F3:4 | C3:4', 'C | F | C');
    expect(shown(score, 'none')).toBe('');
    expect(shown(score, (m) => (m === 1 ? 'none' : 'harmony'))).toBe('start@0 stop@4 start@8 stop@12');
  });
  it('every mark says why', () => {
    const score = piece('E5:4 | F5:4', 'C3:1 D3:1 E3:2 | F3:4', 'C | F');
    expect(marksOf(score, 'lifted').map((m) => m.because)).toEqual([
      'down: with the bass of C',
      'change: C3 and D3 would blur',
      'change: D3 and E3 would blur',
      'change: new chord F',
      'up: the end',
    ]);
  });
});

describe('what blurs', () => {
  it('is found: low neighbours under one pedal', () => {
    expect(blurs(piece('E5:4', 'C3:1 D3:1 E3:1 G3:1', 'C'), 'harmony')).toEqual([
      '1: C3 and D3 blur together',
    ]);
    expect(blurs(piece('E5:4', 'C3:1 G3:1 E4:1 G3:1', 'C'), 'harmony')).toEqual([]);
  });
  it('is found: two chords under a pedal that a source holds on', () => {
    const score = piece('E5:4 | F5:4', 'C3:4 | F3:4', 'C | F');
    const held = [
      { onset: 0, type: 'start' as const },
      { onset: 8 * Q, type: 'stop' as const },
    ];
    expect(blursUnder(soundingNotes(score.parts[0]!.notes), chordsOf(score), held)).toEqual([
      { onset: 4 * Q, kind: 'chords', text: 'C is still under the pedal when F begins' },
    ]);
  });

  const measure = fc.constantFrom(
    'C3:1 D3:1 E3:1 F3:1',
    'C3:2 G3:2',
    'A2:1 B2:1 C3:2',
    'r:2 G2:2',
    '[C3 E3]:1 [D3 F3]:1 [E3 G3]:2',
    'C3:0.5 B2:0.5 A2:1 r:2',
  );
  const music = fc
    .tuple(
      fc.array(measure, { minLength: 3, maxLength: 3 }),
      fc.array(fc.constantFrom('C', 'F G', 'Am', ''), { minLength: 3, maxLength: 3 }),
    )
    .map(([left, chords]) =>
      piece('E5:2 D5:1 C5:1 | E5:4 | r:2 G5:2', left.join(' | '), ['C', ...chords.slice(1)].join(' | ')),
    );

  it('law: no style holds two chords; the lifted one no low neighbours that it can part', () => {
    fc.assert(
      fc.property(music, fc.constantFrom(...PEDAL_STYLES), (score, style) => {
        const notes = soundingNotes(score.parts[0]!.notes);
        const marks = marksOf(score, style);
        const found = blursUnder(notes, chordsOf(score), marks);
        expect(found.filter((b) => b.kind === 'chords')).toEqual([]);
        if (style === 'lifted') expect(found).toEqual([]);
      }),
    );
  });
  it('law: down and up take turns, and nothing is marked before the first note or after the last', () => {
    fc.assert(
      fc.property(music, fc.constantFrom(...PEDAL_STYLES), (score, style) => {
        const marks = marksOf(score, style);
        let down = false;
        let before = -1;
        for (const { onset, type } of marks) {
          expect(onset).toBeGreaterThan(before - (type === 'start' ? 1 : 0));
          expect(type === 'start').toBe(!down);
          down = type !== 'stop';
          before = onset;
        }
        expect(down).toBe(false);
      }),
    );
  });
});
