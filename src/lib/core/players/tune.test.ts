import { describe, expect, it } from 'vitest';
import { readMidi } from '../io/midi/read';
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { bandFile, type BandPlayer } from '../test/bandFile';
import { LEVELS } from '../arrange/levels';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { choicesFor, partChoicesSchema, proposedParts, tunePhrases, withParts } from './parts';
import { findTune } from './tune';

/** Eight measures of a tune that breathes, from a beat on. */
const sung = (from: number, by = 0): BandPlayer['notes'] =>
  [0, 16].flatMap((at) =>
    (
      [
        [0, 1, 67],
        [1, 0.5, 69],
        [1.5, 0.5, 71],
        [2, 2, 72],
        [4, 1.5, 71],
        [5.5, 0.5, 69],
        [6, 2, 67],
        [8, 1, 65],
        [9, 1, 67],
        [10, 1, 69],
        [11, 1, 65],
        [12, 3, 64],
      ] as const
    ).map(([onset, length, key]) => [from + at + onset, length, key + by] as const),
  );
const pad = (measures: number): BandPlayer['notes'] =>
  Array.from({ length: measures }, (_, i) => [60, 64, 67].map((key) => [4 * i, 4, key] as const)).flat();
const bass = (measures: number): BandPlayer['notes'] =>
  Array.from({ length: 4 * measures }, (_, i) => [i, 0.9, i % 4 === 0 ? 36 : 43] as const);
/** Sixteenths that go on and on. */
const arpeggio = (measures: number): BandPlayer['notes'] =>
  Array.from({ length: 16 * measures }, (_, i) => [i / 4, 0.25, [72, 76, 79, 84][i % 4]!] as const);

const FLUTE = 73;
const SAX = 65;
const band = (players: readonly BandPlayer[], inOneTrack = false): Score =>
  readMidi(bandFile({ players, time: [4, 4], inOneTrack })).score;
const who = (score: Score): (readonly [number, number, string])[] =>
  findTune(score).map(({ from, to, part }) => [
    from + 1,
    to + 1,
    score.parts.find((p) => p.id === part)!.name,
  ]);

