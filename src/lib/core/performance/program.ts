/**
 * What is to be heard of a performance: which notes of which hands from where to where, how fast, with clicks and a measure before;
 * every event in seconds. The player reads this and nothing else, live or into a recording.
 */
import { beatLength, innerGroups, measureLength, metricalStrength, placeInMeasure } from '../score/metre';
import type { Measure, TimeSignature } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { MeasureCounts } from '../counting/count';
import type { Performance, PlayedMeasure, PlayedPedal } from './played';
import { clockOf } from './tempo';

export type Hands = 'both' | 'right' | 'left';
/** What the program plays: `none` is clicks and counts alone. */
export type PlayedHands = Hands | 'none';

/** Whether a staff is among the hands that are played. */
export const isPlayed = (staff: number, hands: PlayedHands): boolean =>
  hands === 'both' || (hands !== 'none' && (staff === 1) === (hands === 'right'));

export interface ProgramSettings {
  /** Ticks of the performance. */
  readonly from: Ticks;
  readonly to: Ticks;
  readonly hands: PlayedHands;
  /** Share of the tempo: 0.5 is half as fast. */
  readonly share: number;
  readonly click: boolean;
  /** A measure is counted before the music. */
  readonly countIn: boolean;
  /** What is said in each measure, where counts are spoken. */
  readonly counts?: readonly MeasureCounts[];
}

export interface HeardNote {
  /** Seconds from the beginning of the program. */
  readonly at: number;
  /** When the key is let go, or the pedal that holds it. */
  readonly until: number;
  readonly id: string;
  readonly midi: number;
  /** 0 to 1. */
  readonly velocity: number;
  readonly staff: number;
}

export interface Click {
  readonly at: number;
  /** The first beat of a measure, the first of a group, or another. */
  readonly weight: 'measure' | 'group' | 'beat';
}

export interface Program {
  /** In order of time. */
  readonly notes: readonly HeardNote[];
  readonly clicks: readonly Click[];
  readonly words: readonly SpokenWord[];
  /** Seconds before the music. */
  readonly begins: number;
  /** Seconds to the end of the stretch; what still rings is longer. */
  readonly ends: number;
  /** The tick of the performance at a second of the program; before the music, its first. */
  readonly tickAt: (seconds: number) => Ticks;
  /** The second at which a tick of the stretch is heard. */
  readonly secondsAt: (tick: Ticks) => number;
}

/** Strength of a beat (metre.ts) from which it begins a group. */
const GROUP = 2;
/** A key is let go so much before the next stroke on it, so that both are heard. */
const GAP = 0.02;

/** A word of the count. */
export interface SpokenWord {
  readonly at: number;
  readonly text: string;
  /** Seconds until the next word. */
  readonly room: number;
  /** It falls on no stroke: softer. */
  readonly isSoft: boolean;
}

/** The program of a stretch. `measures` are the written ones, by index of `performance.measures`. */
export function programOf(
  performance: Performance,
  measures: readonly Measure[],
  { from, to, hands, share, click, countIn, counts }: ProgramSettings,
): Program {
  const clock = clockOf(performance, share);
  const zero = clock.seconds(from);
  const beats = beatsOf(performance.measures, measures);
  const before = countIn ? beatsBefore(performance.measures, measures, from) : [];
  // The count goes at the tempo with which the music begins.
  const tick = clock.seconds(from + 1000) - zero;
  const secondsBefore = (ticks: Ticks): number => (ticks * tick) / 1000;
  const begins = before.length > 0 ? secondsBefore(from - before[0]!.tick) : 0;
  const at = (place: Ticks): number => begins + clock.seconds(place) - zero;
  const heard = performance.notes.filter((n) => n.onset >= from && n.onset < to && isPlayed(n.staff, hands));
  return {
    notes: withoutOverlaps(
      heard.map((n) => ({
        at: at(n.onset),
        until: at(Math.min(to, heldUntil(n.onset + n.duration, performance.pedals))),
        id: n.id,
        midi: n.midi,
        velocity: n.velocity / 127,
        staff: n.staff,
      })),
    ),
    clicks: [
      ...before.map(({ tick: place, weight }) => ({ at: begins - secondsBefore(from - place), weight })),
      ...(click
        ? beats
            .filter((b) => b.tick >= from && b.tick < to)
            .map(({ tick: place, weight }) => ({ at: at(place), weight }))
        : []),
    ],
    words: counts
      ? withRoom([
          ...before.map(({ tick: place, number }) => ({
            at: begins - secondsBefore(from - place),
            text: String(number),
            isSoft: false,
          })),
          ...spokenIn(performance.measures, counts)
            .filter((w) => w.tick >= from && w.tick < to)
            .map(({ tick: place, ...word }) => ({ at: at(place), ...word })),
        ])
      : [],
    begins,
    ends: at(to),
    secondsAt: at,
    tickAt: (seconds) => (seconds <= begins ? from : clock.tick(seconds - begins + zero)),
  };
}

