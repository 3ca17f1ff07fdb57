import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { proposedParts, withParts } from './parts';
import { keyboardPart } from '../score/query';
import { melodyPart } from '../analysis/melody';
import type { Part, Score } from '../score/score';

const time = { beats: 4, beatType: 4 };
const line = (id: string, name: string, right: string, words = false): Part => {
  const { parts } = scoreFrom({ key: 'C', time, right });
  return {
    ...parts[0]!,
    id,
    name,
    notes: parts[0]!.notes.map((n) => ({
      ...n,
      id: `${id}${n.id}`,
      ...(words ? { lyrics: [{ line: 'words', verse: 1, text: 'la', syllabic: 'single' } as const] } : {}),
    })),
  };
};
const grand = (id: string): Part => ({
  ...scoreFrom({ key: 'C', time, right: 'C5:4', left: 'C3:4' }).parts[0]!,
  id,
});
const of = (...parts: Part[]): Score => ({ ...scoreFrom({ key: 'C', time, right: 'C4:4' }), parts });
const violin = line('V', 'Violin', 'E5:4');
const voice = line('S', 'Voice', 'C5:4', true);
const upper = line('U', 'Upper', 'G4:4');
const lower = line('L', 'Cello', 'C3:4');

describe('what the parts are', () => {
  it.each([
    ['one part is the piano', [violin], { V: 'piano' }],
    [
      'two staves are the piano, a voice with words the melody',
      [violin, voice, grand('P')],
      { V: 'other', S: 'melody', P: 'piano' },
    ],
    ['two parts of one staff are two hands', [lower, violin], { V: 'right', L: 'left' }],
    ['also under a voice', [voice, upper, lower], { S: 'melody', U: 'right', L: 'left' }],
    [
      'two parts close together are not',
      [violin, line('W', 'Second violin', 'C5:4')],
      { V: 'melody', W: 'other' },
    ],
    [
      'unless they are called so',
      [line('R', 'Piano RH', 'C5:4'), line('X', 'Piano LH', 'B4:4')],
      { R: 'right', X: 'left' },
    ],
  ])('%s', (_, parts, choices) => expect(proposedParts(of(...parts)).parts).toEqual(choices));

  it('makes one keyboard part of two hands, ids and voices kept apart', () => {
    const score = withParts(of(lower, voice, upper));
    expect(melodyPart(score).id).toBe('S');
    const keyboard = keyboardPart(score);
    expect(keyboard).toMatchObject({ staves: 2, role: 'keyboard' });
    expect(keyboard.notes.map((n) => [n.id, n.staff])).toEqual([
      ['Um0s1n0', 1],
      ['Lm0s1n0', 2],
    ]);
    expect(new Set(keyboard.notes.map((n) => n.voice)).size).toBe(2);
  });
  it('does what the teacher chose', () => {
    const score = withParts(of(violin, voice, grand('P')), {
      parts: { V: 'melody', S: 'other', P: 'piano' },
      tune: [],
    });
    expect(melodyPart(score).id).toBe('V');
    expect(score.parts.map((p) => p.role)).toEqual(['melody', 'keyboard', 'other']);
  });
  it('leaves a single part as it is', () => {
    const source = of(grand('P'));
    expect(withParts(source).parts[0]).toEqual({ ...source.parts[0], role: 'keyboard' });
  });
});
