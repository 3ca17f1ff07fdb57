/**
 * How the chords of a piece stand on its pages: the shapes in which each chord name occurs, and what stays and what moves
 * from one chord to the next.
 */
import { pitchClassName } from '../theory/pitch';
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordSymbol, chordTones, type Chord } from '../theory/chord';
import { fromFifths, pitchClass } from '../theory/fifths';
import type { ChordSpan } from './harmony';

export interface ChordShape {
  /** Names from the lowest note up: "C E G". */
  readonly notes: string;
  /** Measures, by index, in which the chord begins in this shape. */
  readonly measures: readonly number[];
}

export interface SymbolShapes {
  readonly symbol: string;
  /** More than one; the commonest first. */
  readonly shapes: readonly ChordShape[];
}

/** Fewer notes than these are no shape. */
const FEWEST_NOTES = 3;

/** Shapes of one hand count from so many on: the left hand's chords are an accompaniment, the right hand's may be a tune in thirds. */
const ENOUGH = { left: 2, right: 3 } as const;

/**
 * Chord names that stand in more than one shape: in the left hand, or with whoever plays three notes at once; and triads of the right
 * hand over a bass, where one name has three of them.
 */
export function shapesOf(score: Score, spans: readonly ChordSpan[]): SymbolShapes[] {
  const parts = score.parts.filter((p) => p.role !== 'other');
  const notesOf = (isRight: boolean): readonly SoundingNote[] =>
    parts
      .filter((part) => !isRight || part.staves > 1)
      .flatMap((part) =>
        soundingNotes(
          part.notes.filter((n) => (isRight ? n.staff === 1 : part.staves < 2 || n.staff === part.staves)),
        ),
      )
      .sort((a, b) => a.onset - b.onset);
  const left = manyOf(shapesWhereItBegins(score, spans, notesOf(false)), ENOUGH.left);
  const known = new Set(left.map((s) => s.symbol));
  const right = manyOf(shapesStruck(score, spans, notesOf(true)), ENOUGH.right);
  return [...left, ...right.filter((s) => !known.has(s.symbol))];
}

/** Measures (by index) of each shape of each chord name. */
type Found = Map<string, Map<string, number[]>>;

function add(found: Found, score: Score, chord: Chord, onset: Ticks, notes: readonly SoundingNote[]): void {
  if (notes.length < FEWEST_NOTES) return;
  const shape = [...notes]
    .sort((a, b) => a.midi - b.midi)
    .map((n) => pitchClassName(n.pitch))
    .join(' ');
  const symbol = chordSymbol(chord);
  const shapes = found.get(symbol) ?? new Map<string, number[]>();
  found.set(
    symbol,
    shapes.set(shape, [...(shapes.get(shape) ?? []), measureAt(score.measures, onset).index]),
  );
}

/** What sounds where a chord begins. */
function shapesWhereItBegins(
  score: Score,
  spans: readonly ChordSpan[],
  notes: readonly SoundingNote[],
): Found {
  const found: Found = new Map();
  let first = 0;
  for (const { chord, onset } of spans) {
    if (!chord) continue;
    while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= onset) first++;
    const sounding: SoundingNote[] = [];
    for (let i = first; i < notes.length && notes[i]!.onset <= onset; i++)
      if (notes[i]!.onset + notes[i]!.duration > onset) sounding.push(notes[i]!);
    add(found, score, chord, onset, sounding);
  }
  return found;
}

/** What is struck together while a chord lasts, and belongs to it: a voicing need not wait for a new name. */
function shapesStruck(score: Score, spans: readonly ChordSpan[], notes: readonly SoundingNote[]): Found {
  const found: Found = new Map();
  let at = 0;
  for (const { onset, notes: struck } of byOnset(notes)) {
    while (at < spans.length && spans[at]!.onset + spans[at]!.duration <= onset) at++;
    const chord = spans[at]?.chord;
    if (!chord) continue;
    const tones = new Set(chordTones(chord).map(pitchClass));
    if (struck.every((n) => tones.has(n.midi % 12))) add(found, score, chord, onset, struck);
  }
  return found;
}

/** Chord names with at least so many shapes, the commonest shape first. */
const manyOf = (found: Found, enough: number): SymbolShapes[] =>
  [...found]
    .filter(([, shapes]) => shapes.size >= enough)
    .map(([symbol, shapes]) => ({
      symbol,
      shapes: [...shapes]
        .map(([names, measures]) => ({ notes: names, measures: [...new Set(measures)] }))
        .sort((a, b) => b.measures.length - a.measures.length),
    }));

/** Tones that two chords share, and those that the second has instead, by name. */
export function commonTones(
  before: Chord,
  after: Chord,
): { readonly stay: readonly string[]; readonly move: readonly string[] } {
  const classes = new Set(chordTones(before).map(pitchClass));
  const named = (tones: readonly number[]): string[] => tones.map((t) => pitchClassName(fromFifths(t)));
  const tones = chordTones(after);
  return {
    stay: named(tones.filter((t) => classes.has(pitchClass(t)))),
    move: named(tones.filter((t) => !classes.has(pitchClass(t)))),
  };
}
