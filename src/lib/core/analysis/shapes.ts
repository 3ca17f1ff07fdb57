/**
 * How the chords of a piece stand on its pages: the shapes in which each chord name occurs, and what stays and what moves
 * from one chord to the next.
 */
import { pitchClassName, pitchName } from '../score/pitch';
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

/** Where symbols and notes of a source disagree: a chord of which the measure has hardly a note. */
export interface Disagreement {
  readonly measure: number;
  readonly symbol: string;
  /** What sounds instead, by name, in the order of how long. */
  readonly sounds: readonly string[];
}

/** Share of the sounding time that must belong to the chord. */
const BELONGS = 0.5;

/** Symbols that the notes under them contradict. */
export function disagreements(score: Score, spans: readonly ChordSpan[]): Disagreement[] {
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes)).sort((a, b) => a.onset - b.onset);
  let first = 0;
  return spans.flatMap(({ chord, onset, duration, from }): Disagreement[] => {
    if (!chord || from !== 'symbol') return [];
    while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= onset) first++;
    const weights = new Map<string, number>();
    const tones = new Set(
      [...chordTones(chord), ...(chord.bass === undefined ? [] : [chord.bass])].map(pitchClass),
    );
    let inside = 0;
    let total = 0;
    for (let i = first; i < notes.length && notes[i]!.onset < onset + duration; i++) {
      const note = notes[i]!;
      const sounding = Math.min(onset + duration, note.onset + note.duration) - Math.max(onset, note.onset);
      if (sounding <= 0) continue;
      total += sounding;
      if (tones.has(note.midi % 12)) inside += sounding;
      const name = pitchName(note.pitch).replace(/\d+$/, '');
      weights.set(name, (weights.get(name) ?? 0) + sounding);
    }
    if (total === 0 || inside / total >= BELONGS) return [];
    const sounds = [...weights].sort((a, b) => b[1] - a[1]).map(([name]) => name);
    return [
      {
        measure: measureAt(score.measures, onset).index,
        symbol: chordSymbol(chord),
        sounds: sounds.slice(0, 5),
      },
    ];
  });
}
