/** Octaves, shared melodies, filling, introductions: what is done to a version besides its textures. */
import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { melodyOf } from '../analysis/melody';
import { readChart } from '../io/chart/read';
import { pitchName, toMidi } from '../theory/pitch';
import { byOnset, soundingNotes } from '../score/query';
import type { Note } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE, type Recipe } from '../version/recipe';
import { fillUnder } from './private/filling';
import { ceilingAt, foldMelody } from './private/foldMelody';
import { levelNumbered, levelsSchema, LEVELS } from './levels';
import { KEYBOARDS } from '../hands/register';
import { shareMelody } from './private/shareMelody';
import { withIntroduction } from './singAlong';
import { stretchesOf } from './private/stretches';

const fourFour = { beats: 4, beatType: 4 };
const named = (notes: readonly { pitch: Note['pitch'] }[]): string =>
  notes.map((n) => pitchName(n.pitch)).join(' ');
const recipe = (change: Partial<Recipe>): Recipe => ({ ...DEFAULT_RECIPE, ...change });

describe('folding a melody', () => {
  const fold = (right: string, starts: readonly number[], level = 4) =>
    foldMelody(melodyOf(scoreFrom({ key: 'C', time: fourFour, right })), {
      keyboard: KEYBOARDS[49],
      floor: 55,
      ceiling: ceilingAt(level),
      starts: starts.map((s) => s * Q),
    });
  it('leaves alone what lies well', () => {
    expect(fold('C5:2 E5:2 | G5:4', [0]).folds).toEqual([]);
  });
  it('lifts the phrases that leave no room below, and only from a phrase on', () => {
    const { notes, folds } = fold('C5:1 D5:1 E5:1 C5:1 | G4:4 | C3:1 D3:1 E3:1 C3:1 | G3:4', [0, 8]);
    expect(named(notes)).toBe('C5 D5 E5 C5 G4 C4 D4 E4 C4 G4');
    expect(folds).toEqual([{ onset: 8 * Q, octaves: 1 }]);
  });
  it('brings down what is beyond the keyboard', () => {
    const { notes } = fold('E6:2 G6:2 | C6:4', [0]);
    for (const n of notes) expect(n.midi).toBeLessThanOrEqual(KEYBOARDS[49].high);
  });
});

describe('the register of the first two levels', () => {
  it.each([
    [1, 'D5 C#5 B4 A4', -1],
    [2, 'D5 C#5 B4 A4', -1],
    [3, 'D6 C#6 B5 A5', 0],
  ])('level %i reads %s', (level, names, octaves) => {
    const { notes, folds } = foldMelody(
      melodyOf(scoreFrom({ key: 'D', time: fourFour, right: 'D6:1 C#6:1 B5:1 A5:1' })),
      { keyboard: KEYBOARDS[61], floor: 55, ceiling: ceilingAt(level), starts: [0] },
    );
    expect(notes.map((n) => pitchName(n.pitch).replace('♯', '#')).join(' ')).toBe(names);
    expect(folds[0]?.octaves ?? 0).toBe(octaves);
  });
});

describe('sharing a melody between the hands', () => {
  const share = (right: string, left: string, level = 1) => {
    const score = scoreFrom({ key: 'C', time: fourFour, right, left });
    const notes = score.parts[0]!.notes;
    return shareMelody(
      notes.filter((n) => n.staff === 1),
      notes.filter((n) => n.staff === 2),
      score.measures,
      levelNumbered(level),
    );
  };
  it('the left hand takes a low note that the right would leap for, and lets its own go', () => {
    const { melody, left, reasons } = share('G4:1 G4:1 C5:1 C4:1 | C5:4', 'C3:4 | G3:4');
    expect(named(melody)).toBe('G4 G4 C5 C5');
    expect(left.map((n) => `${pitchName(n.pitch)}@${n.onset / Q}+${n.duration / Q}`)).toEqual([
      'C3@0+3',
      'C4@3+1',
      'G3@4+4',
    ]);
    expect(reasons[0]!.reason).toContain('in the left hand');
  });
  it('also up from a low note, which the left hand then strikes', () => {
    const { melody, left } = share('G4:1 C4:1 C5:2', 'G3:4');
    expect(named(melody)).toBe('G4 C5');
    expect(named(left)).toBe('G3 C4');
  });
  it('not where the left hand has no onset to spare, nor for what is no leap', () => {
    expect(share('G4:1 G4:1 C5:1 C4:1', 'C3:2 G2:1 C3:1').melody).toHaveLength(4);
    expect(share('G4:1 A4:1 C5:1 G4:1', 'C3:4').melody).toHaveLength(4);
  });
});

