import { describe, expect, it } from 'vitest';
import { strToU8 } from 'fflate';
import { chordsOf } from '../analysis/harmony';
import { pitchName } from '../theory/pitch';
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import { readScoreFile } from './readScoreFile';
import { formatOf, WRITTEN_FORMATS } from './writeScoreFile';

const song = scoreFrom({
  title: 'Every way',
  key: 'Bb',
  time: { beats: 4, beatType: 4 },
  tempo: 92,
  pickup: 1,
  right: 'F4:1 | Bb4:1.5 C5:0.5 D5:2 | Eb5:1 C5:1 A4:2 | Bb4:3 D5:1 | [Bb4 D5]:4',
  left: 'r:1 | [Bb2 F3]:4 | [C3 G3]:2 [F2 C3]:2 | Bb2:2 F3:2 | [Bb2 F3]:4',
  chords: ' | Bb | Cm F7 | Bb | Bb',
  sections: { 1: 'Verse' },
});

const written = (score: Score, ending: string): Uint8Array => {
  const content = formatOf(ending)!.write(score);
  return typeof content === 'string' ? strToU8(content) : content;
};
const sound = (score: Score): string[] =>
  soundingNotes(score.parts[0]!.notes).map(
    (n) => `${pitchName(n.pitch)}@${n.onset}+${n.duration}/${n.staff}`,
  );
const chords = (score: Score): string[] =>
  chordsOf(score).flatMap((s) => (s.chord ? [chordSymbol(s.chord)] : []));

describe('every format that is written', () => {
  it.each(WRITTEN_FORMATS.map((f) => f.ending))('%s is read again by its content', (ending) => {
    const back = readScoreFile('without-an-ending', written(song, ending)).score;
    expect(back.title).toBe('Every way');
    expect(back.tempo).toBe(92);
    expect(back.measures.map((m) => [m.length, m.beginsAt])).toEqual(
      song.measures.map((m) => [m.length, m.beginsAt]),
    );
  });
  it.each(['.musicxml', '.mxl', '.mid', '.abc'])('%s keeps what sounds', (ending) => {
    expect(sound(readScoreFile('x', written(song, ending)).score)).toEqual(sound(song));
  });
  it.each(['.musicxml', '.mxl', '.abc', '.pro', '.txt'])('%s keeps the chords and the section', (ending) => {
    const back = readScoreFile('x', written(song, ending)).score;
    expect(chords(back)).toEqual(chords(song));
    expect(back.measures.filter((m) => m.section).map((m) => m.section)).toEqual(['Verse']);
  });
  it('knows other endings of the same formats, in any case, and no others', () => {
    expect(formatOf('.XML')?.ending).toBe('.musicxml');
    expect(formatOf('.midi')?.ending).toBe('.mid');
    expect(formatOf('.cho')?.ending).toBe('.pro');
    expect(formatOf('.pdf')).toBeUndefined();
  });
});
