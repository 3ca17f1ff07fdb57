/** Where the symbols of a source and its notes disagree. */
import { measureAt, soundingNotes, type SoundingNote } from '../score/query';
import { pitchName } from '../theory/pitch';
import type { Measure, Score } from '../score/score';
import { bassOf, chordSymbol, chordTones, type Chord } from '../theory/chord';
import { pitchClass } from '../theory/fifths';
import type { ChordSpan } from './harmony';
import { hearChords, type HeardChord } from './private/hearChords';

/** A chord symbol that the notes under it contradict. */
export interface Disagreement {
  readonly measure: number;
  readonly symbol: string;
  /** What sounds instead, by name, in the order of how long. */
  readonly sounds: readonly string[];
  /** The chord that is heard, where one is. */
  readonly heard?: string;
}

/** Share of the sounding time that must belong to the chord; of a line alone, which leans and passes, less. */
const BELONGS = 0.5;
const BELONGS_ALONE = 0.15;
/** A tone is there when it has at least this share of the sounding time. */
const PRESENT = 0.08;

/** What sounds under one symbol. */
interface Sounding {
  readonly total: number;
  /** Sounding time by pitch class. */
  readonly classes: readonly number[];
  /** Names, the longest first. */
  readonly names: readonly string[];
  readonly lowest: number;
  /** Never more than one note at a time. */
  readonly isLine: boolean;
}

/**
 * Symbols that the notes under them contradict: most of what sounds is foreign to the chord, or another chord is heard
 * in full while a tone of the symbol's own triad is missing (C over A C E, C over C E♭ G).
 */
export function disagreements(score: Score, spans: readonly ChordSpan[]): Disagreement[] {
  if (!spans.some((s) => s.chord && s.from === 'symbol')) return [];
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes)).sort((a, b) => a.onset - b.onset);
  // A melody alone is no harmony: its notes are not held against the symbols one by one.
  const isAccompanied = score.parts.some((p) => p.notes.some((n) => n.staff === 2)) || score.parts.length > 1;
  const heard = isAccompanied ? hearChords({ ...score, chordSymbols: [] }) : [];
  let first = 0;
  let firstHeard = 0;
  return spans
    .flatMap((span) => byMeasure(score.measures, span))
    .flatMap((span): Disagreement[] => {
      const { measure, chord, onset, end, from } = span;
      while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= onset) first++;
      while (firstHeard < heard.length && heard[firstHeard]!.onset + heard[firstHeard]!.duration <= onset)
        firstHeard++;
      if (!chord || from !== 'symbol') return [];
      const sounding = soundingIn(notes, first, onset, end);
      if (sounding.total === 0) return [];
      const other = heardThrough(heard, firstHeard, onset, end);
      if (belongs(sounding, chord) && !(other && contradicts(sounding, chord, other))) return [];
      return [
        {
          measure,
          symbol: chordSymbol(chord),
          sounds: sounding.names.slice(0, 5),
          ...(other ? { heard: chordSymbol(other) } : {}),
        },
      ];
    });
}

/** A span cut at barlines: a symbol that holds over several measures is held against each. */
function byMeasure(measures: readonly Measure[], { onset, duration, ...span }: ChordSpan) {
  const cut = [];
  for (let i = measureAt(measures, onset).index; i < measures.length; i++) {
    const { start, length } = measures[i]!;
    if (start >= onset + duration) break;
    const [from, end] = [Math.max(onset, start), Math.min(onset + duration, start + length)];
    cut.push({ ...span, measure: i, onset: from, end });
  }
  return cut;
}

function soundingIn(notes: readonly SoundingNote[], first: number, onset: number, end: number): Sounding {
  const classes = new Array<number>(12).fill(0);
  const byName = new Map<string, number>();
  let [total, lowest, until, isLine] = [0, Infinity, -Infinity, true];
  for (let i = first; i < notes.length && notes[i]!.onset < end; i++) {
    const note = notes[i]!;
    const length = Math.min(end, note.onset + note.duration) - Math.max(onset, note.onset);
    if (length <= 0) continue;
    total += length;
    if (note.onset < until) isLine = false;
    until = Math.max(until, note.onset + note.duration);
    lowest = Math.min(lowest, note.midi);
    classes[note.midi % 12]! += length;
    const name = pitchName(note.pitch).replace(/\d+$/, '');
    byName.set(name, (byName.get(name) ?? 0) + length);
  }
  return {
    total,
    classes,
    lowest,
    isLine,
    names: [...byName].sort((a, b) => b[1] - a[1]).map(([name]) => name),
  };
}

/** The one chord that is heard through a whole span. */
function heardThrough(
  heard: readonly HeardChord[],
  first: number,
  onset: number,
  end: number,
): Chord | undefined {
  const span = heard[first];
  return span?.chord && span.onset <= onset && span.onset + span.duration >= end ? span.chord : undefined;
}

const classesOf = (chord: Chord): number[] =>
  [...chordTones(chord), ...(chord.bass === undefined ? [] : [chord.bass])].map(pitchClass);

function belongs({ classes, total, isLine }: Sounding, chord: Chord): boolean {
  const tones = new Set(classesOf(chord));
  return (
    [...tones].reduce((sum, tone) => sum + classes[tone]!, 0) / total >= (isLine ? BELONGS_ALONE : BELONGS)
  );
}

/** Another chord stands there in full, foreign tone and bass and all, and a tone of the symbol's triad does not. */
function contradicts({ classes, total, lowest }: Sounding, chord: Chord, heard: Chord): boolean {
  const isThere = (tone: number): boolean => classes[tone]! / total >= PRESENT;
  const own = new Set(classesOf(chord));
  const telling = chordTones(chord).slice(0, 3).map(pitchClass);
  const other = chordTones(heard).slice(0, 3).map(pitchClass);
  return (
    telling.some((tone) => classes[tone] === 0) &&
    other.every(isThere) &&
    other.some((tone) => !own.has(tone)) &&
    pitchClass(bassOf(heard)) === lowest % 12
  );
}
