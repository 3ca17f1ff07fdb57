/** Kinds that hold, fill, double and bring out: what a hand does besides its melody and its bass. */
import { describe, expect, it } from 'vitest';
import { LEVELS } from '../../arrange/levels';
import { perform } from '../../performance/perform';
import { soundingNotes } from '../../score/query';
import type { Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { pitchName } from '../../theory/pitch';
import { realise, type Version } from '../../version/realise';
import { DEFAULT_RECIPE, type Recipe } from '../../version/recipe';
import type { Decision } from '../registry';

const FOUR = { beats: 4, beatType: 4 };
const recipe: Recipe = { ...DEFAULT_RECIPE, level: 6, key: 'C', reach: { right: 9, left: 9 } };
const made = (source: Score, ...decisions: Decision[]): Version => realise(source, recipe, decisions);
/** Struck notes of a staff in a measure, in order: "C3@0/4" is C3 on the first beat for four quarters. */
const struck = ({ score }: Version, measure: number, staff: number): string[] => {
  const { start, length } = score.measures[measure]!;
  return soundingNotes(score.parts[0]!.notes)
    .filter((n) => n.staff === staff && n.onset >= start && n.onset < start + length)
    .map((n) => `${pitchName(n.pitch)}@${(n.onset - start) / Q}/${n.duration / Q}`)
    .sort((a, b) => a.localeCompare(b));
};
/** The voices in which the keys of a staff are written in the first measure. */
const voicesOf = ({ score }: Version, staff: number): Record<string, number> =>
  Object.fromEntries(
    score.parts[0]!.notes.filter((n) => n.staff === staff && n.onset < score.measures[0]!.length).map((n) => [
      pitchName(n.pitch),
      n.voice,
    ]),
  );

describe('hold and repeat', () => {
  const pop = scoreFrom({
    key: 'C',
    time: FOUR,
    right: '[C4 E4 G4]:1 [C4 E4 G4]:1 [C4 E4 G4]:1 [C4 E4 A4]:1 | [A3 C4 F4]:2 [B3 D4 G4]:1 [B3 D4 G4]:1',
    left: 'C3:1 [E3 G3]:1 C3:1 [E3 G3]:1 | F2:1 F2:1 G2:1 G2:1',
    chords: 'C | F G',
  });
  const at = { version: true as const };
  it('holds the chord while its top note is struck again, from harmony to harmony', () => {
    const version = made(pop, { kind: 'sustain', at, value: 'chord' });
    expect(struck(version, 0, 1)).toEqual(['A4@3/1', 'C4@0/4', 'E4@0/4', 'G4@0/1', 'G4@1/1', 'G4@2/1']);
    // One stroke has nothing to hold it under; the next harmony has.
    expect(struck(version, 1, 1)).toEqual([
      'A3@0/2',
      'B3@2/2',
      'C4@0/2',
      'D4@2/2',
      'F4@0/2',
      'G4@2/1',
      'G4@3/1',
    ]);
    expect(struck(version, 0, 2)).toEqual(struck(made(pop), 0, 2));
    expect(version.parked).toEqual([]);
  });
  it('writes what is held below, with separate stems', () => {
    const held = made(pop, { kind: 'sustain', at: { measure: 'm0' }, value: 'chord' });
    expect(voicesOf(held, 1)).toEqual({ C4: 2, E4: 2, G4: 1, A4: 1 });
  });
  it('holds a bass through the measure where its letter stays, and strikes what is above it', () => {
    const version = made(pop, { kind: 'sustain', at, value: 'bass' });
    expect(struck(version, 0, 2)).toEqual(['C3@0/4', 'E3@1/1', 'E3@3/1', 'G3@1/1', 'G3@3/1']);
    expect(struck(version, 1, 2)).toEqual(['F2@0/2', 'G2@2/2']);
    const both = made(pop, { kind: 'sustain', at, value: 'both' });
    expect(struck(both, 0, 1)).toContain('C4@0/4');
    expect(struck(both, 0, 2)).toContain('C3@0/4');
  });
  it('begins over where the melody comes down to what is held', () => {
    const falling = scoreFrom({
      key: 'C',
      time: FOUR,
      right: '[C4 E4 G4]:1 G4:1 D4:1 [C4 G4]:1',
      left: 'C3:4',
      chords: 'C',
    });
    expect(struck(made(falling, { kind: 'sustain', at, value: 'chord' }), 0, 1)).toEqual([
      'C4@0/2',
      'C4@3/1',
      'D4@2/1',
      'E4@0/2',
      'G4@0/1',
      'G4@1/1',
      'G4@3/1',
    ]);
  });
  it('waits where nothing is struck again, or where the hand does not reach', () => {
    const plain = scoreFrom({ key: 'C', time: FOUR, right: '[C4 E4]:4', left: 'C3:4', chords: 'C' });
    expect(made(plain, { kind: 'sustain', at: { measure: 'm0' }, value: 'chord' }).parked).toMatchObject([
      { why: 'nothing repeats here over the same chord' },
    ]);
    // The same is said where the same was decided before: a stage that is kept answers for it.
    expect(made(plain, { kind: 'sustain', at: { measure: 'm0' }, value: 'chord' }).parked).toHaveLength(1);
    const wide = scoreFrom({
      key: 'C',
      time: FOUR,
      right: 'G5:4',
      left: 'C2:1 [E3 G3]:1 [E3 G3]:1 [E3 G3]:1',
      chords: 'C',
    });
    const version = made(wide, { kind: 'sustain', at: { measure: 'm0' }, value: 'bass' });
    expect(version.parked).toMatchObject([
      { why: 'the hand can’t reach the notes above what it would hold' },
    ]);
    expect(struck(version, 0, 2)).toEqual(struck(made(wide), 0, 2));
  });
});

describe('chord notes under the melody', () => {
  const song = scoreFrom({
    key: 'C',
    time: FOUR,
    right: 'C5:1 B4:1 [E4 C5]:2 | A4:2 [F4 C5]:2',
    left: 'C3:4 | F3:4',
    chords: 'C | F',
  });
  const filled = (value: string, source = song): Version =>
    made(source, { kind: 'filling', at: { measure: 'm0' }, value } as Decision);
  it('come regularly, a third or more below the melody, in place of those that come and go', () => {
    expect(struck(filled('twice'), 0, 1)).toEqual(
      ['B4@1/1', 'C5@0/1', 'C5@2/2', 'E4@0/2', 'E4@2/2', 'G4@0/2', 'G4@2/2'].sort(),
    );
    expect(struck(filled('measure'), 0, 1).filter((n) => n.startsWith('E4'))).toEqual(['E4@0/4']);
    expect(struck(filled('beats'), 0, 1).filter((n) => n.startsWith('G4'))).toHaveLength(4);
    expect(struck(filled('beats'), 1, 1)).toEqual(struck(made(song), 1, 1));
  });
  it('are no more than the level gives the right hand', () => {
    const at3 = realise(song, { ...recipe, level: 3 }, [
      { kind: 'filling', at: { measure: 'm0' }, value: 'twice' },
    ]);
    const atOnce = struck(at3, 0, 1).filter((n) => n.includes('@0/'));
    expect(atOnce).toHaveLength(LEVELS.find((l) => l.level === 3)!.rightNotes);
  });
  it('go one after the other, the lower on the beat', () => {
    expect(struck(filled('broken'), 0, 1).filter((n) => /^[EG]4/.test(n))).toEqual(
      [0, 1, 2, 3].map((b) => `E4@${b}/0.5`).concat([0, 1, 2, 3].map((b) => `G4@${b + 0.5}/0.5`)),
    );
  });
  it('are taken away where that is chosen, and the melody stays', () => {
    expect(struck(filled('none'), 0, 1)).toEqual(['B4@1/1', 'C5@0/1', 'C5@2/2']);
  });
  it('say in which measures there is no room, where there is room in others', () => {
    const half = scoreFrom({
      key: 'C',
      time: FOUR,
      right: 'C5:4 | F4:4',
      left: 'C3:4 | B3:4',
      chords: 'C | C',
    });
    const version = made(half, { kind: 'filling', at: { version: true }, value: 'beats' });
    expect(version.parked.map((p) => p.why)).toEqual([
      'there is no room between the melody and the left hand, in measure 2',
    ]);
  });
  it('wait where there is no room, and what stood there stays', () => {
    const low = scoreFrom({ key: 'C', time: FOUR, right: '[C4 E4]:2 F4:2', left: 'B3:4', chords: 'C' });
    const version = filled('beats', low);
    expect(version.parked).toMatchObject([{ why: 'there is no room between the melody and the left hand' }]);
    expect(struck(version, 0, 1)).toEqual(struck(made(low), 0, 1));
  });
});

describe('doubling', () => {
  const riff = scoreFrom({
    key: 'C',
    time: FOUR,
    right: 'C6:4 | C5:4',
    left: '[C3 G3]:1 A3:1 G3:1 E3:1 | [C3 G3]:2 A3:2',
    chords: 'C | C',
  });
  it('has the top of the left hand an octave higher, where there is room under the right hand’s notes', () => {
    const double = made({ ...riff }, { kind: 'doubling', at: { version: true }, value: 'top' });
    expect(struck(double, 1, 1)).toEqual(['A4@2/2', 'C5@0/4', 'G4@0/2']);
    // A tenth and more away from the melody is out of reach.
    expect(struck(double, 0, 1)).toEqual(['C6@0/4']);
    const own = made(riff, { kind: 'doubling', at: { measure: 'm0' }, value: 'top' });
    expect(own.parked).toMatchObject([{ why: 'the right hand has no room for it under its notes' }]);
  });
  it('is played alone where the right hand rests', () => {
    const bare = scoreFrom({
      key: 'C',
      time: FOUR,
      right: 'C5:4 | r:4',
      left: 'C3:4 | C3:1 E3:1 G3:2',
      chords: 'C | C',
    });
    const double = made(bare, { kind: 'doubling', at: { measure: 'm1' }, value: 'top' });
    expect(struck(double, 1, 1)).toEqual(['C4@0/1', 'E4@1/1', 'G4@2/2']);
  });
});

describe('a voice that is brought out', () => {
  const song = scoreFrom({
    key: 'C',
    time: FOUR,
    right: '[E4 C5]:2 [F4 D5]:2 | [G4 E5]:4',
    left: '[C3 G3]:2 [D3 A3]:2 | [C3 G3]:4',
    chords: 'C Dm | C',
  });
  const version = made(song, { kind: 'bring out', at: { version: true }, value: 'tenor' });
  const lined = ({ score }: Version): string[] =>
    score.parts[0]!.notes.filter((n) => n.articulations?.includes('tenuto')).map((n) => pitchName(n.pitch));
  it('has a line over each of its notes and separate stems, and says so once', () => {
    expect(lined(version)).toEqual(['G3', 'A3', 'G3']);
    expect(voicesOf(version, 2)).toEqual({ C3: 6, D3: 6, G3: 5, A3: 5 });
    expect((version.score.parts[0]!.marks ?? []).filter((m) => m.kind === 'words')).toEqual([
      { kind: 'words', onset: 0, staff: 2, above: false, text: 'bring out' },
    ]);
  });
  it('is heard above the others', () => {
    const loud = (v: Version, name: number): number =>
      perform(v.score, v.feel).notes.find((n) => n.midi === name)!.velocity;
    expect(loud(version, 55) - loud(made(song), 55)).toBe(16);
    expect(loud(version, 48)).toBe(loud(made(song), 48));
  });
  it('is any of the four, or notes that are chosen', () => {
    const by = (value: string): string[] =>
      lined(made(song, { kind: 'bring out', at: { measure: 'm0' }, value } as Decision));
    expect(by('melody')).toEqual(['C5', 'D5']);
    expect(by('alto')).toEqual(['E4', 'F4']);
    expect(by('bass')).toEqual(['C3', 'D3']);
    const note = soundingNotes(made(song).score.parts[0]!.notes).find((n) => pitchName(n.pitch) === 'F4')!.id;
    const one = made(song, { kind: 'bring out', at: { note }, value: 'note' });
    expect(lined(one)).toEqual(['F4']);
    expect(voicesOf(one, 1)).toMatchObject({ F4: 2, D5: 1 });
  });
});