describe('filling under the melody', () => {
  const fill = (right: string, left: string, chords: string, level: number, sparing = false) => {
    const score = scoreFrom({ key: 'C', time: fourFour, right, left, chords });
    const notes = soundingNotes(score.parts[0]!.notes);
    const contract = levelNumbered(level);
    const { notes: added } = fillUnder(
      notes.filter((n) => n.staff === 1),
      notes.filter((n) => n.staff === 2),
      stretchesOf(score.measures, chordsOf(score), contract),
      score.measures,
      { contract, reach: 14, sparing },
    );
    return byOnset(added).map((g) => `${named(g.notes)}@${g.onset / Q}`);
  };
  it('nothing below level 3; a third or sixth under long notes from there', () => {
    expect(fill('E5:2 D5:1 C5:1', '[C3 E3 G3]:4', 'C', 2)).toEqual([]);
    expect(fill('E5:2 D5:1 C5:1', '[C3 E3 G3]:4', 'C', 3)).toEqual(['C5@0']);
  });
  it('the chord where the left hand has gone low and left it behind', () => {
    expect(fill('G5:1 E5:1 D5:1 C5:1', 'C2:4', 'C', 3)).toEqual(['E5@0']);
    expect(fill('G5:1 E5:1 D5:1 C5:1', 'C2:4', 'C', 5)[0]).toMatch(/^C5 E5@0$/);
  });
  it('the melody stays on top, the left hand below', () => {
    for (const level of [3, 4, 5, 6])
      for (const chord of fill('A4:2 G4:2', 'C4:4', 'F', level))
        for (const name of chord.split('@')[0]!.split(' ')) expect(['F4', 'C4', 'D4', 'E4']).toContain(name);
  });
});

describe('an introduction', () => {
  it('leads from the tonic to the dominant; a pickup completes its last measure', () => {
    const song = scoreFrom({
      key: 'G',
      time: fourFour,
      pickup: 1,
      right: 'D4:1 | G4:4 | A4:4',
      chords: ' | G | D',
      sections: { 1: 'Verse' },
    });
    const longer = withIntroduction(song, { fifths: 1, mode: 'major' }, 2, [{ from: 0, label: 'Verse' }]);
    expect(longer.measures.map((m) => [m.number, m.length / Q, m.section])).toEqual([
      ['i1', 4, 'Introduction'],
      ['i2', 3, undefined],
      ['0', 1, 'Verse'],
      ['1', 4, undefined],
      ['2', 4, undefined],
    ]);
    expect(longer.parts[0]!.notes[0]!.onset).toBe(7 * Q);
  });
  it('the song keeps the sections it has without it, named or not', () => {
    const eight = (first: string): string => `${first}:4 | D5:4 | E5:2 F5:2 | G5:4`;
    const song = scoreFrom({
      key: 'C',
      time: fourFour,
      right: [eight('C5'), eight('C5'), eight('A4'), eight('A4'), eight('C5'), eight('C5')].join(' | '),
      chords: Array.from({ length: 24 }, () => 'C').join(' | '),
    });
    const labels = (style: Recipe['style']): string[] =>
      realise(song, recipe({ style, level: 3 }), []).form.sections.map((s) => s.label);
    expect(labels('solo').length).toBeGreaterThan(1);
    expect(labels('sing-along')).toEqual(['Introduction', ...labels('solo')]);
  });
  it('and the whole ends on a held chord, words above', () => {
    const { score } = readChart('Time: 4/4\nC / / / | F / / / | G7 / / / | C / / / |');
    const made = realise(score, recipe({ level: 3, style: 'sing-along' }), []);
    expect(made.introduction).toBe(2);
    expect(made.score.measures).toHaveLength(6);
    const last = made.score.parts[0]!.notes.filter((n) => n.onset >= made.score.measures.at(-1)!.start);
    expect(new Set(last.map((n) => n.onset)).size).toBe(1);
    expect(last.every((n) => n.duration === 4 * Q)).toBe(true);
  });
});

describe('levels of one’s own', () => {
  it('are kept in order, and a number only once', () => {
    const own = { ...LEVELS[1]!, level: 2.5, name: 'Almost chords' };
    expect(levelsSchema.parse([...LEVELS, own]).map((l) => l.level)).toEqual([1, 2, 2.5, 3, 4, 5, 6]);
    expect(levelsSchema.safeParse([...LEVELS, LEVELS[0]]).success).toBe(false);
    expect(levelsSchema.safeParse([{ ...own, leftNotes: 9 }]).success).toBe(false);
    expect(levelsSchema.safeParse([]).success).toBe(false);
  });
  it('are what the arranger keeps', () => {
    const song = scoreFrom({
      key: 'C',
      time: fourFour,
      right: 'E5:1 D5:1 C5:1 D5:1 | E5:4',
      chords: 'C | C',
    });
    const strict = LEVELS.map((l) => (l.level === 3 ? { ...l, leftNotes: 1, rightNotes: 1 } : l));
    const sizes = (levels: typeof LEVELS): number =>
      Math.max(
        ...byOnset(realise(song, recipe({ level: 3 }), [], levels).score.parts[0]!.notes).map(
          (g) => g.notes.filter((n) => n.staff === 1).length,
        ),
      );
    expect([sizes(LEVELS), sizes(strict)]).toEqual([2, 1]);
  });
  it('a level that is gone is the next one below', () => {
    expect(levelNumbered(4.5).level).toBe(4);
    expect(levelNumbered(9).level).toBe(6);
  });
});

