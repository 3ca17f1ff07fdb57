/** What holds for every version of any piece, read by the jury's own reader (tests/music/rules.ts). */
import { describe, expect, it } from 'vitest';
import { broken } from '../../../../tests/music/rules';
import { readAbc } from '../io/abc/read';
import { TICKS_PER_QUARTER } from '../score/ticks';
import { realise } from '../version/realise';
import { recipeSchema } from '../version/recipe';

const tunes: Readonly<Record<string, string>> = {
  'a lead sheet with sevenths over a low tune': `M:4/4\nL:1/4\nQ:1/4=96\nK:C
"Cmaj7"E G B2|"Dm7"A F D2|"G7"B, D F G|"C"E4|"F/A"A c A2|"C/G"G E C2|"G7/B"D F G B|"C"c4|`,
  'a tune that comes again after a far chord': `M:4/4\nL:1/8\nQ:1/4=110\nK:G
"D"d2fd A2fd|"C"c2ec G2ec|"D"d2fd A2fd|"Am"ecAG A2A2|"D"d2fd A2fd|"C"c2ec G2ec|"D"d2f2 e2c2|"D"d8|`,
  'long notes tied over chords that change': `M:3/4\nL:1/4\nK:Am
"Am"A2 B|"F"c2 A|"E7"B3-|"Am"B2 A|"Am"A2 B|"Dm"d3-|"G7"d3|"Am"c3|`,
  'sevenths beside the tune': `M:4/4\nL:1/4\nK:C\n"Cmaj7"C E G2|"Cmaj7"C D E2|"Dm7"C D F2|"C"C4|`,
  'a waltz that comes back from below': `M:3/4\nL:1/4\nK:C\n"C"c e g|"G"d g b|"Em"e g b|"C"c e g|"G"d g b|"C"c3|`,
  'off the beat': `M:4/4\nL:1/8\nK:F\n"F"z c2 c2 A c2|"Gm7"z B2 B2 G B2|"C7"z e2 e2 c e2|"F"f8|`,
  'low in the bass': `M:4/4\nL:1/4\nK:Bb\n"Bb"d f b2|"Gm"b g d2|"Eb"g e B2|"F7"c e a2|"A"^c e a2|"G"=B d g2|"F7"a f c2|"Bb"b4|`,
};

it('from level 4 on the left hand has the seventh of a broken chord', () => {
  const { score } = readAbc('X:1\nM:4/4\nL:1/4\nK:F\n"C7"c e g c|"F"a4|\n');
  const hasSeventh = (level: number): boolean =>
    realise(score, recipeSchema.parse({ level }), []).score.parts[0]!.notes.some(
      (n) => n.staff === 2 && n.onset < 4 * TICKS_PER_QUARTER && n.pitch.step === 'B' && n.pitch.alter === -1,
    );
  expect([3, 4, 5].map(hasSeventh)).toEqual([false, true, true]);
});

it('in groups of three a broken chord has its bass on each beat, however low it opens', () => {
  const { score } = readAbc('X:1\nM:6/8\nL:1/8\nQ:3/8=80\nK:Am\n"Am"A2EA2B|"Am"A2EA2B|"E7"E2DE3|"Am"A6|\n');
  const left = realise(score, recipeSchema.parse({ level: 4 }), []).score.parts[0]!.notes.filter(
    (n) => n.staff === 2 && n.onset < 6 * TICKS_PER_QUARTER,
  );
  expect(left.length).toBeGreaterThan(8);
  for (const { onset, pitch } of left)
    if (onset % (1.5 * TICKS_PER_QUARTER) === 0) expect(pitch.step).toBe('A');
});

describe.each(Object.entries(tunes))('%s', (_, music) => {
  const { score } = readAbc(`X:1\n${music}\n`);
  it.each([1, 2, 3, 4, 5])('breaks no rule at level %i', (level) => {
    expect(broken(realise(score, recipeSchema.parse({ level }), []), level, false)).toEqual([]);
  });
});
