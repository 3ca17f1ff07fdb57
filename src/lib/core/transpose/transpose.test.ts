import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchName, toMidi, STEPS, type Pitch } from '../theory/pitch';
import type { Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import { keyName, parseKey } from '../theory/key';
import { transposeByInterval } from './interval';
import { inverse, keyAbove, transposeScore, transpositionTo } from './transpose';

const key = (code: string) => parseKey(code)!;
const fourFour = { beats: 4, beatType: 4 };
const names = (score: Score): string[] => score.parts[0]!.notes.map((n) => pitchName(n.pitch));
const to = (score: Score, from: string, target: string): Score =>
  transposeScore(score, transpositionTo(key(from), key(target)));

describe('transposing', () => {
  const melody = scoreFrom({ key: 'C', time: fourFour, right: 'C4:1 E4:1 F#4:1 Bb4:1', chords: 'C Gm/Bb' });

  it('keeps the spelling functional', () => {
    expect(names(to(melody, 'C', 'E'))).toEqual(['E4', 'G♯4', 'A♯4', 'D5']);
    expect(names(to(melody, 'C', 'Ab'))).toEqual(['A♭3', 'C4', 'D4', 'G♭4']);
  });
  it('moves chords, basses and the signature along', () => {
    const moved = to(melody, 'C', 'Eb');
    expect(moved.chordSymbols.map((s) => chordSymbol(s.chord!))).toEqual(['E♭', 'B♭m/D♭']);
    expect(keyName(moved.measures[0]!.key)).toBe('E♭ major');
  });
  it('takes the nearest way, downwards when both are equally far', () => {
    expect(transpositionTo(key('C'), key('G')).semitones).toBe(-5);
    expect(transpositionTo(key('C'), key('F')).semitones).toBe(5);
    expect(transpositionTo(key('C'), key('F#')).semitones).toBe(-6);
    expect(transpositionTo(key('Am'), key('Bm')).semitones).toBe(2);
  });
  it('moves each side of a key change in the middle of a measure by its own key', () => {
    const plain = scoreFrom({ key: 'F#', time: fourFour, right: 'A#4:2 B4:2', chords: 'F#' });
    const [first] = plain.measures;
    const changing: Score = {
      ...plain,
      measures: [{ ...first!, changes: [{ onset: first!.length / 2, key: key('G') }] }],
    };
    // A tone higher F sharp goes round to A flat, G to A: the second half is not spelled by the first.
    const moved = transposeScore(changing, { semitones: 2, fifths: 2 });
    expect(keyName(moved.measures[0]!.key)).toBe('A♭ major');
    expect(moved.measures[0]!.changes!.map((c) => keyName(c.key!))).toEqual(['A major']);
    expect(names(moved)).toEqual(['C5', 'C♯5']);
  });
  it('names no chord by a double accidental where the source has none', () => {
    const chords = scoreFrom({ key: 'E', time: fourFour, right: 'E4:4 | E4:4', chords: 'G#m | B#dim/D#' });
    const symbols = transposeScore(chords, { semitones: 2, fifths: 2 }).chordSymbols;
    expect(symbols.map((s) => chordSymbol(s.chord!))).toEqual(['A♯m', 'Ddim/E♯']);
  });
  it('takes the side of F sharp or G flat that is asked for, and leaves seven accidentals alone where nothing moves', () => {
    expect(keyName(keyAbove(key('C'), 6))).toBe('F♯ major');
    expect(keyName(keyAbove(key('C'), 6, -1))).toBe('G♭ major');
    expect(keyName(keyAbove(key('C'), 1))).toBe('D♭ major');
    const seven = scoreFrom({ key: 'C#', time: fourFour, right: 'C#4:4' });
    expect(transposeScore(seven, { semitones: 12, fifths: 0 }).measures[0]!.key.fifths).toBe(7);
  });
  it('adds no double accidental where the source has none', () => {
    const sharp = scoreFrom({ key: 'E', time: fourFour, right: 'B#3:1 D#4:1 E#4:1 A#4:1' });
    const moved = to(sharp, 'E', 'F#');
    expect(moved.parts[0]!.notes.every((n) => Math.abs(n.pitch.alter) < 2)).toBe(true);
    expect(moved.parts[0]!.notes.map((n) => toMidi(n.pitch))).toEqual(
      sharp.parts[0]!.notes.map((n) => toMidi(n.pitch) + 2),
    );
  });
  it('goes round where a passage would pass six accidentals', () => {
    const score = scoreFrom({ key: 'E', time: fourFour, right: 'E4:4 | B4:4' });
    const changing: Score = {
      ...score,
      measures: score.measures.map((m, i) => (i === 1 ? { ...m, key: key('B') } : m)),
    };
    const moved = to(changing, 'E', 'F#'); // B would become C sharp with seven
    expect(moved.measures.map((m) => keyName(m.key))).toEqual(['F♯ major', 'D♭ major']);
    expect(names(moved)).toEqual(['F♯4', 'D♭5']);
  });

  it('law: there and back again gives the source', () => {
    const pitches = fc.record({
      step: fc.constantFrom(...STEPS),
      alter: fc.constantFrom(-1, 0, 1),
      octave: fc.integer({ min: 2, max: 6 }),
    });
    const codes = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb'];
    fc.assert(
      fc.property(
        fc.array(pitches, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(...codes),
        fc.constantFrom(...codes),
        (list, from, target) => {
          const base = scoreFrom({ key: from, time: fourFour, right: 'r:4', chords: 'C' });
          const source: Score = {
            ...base,
            parts: [
              {
                ...base.parts[0]!,
                notes: list.map((pitch, i) => ({
                  id: `n${i}`,
                  onset: 0,
                  duration: 40320,
                  pitch,
                  staff: 1,
                  voice: 1,
                })),
              },
            ],
          };
          const by = transpositionTo(key(from), key(target));
          expect(transposeScore(transposeScore(source, by), inverse(by)).parts).toEqual(source.parts);
        },
      ),
    );
  });
  it('law: every note moves by the same number of semitones and keeps its id', () => {
    fc.assert(
      fc.property(fc.constantFrom('G', 'Eb', 'B', 'Db', 'F#'), (target) => {
        const by = transpositionTo(key('C'), key(target));
        const moved = transposeScore(melody, by);
        moved.parts[0]!.notes.forEach((note, i) => {
          const source = melody.parts[0]!.notes[i]!;
          expect(note.id).toBe(source.id);
          expect(toMidi(note.pitch) - toMidi(source.pitch)).toBe(by.semitones);
        });
      }),
    );
  });
});

describe('intervals', () => {
  it('let the letters decide the letter', () => {
    const c4: Pitch = { step: 'C', alter: 0, octave: 4 };
    expect(pitchName(transposeByInterval(c4, { diatonic: -1, chromatic: -2 }))).toBe('B♭3');
    expect(pitchName(transposeByInterval(c4, { diatonic: 3, chromatic: 6 }))).toBe('F♯4');
    expect(pitchName(transposeByInterval(c4, { diatonic: 4, chromatic: 6 }))).toBe('G♭4');
  });
});