describe('words', () => {
  const sungOf = (right: string, words: readonly string[], level: number): (readonly [string, string])[] => {
    const plain = scoreFrom({ key: 'C', time: fourFour, right, chords: 'C' });
    const song = {
      ...plain,
      parts: plain.parts.map((p) => ({
        ...p,
        notes: p.notes.map((n, i): Note => ({
          ...n,
          lyrics: [
            { line: 'words', verse: 1, text: words[i]!, syllabic: (['begin', 'end'] as const)[i % 2]! },
          ],
        })),
      })),
    };
    const made = realise(song, recipe({ level }), []);
    return made.score.parts[0]!.notes.flatMap((n) => n.lyrics ?? [])
      .filter((l) => l.line === 'words')
      .map((l) => [l.text, l.syllabic] as const);
  };
  it('keep a note to each syllable at every level, down to eighths', () => {
    const words = ['sun', 'rise', 'a', 'gain'];
    for (const level of [1, 2, 3, 4])
      expect(sungOf('C5:1.5 D5:0.5 E5:1 F5:1', words, level).map(([text]) => text)).toEqual(words);
  });
  it('of notes that are left out are sung on the note before', () => {
    expect(sungOf('C5:0.25 D5:0.25 E5:0.5 F5:3', ['sun', 'rise', 'a', 'gain'], 1)).toEqual([
      ['sunrise', 'single'],
      ['a', 'begin'],
      ['gain', 'end'],
    ]);
  });
});

describe('every key that a level reads', () => {
  it('without a choice the nearest key with few enough accidentals is taken, and says why', () => {
    const song = scoreFrom({ key: 'E', time: fourFour, right: 'E5:4 | B4:4', chords: 'E | E' });
    const keyAt = (level: number): number => realise(song, recipe({ level }), []).key.fifths;
    expect([1, 2, 3, 4, 5, 6].map(keyAt)).toEqual([-1, -1, -1, 4, 4, 4]);
    expect(realise(song, recipe({ level: 1 }), []).reasons[0]!.text).toContain('moved to F major');
    expect(realise(song, recipe({ level: 1, key: 'E' }), []).violations[0]!.limit).toBe(
      'accidentals in the key signature',
    );
    expect(toMidi(realise(song, recipe({ level: 1 }), []).score.parts[0]!.notes[0]!.pitch)).toBe(77);
  });
});

describe('the account of a version', () => {
  const said = (left: string | undefined, level: number): string =>
    realise(
      scoreFrom({
        key: 'C',
        time: fourFour,
        right: 'C5:1 E5:1 G5:2 | F5:2 D5:2 | C5:4',
        ...(left ? { left } : {}),
        chords: 'C | G7 | C',
      }),
      recipe({ level }),
      [],
    ).accountText;
  it('says what a bare melody was enriched by, and where notes were added', () => {
    expect(said(undefined, 5)).toMatch(
      /^Every note kept; the melody enriched by \d+ notes in the left hand and \d+ notes? below it in the right hand\.$/,
    );
    expect(said(undefined, 1)).toMatch(/the melody enriched by 3 notes in the left hand\.$/);
    // Voices that are not taken over are no bare melody.
    const voices = scoreFrom({ key: 'C', time: fourFour, right: 'C5:2 E5:2 | D5:2 B4:2 | C5:4' });
    const [melody] = voices.parts;
    const under = scoreFrom({ key: 'C', time: fourFour, right: '[C4 G4]:4 | [G3 F4]:4 | [C4 E4]:4' })
      .parts[0]!;
    const hymn = {
      ...voices,
      parts: [
        { ...melody!, role: 'melody' as const },
        {
          ...under,
          id: 'P2',
          role: 'other' as const,
          notes: under.notes.map((n) => ({ ...n, id: `u${n.id}` })),
        },
      ],
    };
    expect(realise(hymn, recipe({ level: 2 }), []).accountText).toMatch(/added \(in the left hand\)\.$/);
    expect(said('[C3 E3 G3]:2 [C3 E3 G3]:2 | [G2 B2 F3]:4 | C3:4', 2)).not.toContain('enriched');
  });
});