interface Beat {
  readonly tick: Ticks;
  readonly weight: Click['weight'];
  /** Which beat of its measure it is, from 1. */
  readonly number: number;
}

/** The words of every measure as it is played. */
const spokenIn = (passes: readonly PlayedMeasure[], counts: readonly MeasureCounts[]) => {
  const byMeasure = new Map(counts.map((c) => [c.measure, c.counts]));
  return passes.flatMap(({ index, onset }) =>
    (byMeasure.get(index) ?? []).map(({ at, say, kind }) => ({
      tick: onset + at,
      text: say,
      isSoft: kind !== 'onset',
    })),
  );
};

/** Room that the last word has, in seconds. */
const LAST_ROOM = 0.5;

const withRoom = (words: readonly Omit<SpokenWord, 'room'>[]): SpokenWord[] =>
  words.map((word, i) => ({ ...word, room: (words[i + 1]?.at ?? word.at + LAST_ROOM) - word.at }));

function weightAt(time: TimeSignature, place: Ticks): Click['weight'] {
  if (place === 0) return 'measure';
  return innerGroups(time).includes(place) || metricalStrength(time, place) > GROUP ? 'group' : 'beat';
}

/** A measure of clicks alone, again and again: a metronome. `beats` a minute, of the metre's beat. */
export function clicksAlone(time: TimeSignature, beats: number): Program {
  const [beat, seconds] = [beatLength(time), 60 / beats];
  const count = Math.max(1, Math.round(measureLength(time) / beat));
  return {
    notes: [],
    clicks: Array.from({ length: count }, (_, i) => ({ at: i * seconds, weight: weightAt(time, i * beat) })),
    words: [],
    begins: 0,
    ends: count * seconds,
    tickAt: (at) => Math.round((at / seconds) * beat),
    secondsAt: (tick) => (tick / beat) * seconds,
  };
}

/** Every beat of every measure as it is played. */
const beatsOf = (passes: readonly PlayedMeasure[], measures: readonly Measure[]): Beat[] =>
  passes.flatMap(({ index, onset, length }) => {
    const measure = measures[index]!;
    const beat = beatLength(measure.time);
    const beats: Beat[] = [];
    const first = placeInMeasure(measure, measure.start);
    for (let place = Math.ceil(first / beat) * beat; place < first + length; place += beat)
      beats.push({
        tick: onset + place - first,
        weight: weightAt(measure.time, place),
        number: Math.round(place / beat) + 1,
      });
    return beats;
  });

/** A measure before a place, and what of its own measure comes before it: a pickup is counted into. */
function beatsBefore(
  passes: readonly PlayedMeasure[],
  measures: readonly Measure[],
  from: Ticks,
): readonly Beat[] {
  const pass = passes.findLast((p) => p.onset <= from) ?? passes[0];
  if (!pass) return [];
  const measure = measures[pass.index]!;
  const beat = beatLength(measure.time);
  const place = placeInMeasure(measure, measure.start) + from - pass.onset;
  const full = measureLength(measure.time);
  const beats: Beat[] = [];
  for (let at = -full; at < place; at += beat)
    beats.push({
      tick: from - place + at,
      weight: weightAt(measure.time, ((at % full) + full) % full),
      number: Math.round((((at % full) + full) % full) / beat) + 1,
    });
  return beats;
}

/** When a key that is let go at a tick falls silent: at once, or when the pedal that is down comes up. */
function heldUntil(end: Ticks, pedals: readonly PlayedPedal[]): Ticks {
  const isDown = pedals.findLast((p) => p.onset < end)?.down ?? false;
  if (!isDown) return end;
  return pedals.find((p) => p.onset >= end && !p.down)?.onset ?? Infinity;
}

/** A key that is struck again is let go before. */
function withoutOverlaps(notes: readonly HeardNote[]): HeardNote[] {
  const next = new Map<number, number>();
  return [...notes]
    .reverse()
    .map((note): HeardNote => {
      const again = next.get(note.midi);
      next.set(note.midi, note.at);
      const until = again === undefined ? note.until : Math.min(note.until, again - GAP);
      return { ...note, until: Math.max(note.at + GAP, until) };
    })
    .reverse();
}
