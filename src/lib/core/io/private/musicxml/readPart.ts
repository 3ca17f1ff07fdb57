/** One part of a MusicXML score: its measures one after another, and what had to be left out of them. */
import { plural } from '../../../plural';
import type { TimeSignature } from '../../../score/score';
import { noteValue, type Ticks } from '../../../score/ticks';
import type { ReadMeasure, ReadPart } from '../readMeasures';
import { readMeasure, startOfPart, type LeftOut } from './readMeasure';
import type { XmlElement } from './xml';

/** A part while its measures come. */
export interface PartReader {
  /** Reads the next measure. */
  readonly add: (measure: XmlElement) => void;
  /** How many measures it has so far. */
  readonly count: () => number;
  /** The part; what could not be used is named in the warnings. */
  readonly end: (name: string, warnings: string[]) => ReadPart;
}

/** Begins a part by its place in the score. `countsAbove`: counts that we wrote take the first lyric line, the words begin at the second. */
export function partReader(id: string, index: number, countsAbove: boolean): PartReader {
  const state = startOfPart();
  const leftOut: LeftOut = {
    unpitched: 0,
    tablature: 0,
    unreadable: { count: 0 },
    lengths: { count: 0 },
  };
  const measures: ReadMeasure[] = [];
  return {
    add: (measure) =>
      void measures.push(readMeasure(measure, measures.length, { state, leftOut, countsAbove, part: index })),
    count: () => measures.length,
    end: (name, warnings) => {
      const named = state.hasTime ? measures : inOwnTime(measures, warnings);
      warnings.push(...sentencesOf(leftOut).map((s) => `${name || `Part ${index + 1}`}: ${s}`));
      return { id: id || `P${index + 1}`, name, staves: state.staves, measures: withOwnVoices(named) };
    },
  };
}

/** Measures of a part that names no metre, in the one that most of them hold. */
function inOwnTime(measures: readonly ReadMeasure[], warnings: string[]): readonly ReadMeasure[] {
  const counts = new Map<Ticks, number>();
  for (const { content } of measures) if (content > 0) counts.set(content, (counts.get(content) ?? 0) + 1);
  // One measure is too few to speak for a metre.
  const [usual, times] = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [0, 0];
  const time = times < 2 ? undefined : timeOfLength(usual);
  if (!time) return measures;
  const sentence = `The score has no time signature; ${time.beats}/${time.beatType} was taken from what its measures hold.`;
  if (!warnings.includes(sentence)) warnings.push(sentence);
  return measures.map((m) => ({ ...m, time }));
}

/** A metre of a length: in quarters where they fill it, else in eighths or sixteenths; undefined where none of them do. */
function timeOfLength(length: Ticks): TimeSignature | undefined {
  const beatType = [4, 8, 16].find((type) => length % noteValue(type) === 0);
  if (beatType === undefined) return undefined;
  const beats = length / noteValue(beatType);
  return beats <= 16 ? { beats, beatType } : undefined;
}

const notes = (count: number): string => (count === 1 ? '1 note' : `${count} notes`);

const sentencesOf = ({ unpitched, tablature, unreadable, lengths, divisions }: LeftOut): string[] => [
  ...(unpitched > 0 ? [`${unpitched} unpitched notes (percussion) were left out.`] : []),
  ...(tablature > 0 ? [`${notes(tablature)} written as tablature left out.`] : []),
  ...(unreadable.count > 0
    ? [`${notes(unreadable.count)} without a usable pitch left out, the first in ${unreadable.first}.`]
    : []),
  ...(lengths.count > 0
    ? [`${plural(lengths.count, 'negative length')} ignored, the first in ${lengths.first}.`]
    : []),
  ...(divisions === undefined
    ? []
    : [`a quarter divided by nothing in ${divisions}: what was divided before goes on.`]),
];

/**
 * A voice number stands for one voice. Where a file uses one for two staves at the same time, the notes of the lower
 * staff get the number that is usual there.
 */
function withOwnVoices(measures: readonly ReadMeasure[]): readonly ReadMeasure[] {
  const shared = new Set<number>();
  for (const { notes } of measures) {
    const sounding = notes.filter((n) => !n.grace);
    for (const lower of sounding)
      if (lower.staff > 1 && !shared.has(lower.voice))
        for (const upper of sounding)
          if (
            upper.voice === lower.voice &&
            upper.staff < lower.staff &&
            upper.onset < lower.onset + lower.duration &&
            lower.onset < upper.onset + upper.duration &&
            (upper.onset !== lower.onset || upper.duration !== lower.duration)
          )
            shared.add(lower.voice);
  }
  if (shared.size === 0) return measures;
  return measures.map((measure) => ({
    ...measure,
    notes: measure.notes.map((n) =>
      shared.has(n.voice) && n.staff > 1 ? { ...n, voice: n.voice + 4 * (n.staff - 1) } : n,
    ),
  }));
}
