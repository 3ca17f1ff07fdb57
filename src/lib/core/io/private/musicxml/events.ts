/** The written voices of one measure of a part: chords and rests in the order they are written. */
import { endOf, measureLength, placeInMeasure } from '../../../score/metre';
import { readableValues } from '../../../score/notate';
import { toMidi } from '../../../theory/pitch';
import type { Measure, Note } from '../../../score/score';
import type { Ticks } from '../../../score/ticks';

/** Notes struck together with one value, or a rest (no notes). */
export interface WrittenEvent {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly notes: readonly Note[];
  readonly tuplet?: Note['tuplet'];
  readonly id?: string;
  readonly fullMeasure?: boolean;
}

/** A voice in one measure, none of its events overlapping the next. */
interface Lane {
  readonly voice: number;
  /** The staff on which its rests stand; notes say their own. */
  readonly staff: number;
  readonly events: readonly WrittenEvent[];
}

/**
 * The voices of a measure, those of the upper staff first. Notes of a voice that overlap without being a chord get a
 * voice of their own; every staff has at least one voice.
 */
export function lanesOf(notes: readonly Note[], staves: number): Lane[] {
  const lanes: { voice: number; events: WrittenEvent[] }[] = [];
  const voices = [...new Set(notes.map((n) => n.voice))].sort((a, b) => a - b);
  const taken = new Set(voices);
  const freeVoice = (): number => {
    let voice = 1;
    while (taken.has(voice)) voice += 1;
    taken.add(voice);
    return voice;
  };
  for (const voice of voices) {
    const own: WrittenEvent[][] = [];
    for (const event of eventsOf(notes.filter((n) => n.voice === voice))) {
      const isAfter = event.notes[0]!.grace?.after;
      const lane = own.find((l) => {
        const last = l.at(-1)!;
        return isAfter ? last.onset === event.onset : last.onset + last.duration <= event.onset;
      });
      if (lane) lane.push(event);
      else own.push([event]);
    }
    own.forEach((events, i) => lanes.push({ voice: i === 0 ? voice : freeVoice(), events }));
  }
  const placed = lanes.map((lane): Lane => ({ ...lane, staff: homeOf(lane.events) }));
  for (let staff = 1; staff <= staves; staff++)
    if (!placed.some((l) => l.staff === staff)) {
      const usual = 4 * (staff - 1) + 1;
      const voice = taken.has(usual) ? freeVoice() : usual;
      taken.add(voice);
      placed.push({ voice, staff, events: [] });
    }
  return placed.sort((a, b) => a.staff - b.staff || a.voice - b.voice);
}

/** The staff that holds most of a voice. */
function homeOf(events: readonly WrittenEvent[]): number {
  const count = new Map<number, number>();
  for (const note of events.flatMap((e) => e.notes)) count.set(note.staff, (count.get(note.staff) ?? 0) + 1);
  return [...count].reduce((a, b) => (b[1] > a[1] || (b[1] === a[1] && b[0] < a[0]) ? b : a))[0];
}

/** Chords of one voice in order of time, grace notes before or after the note they belong to. */
function eventsOf(notes: readonly Note[]): WrittenEvent[] {
  const chords = new Map<string, Note[]>();
  for (const note of notes) {
    const grace = note.grace ? `${note.grace.order}${note.grace.after ? 'after' : ''}` : '';
    const key = `${note.onset}:${note.duration}:${grace}:${note.cue ?? ''}`;
    const chord = chords.get(key);
    if (chord) chord.push(note);
    else chords.set(key, [note]);
  }
  const place = (event: WrittenEvent): number => {
    const grace = event.notes[0]!.grace;
    return !grace ? 0 : grace.after ? 1 + grace.order : grace.order - 1000;
  };
  return [...chords.values()]
    .map((chord): WrittenEvent => ({
      onset: chord[0]!.onset,
      duration: chord[0]!.duration,
      notes: [...chord].sort((a, b) => toMidi(a.pitch) - toMidi(b.pitch)),
    }))
    .sort((a, b) => a.onset - b.onset || place(a) - place(b) || a.duration - b.duration);
}

/** Fills the gaps of a voice with rests; an empty measure gets one full-measure rest. */
export function withRests(measure: Measure, lane: readonly WrittenEvent[], name: string): WrittenEvent[] {
  if (lane.length === 0)
    return [
      {
        onset: measure.start,
        duration: measure.length,
        notes: [],
        id: `r${measure.index}-${name}-0`,
        fullMeasure: measure.beginsAt === 0 && measure.length === measureLength(measure.time),
      },
    ];
  const result: WrittenEvent[] = [];
  let at = measure.start;
  let count = 0;
  const fill = (to: Ticks): void => {
    for (const duration of readableValues(
      measure.time,
      placeInMeasure(measure, at),
      placeInMeasure(measure, to),
      true,
    )) {
      result.push({ onset: at, duration, notes: [], id: `r${measure.index}-${name}-${count++}` });
      at += duration;
    }
  };
  for (const event of lane) {
    if (event.onset > at) fill(event.onset);
    result.push(event);
    at = Math.max(at, event.onset + event.duration);
  }
  if (at < endOf(measure)) fill(endOf(measure));
  return result;
}
