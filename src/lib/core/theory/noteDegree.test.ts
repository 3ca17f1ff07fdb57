import { describe, expect, it } from 'vitest';
import { parseChord } from './chordName';
import { parseKey } from './key';
import { chordTone, noteDegree } from './noteDegree';
import type { Pitch } from './pitch';

const notes = (text: string): Pick<Pitch, 'step' | 'alter'>[] =>
  text.split(' ').map((name) => ({
    step: name[0] as Pitch['step'],
    alter: name.endsWith('#') ? 1 : name.endsWith('b') ? -1 : 0,
  }));
const degrees = (text: string, key: string): string =>
  notes(text)
    .map((n) => noteDegree(n, parseKey(key)!))
    .join(' ');
const tones = (text: string, chord: string): string =>
  notes(text)
    .map((n) => chordTone(n, parseChord(chord)!))
    .join(' ');

describe('a note as a degree', () => {
  it.each([
    ['C', 'C D E F G A B', '1 2 3 4 5 6 7'],
    ['Eb', 'Eb F G Ab Bb C D', '1 2 3 4 5 6 7'],
    ['C', 'F# Bb', '♯4 ♭7'],
    ['Am', 'A C E G G#', '1 3 5 7 ♯7'],
    ['D mixolydian', 'D F# C C#', '1 3 7 ♯7'],
    ['F', 'B', '♯4'],
  ])('in %s', (key, text, expected) => expect(degrees(text, key)).toBe(expected));
});

describe('a note as a tone of its chord', () => {
  it.each([
    ['C', 'C E G', '1 3 5'],
    ['Am', 'A C E', '1 3 5'],
    ['G7', 'G B D F', '1 3 5 7'],
    ['C', 'D F A B', '(2) (4) (6) (7)'],
    ['C9', 'D', '9'],
    ['Gsus4', 'C B', '4 (3)'],
    ['Am', 'C#', '(3)'],
    ['D/F#', 'F# D', '3 1'],
  ])('of %s', (chord, text, expected) => expect(tones(text, chord)).toBe(expected));
});
