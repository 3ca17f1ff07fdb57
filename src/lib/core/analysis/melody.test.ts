import { describe, expect, it } from 'vitest';
import { pitchName } from '../theory/pitch';
import type { Part, Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { accompanimentOf, findMelody } from './melody';

const waltz = { beats: 3, beatType: 4 };
const names = (score: Score): string =>
  findMelody(score)
    .notes.map((n) => pitchName(n.pitch))
    .join(' ');

describe('finding the melody', () => {
  it('takes the upper line of the right hand', () => {
    const score = scoreFrom({
      key: 'C',
      time: waltz,
      right: '[C4 E4 G4]:1 A4:1 [C4 G4]:1 | [A3 C4 F4]:2 E4:1',
      left: 'C3:3 | F3:3',
    });
    expect(names(score)).toBe('G4 A4 G4 F4 E4');
    expect(accompanimentOf(score, findMelody(score).notes)).toHaveLength(7);
  });
  it('finds a melody in the left hand under repeated chords', () => {
    const chords = 'r:0.5 [C4 E4 G4]:0.5 [C4 E4 G4]:0.5 [C4 E4 G4]:0.5 [C4 E4 G4]:0.5 [C4 E4 G4]:0.5';
    const score = scoreFrom({
      key: 'C',
      time: waltz,
      right: Array.from({ length: 4 }, () => chords).join(' | '),
      left: 'C3:1.5 D3:0.5 E3:1 | F3:2 E3:0.5 D3:0.5 | E3:1 D3:0.5 C3:0.5 B2:1 | C3:3',
    });
    expect(findMelody(score).lines).toEqual(['lower', 'lower', 'lower', 'lower']);
    expect(names(score)).toMatch(/^C3 D3 E3 F3/);
  });
  it('does not take a low riff for it where an upper line has one', () => {
    const score = scoreFrom({
      key: 'Am',
      time: { beats: 4, beatType: 4 },
      right: '[A3 C4 E4]:4 | [A3 C4 E4]:4 | [F3 A3 C4]:4 | [E3 G3 B3]:4',
      left: 'A2:1.5 A2:0.5 C3:0.5 D3:0.5 E3:1 | A2:1.5 A2:0.5 C3:0.5 D3:0.5 E3:1 | F2:1.5 F2:0.5 G2:0.5 A2:0.5 C3:1 | E2:1.5 E2:0.5 G2:0.5 A2:0.5 B2:1',
    });
    expect(findMelody(score).lines).toEqual(['upper', 'upper', 'upper', 'upper']);
  });
  it('stays with the right hand over a walking bass', () => {
    const score = scoreFrom({
      key: 'C',
      time: waltz,
      right: 'E5:1.5 D5:0.5 C5:1 | D5:2 E5:1 | C5:1 A4:1 B4:1',
      left: 'C3:1 D3:1 E3:1 | F3:1 E3:1 D3:1 | E3:1 F3:1 G3:1',
    });
    expect(findMelody(score).lines).toEqual(['upper', 'upper', 'upper']);
  });
  it('a voice with words has it, and the piano where the voice rests', () => {
    const piano = scoreFrom({
      key: 'C',
      time: waltz,
      right: 'E5:1 D5:0.5 C5:0.5 D5:1 | F5:1.5 E5:0.5 D5:1 | [E4 G4]:3 | [E4 G4]:3',
      left: 'C3:3 | G2:3 | C3:3 | C3:3',
    });
    const sung = scoreFrom({ key: 'C', time: waltz, right: 'r:3 | r:3 | G4:1 A4:1 B4:1 | C5:3' }).parts[0]!;
    const voice: Part = {
      ...sung,
      id: 'V',
      notes: sung.notes.map((n) => ({
        ...n,
        id: `v${n.id}`,
        lyrics: [{ line: 'words', verse: 1, text: 'la', syllabic: 'single' }],
      })),
    };
    const score: Score = { ...piano, parts: [voice, piano.parts[0]!] };
    expect(findMelody(score).lines).toEqual(['upper', 'upper', 'voice', 'voice']);
    expect(names(score)).toBe('E5 D5 C5 D5 F5 E5 D5 G4 A4 B4 C5');
  });
  it('the teacher’s choice goes over all', () => {
    const score = scoreFrom({
      key: 'C',
      time: waltz,
      right: 'E5:1 D5:1 C5:1 | D5:3',
      left: 'C3:1 B2:1 A2:1 | G2:3',
    });
    expect(findMelody(score, () => 'lower').notes.map((n) => pitchName(n.pitch))).toEqual([
      'C3',
      'B2',
      'A2',
      'G2',
    ]);
    expect(findMelody(score, (m) => (m === 1 ? 'lower' : undefined)).lines).toEqual(['upper', 'lower']);
  });
});
