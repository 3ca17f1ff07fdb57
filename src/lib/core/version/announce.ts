/** What a screen reader hears of a note: "Measure 7, beat 2, right hand, F sharp 4, quarter, finger 2, your choice, in D7, with A 3: because …". */
import { ticksOf, type Places } from '../score/places';
import { capital } from '../capital';
import { beatLength, placeInMeasure } from '../score/metre';
import { measureText } from '../score/measureText';
import { writtenValue } from '../score/notate';
import { toMidi, type Pitch } from '../theory/pitch';
import { isStruck, measureAt } from '../score/query';
import type { Measure, Note } from '../score/score';
import { chordSymbol } from '../theory/chord';
import type { WrittenVersion } from './realise';
import type { ChordSpan } from '../analysis/harmony';

const ALTERATIONS: Readonly<Record<number, string>> = {
  [-2]: ' double flat',
  [-1]: ' flat',
  1: ' sharp',
  2: ' double sharp',
};

/** "F sharp 4": signs are read out by few voices. */
const spokenPitch = ({ step, alter, octave }: Pitch): string =>
  `${step}${ALTERATIONS[alter] ?? ''} ${octave}`;

const VALUES: Readonly<Record<number, string>> = {
  1: 'whole note',
  2: 'half note',
  4: 'quarter',
  8: 'eighth',
  16: 'sixteenth',
  32: 'thirty-second',
};
const DOTS = ['', 'dotted ', 'double-dotted '] as const;

/** "dotted quarter", "eighth of a triplet", "half note, tied on" */
export function lengthText(note: Note): string {
  const value = writtenValue(note.duration, note.tuplet);
  if (!value) return 'a note';
  const name = VALUES[value.type] ?? `${value.type}th`;
  const tuplet =
    value.tuplet?.actual === 3 ? ' of a triplet' : value.tuplet ? ` of ${value.tuplet.actual}` : '';
  const tied = note.tie === 'start' || note.tie === 'both' ? ', tied on' : '';
  return `${DOTS[value.dots]}${name}${tuplet}${tied}`;
}

/** "beat 2", "beat 2 and a half", "after beat 2": where in its measure something begins. */
export function beatText(measure: Measure, onset: number): string {
  const beats = placeInMeasure(measure, onset) / beatLength(measure.time);
  const whole = Math.floor(beats + 1e-6);
  const rest = beats - whole;
  if (rest < 1e-6) return `beat ${whole + 1}`;
  return Math.abs(rest - 0.5) < 1e-6 ? `beat ${whole + 1} and a half` : `after beat ${whole + 1}`;
}

/** "D sharp 4 and F 4" */
const joined = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

type Announced = Pick<WrittenVersion, 'score' | 'fingers'> & { readonly chords?: readonly ChordSpan[] };

/** A note of a version as it is read out; `why` is added after it. */
export function announced(version: Announced, note: Note, why?: string): string {
  const measure = measureAt(version.score.measures, note.onset);
  const finger = version.fingers[note.id];
  const others = version.score.parts[0]!.notes.filter(
    (n) => n.onset === note.onset && n.staff === note.staff && n.id !== note.id && isStruck(n),
  );
  const chord = version.chords?.find(
    (c) => c.onset <= note.onset && note.onset < c.onset + c.duration,
  )?.chord;
  return (
    [
      capital(measureText(measure.number)),
      beatText(measure, note.onset),
      `${note.staff === 1 ? 'right' : 'left'} hand`,
      spokenPitch(note.pitch),
      lengthText(note),
      ...(finger ? [`finger ${finger.finger}`, finger.decided ? 'your choice' : 'suggested'] : []),
      ...(chord ? [`in ${chordSymbol(chord)}`] : []),
      ...(others.length > 0
        ? [
            `with ${joined(others.sort((a, b) => toMidi(a.pitch) - toMidi(b.pitch)).map((n) => spokenPitch(n.pitch)))}`,
          ]
        : []),
    ].join(', ') + (why ? `: ${why}` : '.')
  );
}

/** A note as it is walked to and read out where no version is at hand: its text, and where it stands. */
export interface Reading {
  readonly id: string;
  readonly onset: number;
  readonly staff: number;
  readonly midi: number;
  readonly text: string;
}

/** Everything that hands strike in some measures (first and last by index), in order of time and from below. */
export function readingOf(version: Announced, places: Places): Reading[] {
  const { measures, parts } = version.score;
  const { start, end } = ticksOf(measures, places);
  return parts[0]!.notes
    .filter((n) => isStruck(n) && n.onset >= start && n.onset < end)
    .map((n) => ({
      id: n.id,
      onset: n.onset,
      staff: n.staff,
      midi: toMidi(n.pitch),
      text: announced(version, n),
    }))
    .sort((a, b) => a.onset - b.onset || a.midi - b.midi);
}
