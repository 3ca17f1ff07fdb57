/** The written voices of one staff in one measure: chords and rests in the order they are written. */
import { endOf, measureLength, placeInMeasure } from '../../score/metre';
import { readableValues } from '../../score/notate';
import { toMidi } from '../../score/pitch';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/** Notes struck together with one value, or a rest (no notes). */
export interface WrittenEvent {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly notes: readonly Note[];
  readonly tuplet?: Note['tuplet'];
  readonly id?: string;
  readonly fullMeasure?: boolean;
}

/** One list of events per written voice. Notes of a voice that overlap without being a chord get a voice of their own. */
export function lanesOf(notes: readonly Note[]): WrittenEvent[][] {
  const lanes: WrittenEvent[][] = [];
  const voices = [...new Set(notes.map((n) => n.voice))].sort((a, b) => a - b);
  for (const voice of voices) {
    const own: WrittenEvent[][] = [];
    const chords = new Map<string, Note[]>();
    for (const note of notes.filter((n) => n.voice === voice)) {
      const key = `${note.onset}:${note.duration}:${note.grace ? note.id : ''}`;
      chords.set(key, [...(chords.get(key) ?? []), note]);
    }
    const events = [...chords.values()]
      .map((chord): WrittenEvent => ({
        onset: chord[0]!.onset,
        duration: chord[0]!.duration,
        notes: [...chord].sort((a, b) => toMidi(a.pitch) - toMidi(b.pitch)),
      }))
      .sort((a, b) => a.onset - b.onset || a.duration - b.duration);
    for (const event of events) {
      const lane = own.find((l) => {
        const last = l.at(-1)!;
        return last.onset + last.duration <= event.onset;
      });
      if (lane) lane.push(event);
      else own.push([event]);
    }
    lanes.push(...own);
  }
  return lanes.length > 0 ? lanes : [[]];
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
