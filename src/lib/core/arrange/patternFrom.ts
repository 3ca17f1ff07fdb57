/** A teacher's pattern taken from an example: a measure that is written, or keys that were played once over a chord. */
import { bassOf, chordSymbol, chordTones, sameChord, type Chord } from '../theory/chord';
import { fromFifths, pitchClass, type Fifths } from '../theory/fifths';
import { pitchClassName } from '../theory/pitch';
import { scaleFifths, spellInKey, type Key } from '../theory/key';
import type { ChordSpan } from '../analysis/harmony';
import { endOf } from '../score/metre';
import { soundingNotes } from '../score/query';
import type { Measure, Note } from '../score/score';
import type { Ticks } from '../score/ticks';
import {
  heightOf,
  PATTERN_UNITS,
  type PatternStep,
  type PatternTone,
  type PatternUnit,
  type TeacherPattern,
} from './teacherPattern';

/** A key of the example: when it is struck and let go, in ticks from the example's beginning. */
interface ExampleKey {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
}

export type PatternRead = TeacherPattern | { readonly problem: string };

const mod12 = (n: number): number => ((n % 12) + 12) % 12;
const mod7 = (n: number): number => ((n % 7) + 7) % 7;

/**
 * The pattern of written notes over one chord: `length` is how long it lasts, in ticks. Refused, with the reason, where a note belongs
 * neither to the chord nor to the key, or where the rhythm is no row of equal steps.
 */
export function patternFrom(
  notes: readonly ExampleKey[],
  {
    chord,
    key,
    length,
    name,
  }: { readonly chord: Chord; readonly key: Key; readonly length: Ticks; readonly name: string },
): PatternRead {
  if (notes.length === 0) return { problem: 'There are no notes to take a pattern from.' };
  const onsets = [...new Set(notes.map((n) => n.onset))].sort((a, b) => a - b);
  /** When each stroke is let go: with the next, or before it where there is a rest. */
  const ends = onsets.map((onset, i) =>
    Math.min(
      onsets[i + 1] ?? length,
      Math.max(...notes.filter((n) => n.onset === onset).map((n) => onset + n.duration)),
    ),
  );
  const unit = unitOf([...onsets, ...ends, length]) ?? unitOf([...onsets, length]);
  if (!unit)
    return { problem: 'Its rhythm mixes steps that don’t fit one note value. Type the pattern by hand.' };
  const ticks = PATTERN_UNITS[unit];
  const lowest = Math.min(...notes.map((n) => n.midi));
  const isBass = (midi: number): boolean => mod12(midi - pitchClass(bassOf(chord))) === 0;
  // The bass that is played is 1; where it is not, the one below the lowest note.
  const bass = Math.min(
    ...notes.map((n) => n.midi).filter(isBass),
    ...(notes.some((n) => isBass(n.midi)) ? [] : [lowest - mod12(lowest - pitchClass(bassOf(chord)))]),
  );
  const steps: PatternStep[] = [];
  for (const [i, onset] of onsets.entries()) {
    const struck = notes.filter((n) => n.onset === onset);
    const tones: PatternTone[] = [];
    for (const { midi } of struck) {
      const tone = toneOver(midi, bass, chord, key);
      if (!tone) {
        const spelled = pitchClassName(fromFifths(spellInKey(mod12(midi), key)));
        return { problem: `${spelled} is in neither ${chordSymbol(chord)} nor the key.` };
      }
      tones.push(tone);
    }
    steps.push({
      at: onset / ticks,
      length: Math.max(1, Math.round((ends[i]! - onset) / ticks)),
      tones: tones.sort((a, b) => heightOf(a) - heightOf(b)),
    });
  }
  return shortened({ name, unit, length: length / ticks, steps, over: 'root' });
}

/** What a measure's pattern is taken from. */
interface Example {
  readonly notes: readonly Note[];
  readonly chords: readonly ChordSpan[];
  readonly key: Key;
  readonly measure: Measure;
  /** 1 what the right hand plays, 2 what the left hand plays. */
  readonly staff: number;
  readonly name: string;
}

