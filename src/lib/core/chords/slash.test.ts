import { describe, expect, it } from 'vitest';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { readScoreFile } from '../io/readScoreFile';
import { withParts } from '../players/parts';
import { scoreFrom } from '../test/shorthand';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import type { Lyric, Score } from '../score/score';
import { slashChart } from './slash';

const four = { beats: 4, beatType: 4 };

/** The same with words, a syllable to a note of the tune. */
function sung(score: Score, syllables: readonly (readonly [string, Lyric['syllabic']])[]): Score {
  const [part, ...others] = score.parts as [Score['parts'][number]];
  const tune = part.notes.filter((n) => n.staff === 1);
  return {
    ...score,
    parts: [
      {
        ...part,
        notes: part.notes.map((note) => {
          const word = syllables[tune.indexOf(note)];
          return word
            ? { ...note, lyrics: [{ line: 'words', verse: 1, text: word[0], syllabic: word[1] } as const] }
            : note;
        }),
      },
      ...others,
    ],
  };
}
const song = scoreFrom({
  key: 'G',
  time: four,
  pickup: 1,
  right: 'D4:1 | G4:1 G4:0.5 A4:0.5 B4:2 | A4:2 D5:2 | B4:4 | G4:3 D4:1 | G4:4',
  left: 'r:1 | G2:4 | D3:4 | G2:4 | G2:4 | G2:4',
  chords: ' | G | D Am | G | G | G',
  sections: { 1: 'Verse', 5: 'Chorus' },
});
const words = sung(song, [
  ['The', 'single'],
  ['pa', 'begin'],
  ['per', 'end'],
  ['kite', 'single'],
  ['is', 'single'],
  ['high', 'begin'],
  ['er', 'end'],
  ['now.', 'single'],
  ['And', 'single'],
  ['Oh', 'single'],
  ['high', 'single'],
]);
const version = realise(words, { ...DEFAULT_RECIPE, level: 3 }, []);
const chart = slashChart(version);

describe('a slash chart', () => {
  it('has as many beats as each measure, the pickup what it holds', () => {
    expect(chart.map((m) => m.beats.length)).toEqual([1, 4, 4, 4, 4, 4]);
  });
  it('has every chord at the beat on which it begins', () => {
    expect(chart[1]!.beats.map((b) => b.symbols.join())).toEqual(['G', '', '', '']);
    expect(chart[2]!.beats.map((b) => b.symbols.join())).toEqual(['D', '', 'Am', '']);
  });
  it('has every syllable at its beat: joined within one, with a hyphen over the next', () => {
    expect(chart[0]!.beats[0]!.words).toEqual(['The']);
    expect(chart[1]!.beats.map((b) => b.words[0])).toEqual(['pa-', 'per kite', 'is', '']);
    expect(chart[2]!.beats.map((b) => b.words[0])).toEqual(['high-', '', 'er', '']);
  });
  it('loses no word', () => {
    const all = chart.flatMap((m) => m.beats.map((b) => b.words[0] ?? '')).join(' ');
    for (const word of ['The', 'per', 'kite', 'is', 'er', 'now.', 'And', 'Oh']) expect(all).toContain(word);
  });
  it('marks the beats that the next section borrows, and no others', () => {
    const pickup = version.form.sections[1]!.pickup ?? 0;
    const borrowed = chart
      .flatMap((m) => m.beats.map((b, i) => (b.isBorrowed ? `${m.measure}:${i}` : '')))
      .filter(Boolean);
    expect(borrowed).toEqual(pickup === Q ? ['4:3'] : []);
    expect(pickup).toBe(Q);
  });
  it('has the words of a chart over its beats', () => {
    const { score } = readScoreFile(
      'x.pro',
      new TextEncoder().encode('{title: Rain}\n{key: C}\n[C]Rain on the [F]tin roof [G]all night [C]long\n'),
    );
    const made = realise(
      withParts(score),
      { ...DEFAULT_RECIPE, level: 2, style: 'sing-along', introduction: 0 },
      [],
    );
    const beats = slashChart(made).flatMap((m) => m.beats);
    expect(beats.flatMap((b) => b.symbols)).toEqual(['C', 'F', 'G', 'C']);
    expect(
      beats
        .map((b) => b.words.join(' '))
        .join(' ')
        .replace(/\s+/g, ' ')
        .trim(),
    ).toBe('Rain on the tin roof all night long');
  });
});
