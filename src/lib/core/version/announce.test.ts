import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { announced, beatText, lengthText, readingOf } from './announce';
import { realise } from './realise';
import { DEFAULT_RECIPE } from './recipe';

const song = scoreFrom({
  key: 'D',
  time: { beats: 4, beatType: 4 },
  right: 'F#5:1.5 E5:0.5 D5:2 | A5:4',
  left: '[D3 A3]:4 | [D3 A3]:4',
  chords: 'D | D',
});
const version = realise(song, { ...DEFAULT_RECIPE, level: 6, key: 'D' }, [
  { kind: 'finger', at: { note: 'm0s1n0' }, value: 3 },
]);
const note = (id: string) => version.score.parts[0]!.notes.find((n) => n.id === id)!;

describe('what a screen reader hears', () => {
  it('is where a note is, what it is, its finger and why', () => {
    expect(announced(version, note('m0s1n0'), 'the hand lies so')).toBe(
      'Measure 1, beat 1, right hand, F sharp 5, dotted quarter, finger 3, your choice, in D: the hand lies so',
    );
    expect(announced(version, note('m0s2n0'))).toMatch(
      /^Measure 1, beat 1, left hand, D 3, whole note, finger \d, suggested, in D, with A 3\.$/,
    );
  });
  it('says where in the measure, also between beats', () => {
    const [measure] = version.score.measures;
    const at = (quarters: number) => beatText(measure!, measure!.start + quarters * 10080);
    expect([0, 1, 2.5, 3.25].map(at)).toEqual(['beat 1', 'beat 2', 'beat 3 and a half', 'after beat 4']);
  });
  it('reads a phrase note by note, without fingers where there are none', () => {
    const reading = readingOf(version, { from: 1, to: 1 });
    expect(reading.map((r) => [r.staff, r.midi])).toEqual([
      [2, 50],
      [2, 57],
      [1, 81],
    ]);
    const [first] = readingOf({ ...version, fingers: {} }, { from: 1, to: 1 });
    expect(first!.text).toBe('Measure 2, beat 1, left hand, D 3, whole note, in D, with A 3.');
  });
  it('names lengths as a teacher does', () => {
    const length = (duration: number, more = {}) => lengthText({ ...note('m0s1n0'), duration, ...more });
    expect(length(5040)).toBe('eighth');
    expect(length(3360, { tuplet: { actual: 3, normal: 2 } })).toBe('eighth of a triplet');
    expect(length(20160, { tie: 'start' })).toBe('half note, tied on');
  });
});
