/**
 * How the chords of a piece stand on its pages: the shapes in which each chord name occurs, and what stays and what moves
 * from one chord to the next.
 */
import { pitchClassName } from '../score/pitch';
import { measureAt, soundingNotes } from '../score/query';
import type { Score } from '../score/score';
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

/** Chord names that the left hand, or whoever plays three notes at once, plays in more than one shape. */
export function shapesOf(score: Score, spans: readonly ChordSpan[]): SymbolShapes[] {
  const notes = score.parts
    .filter((p) => p.role !== 'other')
    .flatMap((part) => soundingNotes(part.notes.filter((n) => part.staves < 2 || n.staff === part.staves)))
    .sort((a, b) => a.onset - b.onset);
  const bySymbol = new Map<string, Map<string, number[]>>();
  let first = 0;
  for (const { chord, onset } of spans) {
    if (!chord) continue;
    while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= onset) first++;
    const sounding = [];
    for (let i = first; i < notes.length && notes[i]!.onset <= onset; i++)
      if (notes[i]!.onset + notes[i]!.duration > onset) sounding.push(notes[i]!);
    if (sounding.length < FEWEST_NOTES) continue;
    const shape = sounding
      .sort((a, b) => a.midi - b.midi)
      .map((n) => pitchClassName(n.pitch))
      .join(' ');
    const symbol = chordSymbol(chord);
    const shapes = bySymbol.get(symbol) ?? new Map<string, number[]>();
    bySymbol.set(
      symbol,
      shapes.set(shape, [...(shapes.get(shape) ?? []), measureAt(score.measures, onset).index]),
    );
  }
  return [...bySymbol]
    .filter(([, shapes]) => shapes.size > 1)
    .map(([symbol, shapes]) => ({
      symbol,
      shapes: [...shapes]
        .map(([names, measures]) => ({ notes: names, measures: [...new Set(measures)] }))
        .sort((a, b) => b.measures.length - a.measures.length),
    }));
}

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