describe('who has the tune', () => {
  const shared = [
    { name: 'Bass', program: 33, notes: bass(16) },
    { name: 'Pad', program: 89, notes: pad(16) },
    { name: 'Runs', program: 11, notes: arpeggio(16) },
    { name: 'Flute', program: FLUTE, notes: sung(0) },
    { name: 'Sax', program: SAX, notes: sung(32, -12) },
  ];
  it.each([false, true])('goes over where one rests and another begins (one track: %s)', (inOneTrack) => {
    const score = band(shared, inOneTrack);
    expect(score.parts).toHaveLength(5);
    expect(findTune(score).map(({ from, to, part }) => [from + 1, to + 1, part])).toEqual([
      [1, 8, 'P4'],
      [9, 16, 'P5'],
    ]);
  });
  it('says who: the tune is theirs, the others are heard for their chords', () => {
    const score = band(shared);
    expect(proposedParts(score).parts).toEqual({
      P1: 'other',
      P2: 'other',
      P3: 'other',
      P4: 'melody',
      P5: 'melody',
    });
  });
  it('stays with a tune that breathes for two measures, and leaves one that rests for eight', () => {
    const riff = (measures: number): BandPlayer['notes'] =>
      Array.from({ length: measures }, (_, i) => [4 * i, 1.5, 64 + (i % 3)] as const);
    const gaps = (measures: number): Score =>
      band([
        { name: 'Bass', program: 33, notes: bass(16 + measures) },
        { name: 'Guitar', program: 27, notes: riff(16 + measures) },
        { name: 'Voice', program: FLUTE, notes: [...sung(0), ...sung(32 + 4 * measures)] },
      ]);
    expect(who(gaps(2))).toHaveLength(1);
    expect(who(gaps(8)).map(([, , name]) => name)).toEqual(['Voice', 'Guitar', 'Voice']);
  });
  it('begins a phrase with its pickup, before the barline', () => {
    const score = band([
      { name: 'Bass', program: 33, notes: bass(16) },
      { name: 'Flute', program: FLUTE, notes: sung(0) },
      { name: 'Sax', program: SAX, notes: [[31.5, 0.5, 67], ...sung(32)] },
    ]);
    const tune = withParts(score).parts.find((p) => p.role === 'melody')!;
    const beat = score.measures[0]!.length / 4;
    expect(soundingNotes(tune.notes).some((n) => n.onset === 31.5 * beat && n.midi === 67)).toBe(true);
  });
  it('is played in one register, without leaps from one player to the next', () => {
    const score = band([
      { name: 'Bass', program: 33, notes: bass(16) },
      { name: 'Piccolo', program: 72, notes: sung(0, 24) },
      { name: 'Cello', program: 42, notes: sung(32, -24) },
    ]);
    const keys = soundingNotes(withParts(score).parts.find((p) => p.role === 'melody')!.notes).map(
      (n) => n.midi,
    );
    expect(Math.min(...keys)).toBeGreaterThanOrEqual(57);
    expect(Math.max(...keys)).toBeLessThanOrEqual(84);
    expect(keys.slice(1).every((k, i) => Math.abs(k - keys[i]!) <= 12)).toBe(true);
  });
  it('has the same music in one octave, whoever played it and whatever came before', () => {
    const score = band([
      { name: 'Bass', program: 33, notes: bass(24) },
      { name: 'Flute', program: FLUTE, notes: [...sung(0), ...sung(64)] },
      { name: 'Piccolo', program: 72, notes: sung(32, 24) },
    ]);
    const tune = soundingNotes(withParts(score).parts.find((p) => p.role === 'melody')!.notes);
    const third = tune.length / 3;
    const keys = [0, 1, 2].map((i) => tune.slice(i * third, (i + 1) * third).map((n) => n.midi));
    expect(keys[1]).toEqual(keys[0]);
    expect(keys[2]).toEqual(keys[0]);
  });
  it('is the right hand of a player with two', () => {
    const both = [...sung(0), ...sung(32), ...bass(16).filter((_, i) => i % 2 === 0)];
    const chords = pad(16).map(([at, length, key]) => [at, length, key - 12] as const);
    const score = band([
      { name: 'Keys', program: 0, notes: [...both, ...chords] },
      { name: 'Strings', program: 48, notes: pad(16) },
      { name: 'Bass', program: 33, notes: bass(16) },
    ]);
    const keys = soundingNotes(withParts(score).parts.find((p) => p.role === 'melody')!.notes).map(
      (n) => n.midi,
    );
    expect(Math.min(...keys)).toBeGreaterThanOrEqual(60);
  });
  it('is where the teacher says', () => {
    const score = band(shared);
    const choices = choicesFor(score, { parts: {}, tune: [{ from: 8, to: 11, part: 'P4' }] });
    expect(tunePhrases(score, choices).map(({ from, to, part }) => [from, to, part])).toEqual([
      [0, 11, 'P4'],
      [12, 15, 'P5'],
    ]);
  });
  it('reads choices from before a tune could be shared', () => {
    expect(partChoicesSchema.parse({ P1: 'melody' })).toEqual({ parts: { P1: 'melody' }, tune: [] });
  });
  it.each([1, 3, 6])('is what the right hand of level %i plays', (level) => {
    const version = realise(withParts(band(shared)), { ...DEFAULT_RECIPE, level }, [], LEVELS);
    const right = soundingNotes(version.score.parts[0]!.notes.filter((n) => n.staff === 1));
    const tops = new Set(right.map((n) => n.onset));
    const beat = version.score.measures[0]!.length / 4;
    expect([0, 2, 4, 32, 34].every((at) => tops.has(at * beat))).toBe(true);
    const left = version.score.parts[0]!.notes.filter((n) => n.staff === 2);
    expect(left.length).toBeGreaterThan(0);
  });
});
