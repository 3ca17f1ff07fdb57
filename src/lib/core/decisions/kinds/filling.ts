import { z } from 'zod';
import { beatLength, endOf, measureLength, pulseLength } from '../../score/metre';
import { byMeasure, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import { notate } from '../../score/notate';
import type { Ticks } from '../../score/ticks';
import { chordTones, type Chord } from '../../theory/chord';
import { pitchClass, spellMidi, type Fifths } from '../../theory/fifths';
import { defineKind } from '../kind';
import { replaced, struckChords } from '../private/notes';
import { STAFF_VOICES } from '../private/voices';

const FILLINGS = {
  none: 'none',
  measure: 'once in each measure',
  twice: 'twice in each measure',
  beats: 'on each beat',
  broken: 'one after the other',
} as const;
type Filling = keyof typeof FILLINGS;
const FILLING_IDS = Object.keys(FILLINGS) as [Filling, ...Filling[]];

/** How far apart the strokes are. */
const UNITS: Readonly<Record<Exclude<Filling, 'none'>, (measure: Measure) => Ticks>> = {
  measure: (m) => measureLength(m.time),
  twice: (m) => measureLength(m.time) / 2,
  beats: (m) => beatLength(m.time),
  broken: (m) => pulseLength(m.time),
};

/** Lowest key under a melody, E3; least distance to the left hand and to the melody, in semitones; most keys at once. */
const LOWEST = 52;
const OVER_LEFT = 2;
const UNDER_MELODY = 3;
const MOST = 2;
/** Where the melody rests its last key bounds the strokes; before it has begun, C5. */
const USUAL_MELODY = 72;

/** Regular strokes of chord notes that the right hand plays under its melody, in place of those that come and go. */
export const filling = defineKind({
  id: 'filling',
  name: 'Chord notes under the melody',
  words: 'filling harmony fuller thinner regular strokes inner voice right hand chords',
  value: z.enum(FILLING_IDS),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `chord notes under the melody: ${FILLINGS[value]}`,
  choices: ({ isSingAlong }) => (isSingAlong ? [] : FILLING_IDS.map((id) => [id, FILLINGS[id]] as const)),
  apply(notes, held, { measures, chordAt, reach, rightNotes, refuse }) {
    const strokes = byMeasure(measures, struckChords(notes));
    const left = soundingNotes(notes).filter((n) => n.staff === 2);
    const gone: SoundingNote[] = [];
    const made: Note[] = [];
    const melody: Note[] = [];
    for (const measure of measures) {
      const value = held.measures[measure.index];
      if (!value) continue;
      const right = strokes[measure.index]!.filter((s) => s.staff === 1);
      const tops = right.map((s) => s.notes.at(-1)!);
      const before = right.flatMap((s) => s.notes.slice(0, -1));
      if (value === 'none') {
        gone.push(...before);
        continue;
      }
      const keysAt = (from: Ticks, to: Ticks): Key[] => {
        const chord = chordAt(from);
        if (!chord) return [];
        const over = tops.filter((n) => n.onset < to && n.onset + n.duration > from).map((n) => n.midi);
        const last = tops.findLast((n) => n.onset <= from)?.midi ?? USUAL_MELODY;
        const [lowestOver, highestOver] =
          over.length > 0 ? [Math.min(...over), Math.max(...over)] : [last, last];
        const under = left.filter((n) => n.onset < to && n.onset + n.duration > from).map((n) => n.midi);
        return keysBetween(
          chord,
          Math.max(LOWEST, highestOver - reach(1), ...under.map((midi) => midi + OVER_LEFT)),
          lowestOver - UNDER_MELODY,
          Math.min(MOST, rightNotes - 1),
        );
      };
      const unit = UNITS[value](measure);
      const filled = placesIn(measure, unit).flatMap((onset, i): Note[] => {
        const to = Math.min(endOf(measure), onset + unit);
        const keys = keysAt(onset, to);
        // One after the other: the lower key on the beat, the upper one between.
        const struck = value === 'broken' ? keys.slice(i % 2, (i % 2) + 1) : keys;
        return (struck.length > 0 ? struck : keys.slice(0, 1)).map(({ midi, tone }, k) => ({
          id: `U${measure.id}-${onset - measure.start}-${k}`,
          onset,
          duration: to - onset,
          pitch: spellMidi(midi, tone),
          staff: 1,
          voice: STAFF_VOICES[1][1],
        }));
      });
      if (filled.length === 0) {
        refuse(measure.index, 'there is no room between the melody and the left hand');
        continue;
      }
      gone.push(...before);
      made.push(...notate(measures, filled));
      const ids = new Set(tops.flatMap((n) => n.written));
      melody.push(...notes.filter((n) => ids.has(n.id)).map((n) => ({ ...n, voice: STAFF_VOICES[1][0] })));
    }
    const moved = new Map(melody.map((n) => [n.id, n]));
    return replaced(
      notes.map((n) => moved.get(n.id) ?? n),
      gone,
      made,
    );
  },
});

interface Key {
  readonly midi: number;
  readonly tone: Fifths;
}

/** Where in a measure is struck: at whole units of it. */
function placesIn(measure: Measure, unit: Ticks): Ticks[] {
  const places: Ticks[] = [];
  for (let place = Math.ceil(measure.beginsAt / unit) * unit; ; place += unit) {
    const tick = measure.start + place - measure.beginsAt;
    if (tick >= endOf(measure)) return places;
    places.push(tick);
  }
}

/** The highest tones of a chord between two keys that are no closer than a third, the lower first. */
function keysBetween(chord: Chord, low: number, high: number, most: number): Key[] {
  const keys: Key[] = [];
  for (let midi = high; midi >= low && keys.length < most; midi--) {
    const tone = chordTones(chord).find((t) => pitchClass(t) === midi % 12);
    const above = keys.at(-1);
    if (tone !== undefined && (!above || above.midi - midi >= UNDER_MELODY)) keys.push({ midi, tone });
  }
  return keys.reverse();
}
