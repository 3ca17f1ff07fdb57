/** One version that plays its instrumentals and accompanies the singer between them. */
import { describe, expect, it } from 'vitest';
import type { Decision } from '../decisions/registry';
import { measureAt, soundingNotes } from '../score/query';
import { TICKS_PER_QUARTER } from '../score/ticks';
import type { Score } from '../score/score';
import { scoreFrom, withVoice } from '../test/shorthand';
import { recipeSchema } from './recipe';
import { realise, type Version } from './realise';

const RIFF = 'A2:0.5 A2:0.5 C3:0.5 D3:0.5 A2:0.5 E3:0.5 D3:0.5 C3:0.5';
const twelve = (text: string): string => Array.from({ length: 12 }, () => text).join(' | ');
const sung = ['E4:1 E4:1 G4:1 A4:1', 'A4:2 G4:2', 'E4:1 E4:1 G4:1 A4:1', 'A4:4'];
const line = Array.from({ length: 12 }, (_, i) => (i < 4 || i > 7 ? 'r:4' : sung[i - 4]!)).join(' | ');
const plain = withVoice(
  scoreFrom({
    key: 'Am',
    time: { beats: 4, beatType: 4 },
    right: twelve('[A3 C4 E4]:2 [A3 C4 E4]:2'),
    left: twelve(RIFF),
  }),
  line,
);
/** Symbols begin with the verse and end with it. */
const song: Score = {
  ...plain,
  chordSymbols: [4, 6].map((m) => ({
    onset: plain.measures[m]!.start,
    chord: { root: 3, kind: 'minor' as const },
  })),
};
const made = (style: 'solo' | 'sing-along', level: number, decisions: Decision[] = []): Version =>
  realise(song, recipeSchema.parse({ level, style, key: 'Am' }), decisions);
const struck = (version: Version, measure: number, staff: number): string[] =>
  soundingNotes(version.score.parts[0]!.notes)
    .filter((n) => n.staff === staff && measureAt(version.score.measures, n.onset).index === measure)
    .map((n) => `${(n.onset - version.score.measures[measure]!.start) / TICKS_PER_QUARTER}:${n.midi}`);
const LEVELS = [1, 2, 3, 4, 5, 6];

describe('a riff, then a voice', () => {
  it.each(LEVELS)('level %i accompanies the singer and plays before and after', (level) => {
    const version = made('sing-along', level);
    expect(version.introduction).toBe(0);
    expect(version.isSingAlong).toBe(true);
    expect([...version.sungMeasures]).toEqual([4, 5, 6, 7]);
    for (const measure of version.score.measures)
      for (const staff of [1, 2])
        expect(struck(version, measure.index, staff).length, `measure ${measure.number}`).toBeGreaterThan(0);
  });
  it.each(LEVELS)('level %i has the riff in the left hand, thinned to what it reads', (level) => {
    const riff = ['0:45', '0.5:45', '1:48', '1.5:50', '2:45', '2.5:52', '3:50', '3.5:48'];
    for (const left of [
      struck(made('sing-along', level), 1, 2),
      struck(made('solo', level), 1, 2),
      // Under the singer too, where the melody is played.
      struck(made('solo', level), 5, 2),
    ]) {
      const kept = left.filter((note) => riff.includes(note)).length;
      expect(kept).toBe(left.length);
      expect(left.length).toBe(level === 1 ? 2 : level === 2 ? 4 : 8);
    }
  });
  it('keeps a walking figure between verses within the level, not as slow as under a melody', () => {
    const version = realise(song, recipeSchema.parse({ level: 3, key: 'Am', idiom: 'walking' }), []);
    expect(struck(version, 1, 2)).toHaveLength(8);
    expect(struck(version, 5, 2).length).toBeLessThan(8);
  });
  it('does not play the singer’s notes in the verse, and keeps the chords of the introduction', () => {
    const verse = soundingNotes(made('sing-along', 4).score.parts[0]!.notes).filter((n) =>
      n.id.startsWith('v'),
    );
    expect(verse).toEqual([]);
    expect(struck(made('sing-along', 4), 0, 1)).toEqual(struck(made('solo', 4), 0, 1));
  });
  it('plays the melody of the verse where that is chosen, and accompanies a verse of a solo', () => {
    const verse = { section: ['m4', 'm7'] as [string, string] };
    const played = made('sing-along', 3, [{ kind: 'style', at: verse, value: 'solo' }]);
    expect(played.sungMeasures.size).toBe(0);
    expect(struck(played, 4, 1)).toEqual(struck(made('solo', 3), 4, 1));
    const accompanied = made('solo', 3, [{ kind: 'style', at: verse, value: 'sing-along' }]);
    expect([...accompanied.sungMeasures]).toEqual([4, 5, 6, 7]);
    expect(struck(accompanied, 4, 1)).toEqual(struck(made('sing-along', 3), 4, 1));
    expect(accompanied.parked).toEqual([]);
  });
  it('takes a pickup of the singer’s for the singer', () => {
    const led = withVoice(
      { ...plain, parts: plain.parts.filter((p) => p.id !== 'V') },
      line.replace('r:4 | E4:1', 'r:3 E4:1 | E4:1'),
    );
    const version = realise(led, recipeSchema.parse({ level: 3, style: 'sing-along', key: 'Am' }), []);
    expect(version.sungMeasures.has(3)).toBe(false);
    expect(soundingNotes(version.score.parts[0]!.notes).some((n) => n.id.startsWith('v'))).toBe(false);
    expect(struck(version, 3, 1).length).toBeGreaterThan(0);
  });
  it('never rests in both hands where the source sounds and nothing is named', () => {
    const sheet = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:1 B4:1 A4:1 G4:1 | E4:2 D4:2 | C4:1 E4:1 G4:2 | C4:4',
      chords: ' | | C | C',
    });
    const version = realise(
      sheet,
      recipeSchema.parse({ level: 2, style: 'sing-along', introduction: 0 }),
      [],
    );
    for (const index of [0, 1, 2, 3])
      expect([...struck(version, index, 1), ...struck(version, index, 2)], `${index}`).not.toEqual([]);
  });
});