/** The pattern of a hand in a written measure, over the measure's first chord: as long as that chord lasts in it. */
export function patternInMeasure({ notes, chords, key, measure, staff, name }: Example): PatternRead {
  const end = endOf(measure);
  const inside = chords.filter((c) => c.chord && c.onset < end && c.onset + c.duration > measure.start);
  const chord = inside[0]?.chord;
  if (!chord) return { problem: 'There is no chord in this measure to count from.' };
  const change = inside.find((c) => c.onset > measure.start && !sameChord(c.chord, chord));
  const until = change?.onset ?? end;
  const played = soundingNotes(notes)
    .filter((n) => n.staff === staff && n.onset >= measure.start && n.onset < until)
    .map(({ onset, duration, midi }) => ({
      midi,
      onset: onset - measure.start,
      duration: Math.min(duration, until - onset),
    }));
  return patternFrom(played, { chord, key, length: until - measure.start, name });
}

/** The largest step in which all places are whole numbers. */
function unitOf(places: readonly Ticks[]): PatternUnit | undefined {
  const units = Object.entries(PATTERN_UNITS) as [PatternUnit, Ticks][];
  return units.find(([, ticks]) => places.every((tick) => tick % ticks === 0))?.[0];
}

/** What number a key is over a bass: 1, 3, 5 and 7 in the chord, 2, 4 and 6 in the key. */
function toneOver(midi: number, bass: number, chord: Chord, key: Key): PatternTone | undefined {
  const up = mod12(midi - bass);
  const octave = Math.floor((midi - bass) / 12);
  if (up === 0) return { number: 1, octave };
  const distances = chordTones(chord)
    .slice(0, 4)
    .map((tone) => mod12(pitchClass(tone) - bass))
    .filter((distance) => distance > 0)
    .sort((a, b) => a - b);
  const rung = distances.indexOf(up);
  if (rung >= 0) return { number: 2 * rung + 3, octave };
  const isHere = (tone: Fifths): boolean => mod12(pitchClass(tone) - bass) === up;
  const tone = [...chordTones(chord), ...scaleFifths(key)].find(isHere);
  if (tone === undefined) return undefined;
  const letters = mod7((tone - bassOf(chord)) * 4);
  return letters % 2 === 1 ? { number: letters + 1, octave } : undefined;
}

/** A pattern that says the same twice, said once. */
function shortened(pattern: TeacherPattern): TeacherPattern {
  const half = pattern.length / 2;
  const { steps } = pattern;
  if (!Number.isInteger(half) || steps.length % 2 === 1) return pattern;
  const [first, second] = [steps.slice(0, steps.length / 2), steps.slice(steps.length / 2)];
  const isTwice = first.every((step, i) => {
    const again = second[i];
    return JSON.stringify({ ...step, at: step.at + half }) === JSON.stringify(again);
  });
  return isTwice ? shortened({ ...pattern, length: half, steps: first }) : pattern;
}

/** A key that was played; its onset in seconds. */
export interface PlayedKey {
  readonly midi: number;
  readonly onset: number;
}

/** Keys struck within so many seconds are struck together. */
const TOGETHER = 0.05;
/** Strokes are as close as the closest up to so many times its distance. */
const AS_CLOSE = 1.4;

/**
 * What was played once over a chord: the distance of the closest strokes is one step of the note value that is given, and the last
 * stroke lasts one step.
 */
export function patternPlayed(
  played: readonly PlayedKey[],
  told: { readonly chord: Chord; readonly key: Key; readonly unit: PatternUnit; readonly name: string },
): PatternRead {
  const strokes: PlayedKey[][] = [];
  for (const key of [...played].sort((a, b) => a.onset - b.onset)) {
    const last = strokes.at(-1);
    if (last && key.onset - last[0]!.onset <= TOGETHER) last.push(key);
    else strokes.push([key]);
  }
  const starts = strokes.map((stroke) => stroke[0]!.onset);
  const gaps = starts.slice(1).map((start, i) => start - starts[i]!);
  const closest = gaps.filter((gap) => gap < AS_CLOSE * Math.min(...gaps));
  const step = closest.reduce((sum, gap) => sum + gap, 0) / closest.length;
  const ticks = PATTERN_UNITS[told.unit];
  const places = [0];
  for (const gap of gaps) places.push(places.at(-1)! + Math.max(1, Math.round(gap / step)));
  const length = places.at(-1)! + 1;
  const notes = strokes.flatMap((stroke, i) =>
    stroke.map(({ midi }) => ({
      midi,
      onset: places[i]! * ticks,
      duration: ((places[i + 1] ?? length) - places[i]!) * ticks,
    })),
  );
  return patternFrom(notes, { ...told, length: length * ticks });
}
