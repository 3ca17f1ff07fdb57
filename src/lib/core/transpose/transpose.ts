/**
 * Transposing on the line of fifths: every pitch, chord and key moves by the same number of fifths, so the spelling
 * stays functional. Where a key would pass six accidentals it goes round by twelve fifths, its passage with it.
 */
import { keyAt } from '../score/metre';
import { toMidi, type Pitch } from '../theory/pitch';
import { measureAt } from '../score/query';
import type { Note, Score } from '../score/score';
import type { Chord } from '../theory/chord';
import { fromFifths, pitchClass, spellMidi, toFifths } from '../theory/fifths';
import { MOST_ACCIDENTALS, tonicFifths, withinSix, type Key } from '../theory/key';

export interface Transposition {
  /** Signed semitones that every pitch moves. */
  readonly semitones: number;
  /** Places on the line of fifths that the first key moves. */
  readonly fifths: number;
}

/** The nearest way from one key to another of the same mode; downwards when up and down are equally far. */
export function transpositionTo(from: Key, to: Key): Transposition {
  const up = (((pitchClass(tonicFifths(to)) - pitchClass(tonicFifths(from))) % 12) + 12) % 12;
  return { semitones: up < 6 ? up : up - 12, fifths: tonicFifths(to) - tonicFifths(from) };
}

/**
 * The key so many semitones above another, in its mode, with the fewest accidentals; where two have six, the one with sharps
 * (`side` 1) or flats (−1).
 */
export const keyAbove = (from: Key, semitones: number, side: 1 | -1 = 1): Key =>
  Array.from({ length: 2 * MOST_ACCIDENTALS + 1 }, (_, i): Key => ({
    fifths: i - MOST_ACCIDENTALS,
    mode: from.mode,
  }))
    .filter((k) => (pitchClass(tonicFifths(k)) - pitchClass(tonicFifths(from)) - semitones) % 12 === 0)
    .sort((a, b) => Math.abs(a.fifths) - Math.abs(b.fifths) || side * (b.fifths - a.fifths))[0]!;

export const inverse = ({ semitones, fifths }: Transposition): Transposition => ({
  semitones: -semitones || 0,
  fifths: -fifths || 0,
});

/** Fifths that a passage in `key` moves, going round where its signature would pass six accidentals. */
const fifthsFor = (key: Key, fifths: number): number => {
  const moved = key.fifths + fifths;
  // A key that already has seven and does not move stays what it is.
  return fifths === 0 ? 0 : withinSix(moved) - key.fifths;
};

/** The whole score moved: notes, chord symbols and keys. Note ids stay. */
export function transposeScore(score: Score, by: Transposition): Score {
  if (by.semitones === 0 && by.fifths === 0) return score;
  const shiftAt = (onset: number): number =>
    fifthsFor(keyAt(measureAt(score.measures, onset), onset), by.fifths);
  const moved = (key: Key): Key => ({ ...key, fifths: key.fifths + fifthsFor(key, by.fifths) });
  return {
    ...score,
    ...(score.home ? { home: moved(score.home) } : {}),
    measures: score.measures.map((m) => ({
      ...m,
      key: moved(m.key),
      ...(m.changes ? { changes: m.changes.map((c) => (c.key ? { ...c, key: moved(c.key) } : c)) } : {}),
    })),
    parts: score.parts.map((part) => ({
      ...part,
      notes: part.notes.map((note) => transposeNote(note, by.semitones, shiftAt(note.onset))),
    })),
    chordSymbols: score.chordSymbols.map((symbol) => ({
      ...symbol,
      chord: symbol.chord && transposeChord(symbol.chord, shiftAt(symbol.onset)),
    })),
  };
}

/** One pitch moved. */
export const transposePitch = (pitch: Pitch, { semitones, fifths }: Transposition): Pitch =>
  spellMidi(toMidi(pitch) + semitones, toFifths(pitch) + fifths);

function transposeNote(note: Note, semitones: number, fifths: number): Note {
  const { respelled, ...rest } = note;
  const original = toFifths(note.pitch) - 12 * (respelled ?? 0);
  const moved = original + fifths;
  const target = toMidi(note.pitch) + semitones;
  const alter = fromFifths(moved).alter;
  const sourceAlter = fromFifths(original).alter;
  // No double accidental where the source has none: its enharmonic twin instead, remembered for the way back.
  const twin = Math.abs(alter) > 1 && Math.abs(sourceAlter) <= 1 ? (alter > 0 ? -1 : 1) : undefined;
  const pitch: Pitch = spellMidi(target, moved + 12 * (twin ?? 0));
  return { ...rest, pitch, ...(twin ? { respelled: twin } : {}) };
}

export function transposeChord(chord: Chord, fifths: number): Chord {
  const moved = (place: number): number => {
    const result = place + fifths;
    const { alter } = fromFifths(result);
    return Math.abs(alter) > 1 && Math.abs(fromFifths(place).alter) <= 1
      ? result - 12 * Math.sign(alter)
      : result;
  };
  return {
    ...chord,
    root: moved(chord.root),
    ...(chord.bass === undefined ? {} : { bass: moved(chord.bass) }),
  };
}
