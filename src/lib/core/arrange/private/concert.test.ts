import { describe, expect, it } from 'vitest';
import { readAbc } from '../../io/abc/read';
import { pitchName } from '../../theory/pitch';
import { soundingNotes } from '../../score/query';
import { realise } from '../../version/realise';
import { recipeSchema } from '../../version/recipe';

const SHEET =
  'X:1\nT:Sheet\nM:4/4\nL:1/4\nK:C\n"C" e3 d | "F" c4 | "G7" d2 B2 | "C" c4 |\n"C" e3 d | "F" a4 | "G7" g2 B2 | "C" c4 |]\n';
const versionAt = (level: number, more: object = {}) =>
  realise(readAbc(SHEET).score, recipeSchema.parse({ level, ...more }), []);
/** What the right hand strikes in a measure: "E5 4, C4 0.5". */
const rightIn = (version: ReturnType<typeof versionAt>, number: string): string[] => {
  const measure = version.score.measures.find((m) => m.number === number)!;
  return soundingNotes(version.score.parts[0]!.notes.filter((n) => n.staff === 1))
    .filter((n) => n.onset >= measure.start && n.onset < measure.start + measure.length)
    .map((n) => `${pitchName(n.pitch)} ${n.duration / 10080}`);
};

describe('the highest level of a melody with chords', () => {
  it('lets the chord move under long notes, each tone a pulse, the melody held above', () => {
    const strokes = rightIn(versionAt(6), '1');
    expect(strokes).toContain('E5 3');
    expect(strokes.filter((s) => s.endsWith(' 0.5')).length).toBeGreaterThanOrEqual(6);
    // Only tones that stood under the note before.
    const stood = new Set(rightIn(versionAt(5), '1').map((s) => s.split(' ')[0]));
    for (const stroke of strokes) expect(stood).toContain(stroke.split(' ')[0]);
  });
  it('closes its last phrase in octaves, whichever side has room, and says so', () => {
    const version = versionAt(6);
    const last = rightIn(version, '7').map((s) => s.split(' ')[0]!);
    const octaves = last.filter((name) => last.some((other) => other[0] === name[0] && other !== name));
    expect(new Set(octaves.map((n) => n[0]))).toEqual(new Set(['G', 'B']));
    expect(version.reasons.some((r) => r.text.includes('the last phrase ends in octaves'))).toBe(true);
    expect(version.violations).toEqual([]);
  });
  it('has no octaves for a hand that holds none', () => {
    const small = versionAt(6, { reach: { right: 7, left: 7 } });
    expect(small.reasons.some((r) => r.text.includes('ends in octaves'))).toBe(false);
    expect(small.violations).toEqual([]);
  });
  it('leaves a source with a left hand of its own as it is', () => {
    const own = readAbc(
      'X:1\nT:Own\nM:4/4\nL:1/4\nK:C\n%%score {R L}\nV:R clef=treble\nV:L clef=bass\n[V:R] e3 d | c4 |]\n[V:L] C,2 G,2 | C,4 |]\n',
    ).score;
    const made = realise(own, recipeSchema.parse({ level: 6 }), []);
    expect(made.score.parts[0]!.notes.length).toBe(own.parts[0]!.notes.length);
  });
});
