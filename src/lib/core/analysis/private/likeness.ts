/**
 * How alike two measures are. A measure is compared by what is struck in it, where and how high; moved as a whole by an
 * interval it is still like itself.
 */
import { endOf } from '../../score/metre';
import { pitchName, toMidi } from '../../theory/pitch';
import type { Note, Score } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/** One measure's struck notes. */
export interface MeasureContent {
  /** Everything that makes two measures note for note the same. */
  readonly key: string;
  /** Where there are enough of them, the same with pitches counted from the first: equal where one is the other transposed. */
  readonly shape: string;
  readonly strokes: readonly Stroke[];
}

interface Stroke {
  /** From the beginning of the measure. */
  readonly place: Ticks;
  readonly midi: number;
  readonly name: string;
}

/** Strokes from which a measure has a shape of its own, wherever it lies. */
const FEWEST_FOR_SHAPE = 3;

/** The content of every measure of a score. Of a band: its tune, note for note, and the harmony of those who accompany it. */
export function contentsOf(whole: Score): MeasureContent[] {
  const isAccompanied =
    whole.parts.some((p) => p.role === 'melody') && !whole.parts.some((p) => p.role === 'keyboard');
  const score = isAccompanied ? { ...whole, parts: whole.parts.filter((p) => p.role !== 'other') } : whole;
  const outlines = isAccompanied ? outlinesOf(whole) : [];
  const noteless = score.parts.every((p) => p.notes.length === 0);
  const byMeasure = notesByMeasure(score);
  let symbol = 0;
  return score.measures.map((m, i): MeasureContent => {
    const notes = byMeasure[i]!;
    while (symbol < score.chordSymbols.length && score.chordSymbols[symbol]!.onset < m.start) symbol++;
    const chords: string[] = [];
    for (let s = symbol; s < score.chordSymbols.length && score.chordSymbols[s]!.onset < endOf(m); s++)
      chords.push(`${score.chordSymbols[s]!.onset - m.start}${JSON.stringify(score.chordSymbols[s]!.chord)}`);
    // In a chart the chord that goes on is all that a measure without a symbol holds.
    const held =
      noteless && score.chordSymbols[symbol]?.onset !== m.start
        ? score.chordSymbols[symbol - 1]?.chord
        : undefined;
    const frame = [m.length, m.beginsAt, m.time.beats, m.time.beatType].join(' ');
    const strokes = notes
      .filter(({ note }) => note.tie !== 'stop' && note.tie !== 'both')
      .map(({ note }) => ({
        place: note.onset - m.start,
        midi: toMidi(note.pitch),
        name: pitchName(note.pitch),
      }))
      .sort((a, b) => a.place - b.place || a.midi - b.midi);
    const reference = strokes[0]?.midi ?? 0;
    const text = (from: number): string =>
      notes
        .map(
          ({ note, part }) =>
            `${part}.${note.staff}:${note.onset - m.start}+${note.duration}=${toMidi(note.pitch) - from}${note.tie ?? ''}`,
        )
        .sort()
        .join(' ');
    const key = [
      held ? JSON.stringify(held) : '',
      frame,
      m.key.fifths,
      text(0),
      ...chords,
      outlines[i] ?? '',
    ].join(' ');
    return {
      key,
      // One or two notes moved are like too much else.
      shape: strokes.length >= FEWEST_FOR_SHAPE ? `${frame} ${text(reference)}` : key,
      strokes,
    };
  });
}

/** Pitch classes that an outline names: those of a triad. */
const OUTLINED = 3;

/**
 * The harmony of each half of each measure, as the pitch classes that sound longest in it: how a chord is broken, or when a bass strikes, makes
 * no other measure of it.
 */
function outlinesOf(score: Score): string[] {
  const weights = score.measures.map(() => [new Array<number>(12).fill(0), new Array<number>(12).fill(0)]);
  for (const part of score.parts.filter((p) => p.role === 'other')) {
    let i = 0;
    for (const note of part.notes) {
      if (note.grace || note.cue) continue;
      while (i < score.measures.length - 1 && note.onset >= score.measures[i + 1]!.start) i += 1;
      const { start, length } = score.measures[i]!;
      const half = start + length / 2;
      const within = Math.max(0, Math.min(half, note.onset + note.duration) - note.onset);
      const [first, second] = weights[i]!;
      const pitchClass = toMidi(note.pitch) % 12;
      first![pitchClass]! += within;
      second![pitchClass]! += note.duration - within;
    }
  }
  return weights.map((halves) =>
    halves
      .map((w) =>
        w
          .map((weight, pitchClass) => ({ weight, pitchClass }))
          .filter(({ weight }) => weight > 0)
          .sort((a, b) => b.weight - a.weight || a.pitchClass - b.pitchClass)
          .slice(0, OUTLINED)
          .map(({ pitchClass }) => pitchClass)
          .sort((a, b) => a - b)
          .join(','),
      )
      .join(';'),
  );
}

function notesByMeasure(score: Score): { note: Note; part: number }[][] {
  const groups: { note: Note; part: number }[][] = score.measures.map(() => []);
  score.parts.forEach((part, p) => {
    let i = 0;
    for (const note of part.notes) {
      while (i < score.measures.length - 1 && note.onset >= score.measures[i + 1]!.start) i += 1;
      groups[i]!.push({ note, part: p });
    }
  });
  return groups;
}

/** 1 for the same strokes, 0 for none in common; `by` semitones are added to the earlier measure first. */
export function likeness(earlier: MeasureContent, later: MeasureContent, by = 0): number {
  if (by === 0 && earlier.key === later.key) return 1;
  const most = Math.max(earlier.strokes.length, later.strokes.length);
  if (most === 0) return earlier.shape === later.shape ? 1 : 0;
  return commonStrokes(earlier.strokes, later.strokes, by) / most;
}

/** How many strokes two measures have in common. Both are in order of place and pitch, moved or not: one walk through the two. */
export function commonStrokes(earlier: readonly Stroke[], later: readonly Stroke[], by: number): number {
  let common = 0;
  let i = 0;
  for (const { place, midi } of later) {
    let own = earlier[i];
    while (own && (own.place < place || (own.place === place && own.midi + by < midi))) own = earlier[++i];
    if (own?.place === place && own.midi + by === midi) common += 1;
  }
  return common;
}

/** The interval by which most strokes of two measures differ. */
export function shiftBetween(earlier: MeasureContent, later: MeasureContent): number {
  const count = new Map<number, number>();
  later.strokes.forEach((stroke, i) => {
    const other = earlier.strokes[i];
    if (other?.place === stroke.place)
      count.set(stroke.midi - other.midi, (count.get(stroke.midi - other.midi) ?? 0) + 1);
  });
  return [...count].sort((a, b) => b[1] - a[1] || Math.abs(a[0]) - Math.abs(b[0]))[0]?.[0] ?? 0;
}

/** Notes of the later measure that the earlier one does not have, and the other way round, by name. */
export function difference(
  earlier: MeasureContent,
  later: MeasureContent,
  by = 0,
): { readonly now: readonly string[]; readonly before: readonly string[] } {
  const at = (s: Stroke, moved: number): string => `${s.place}:${s.midi + moved}`;
  const inEarlier = new Set(earlier.strokes.map((s) => at(s, by)));
  const inLater = new Set(later.strokes.map((s) => at(s, 0)));
  return {
    now: later.strokes.filter((s) => !inEarlier.has(at(s, 0))).map((s) => s.name),
    before: earlier.strokes.filter((s) => !inLater.has(at(s, by))).map((s) => s.name),
  };
}
