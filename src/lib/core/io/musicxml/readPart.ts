/** One part of a MusicXML score: its measures one after another, and what had to be left out of them. */
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
  const leftOut: LeftOut = { unpitched: 0, tablature: 0, unreadable: { count: 0 } };
  const measures: ReadMeasure[] = [];
  return {
    add: (measure) =>
      void measures.push(readMeasure(measure, measures.length, { state, leftOut, countsAbove, part: index })),
    count: () => measures.length,
    end: (name, warnings) => {
      warnings.push(...sentencesOf(leftOut).map((s) => `${name || `Part ${index + 1}`}: ${s}`));
      return { id: id || `P${index + 1}`, name, staves: state.staves, measures: withOwnVoices(measures) };
    },
  };
}

const notes = (count: number): string => (count === 1 ? '1 note' : `${count} notes`);

const sentencesOf = ({ unpitched, tablature, unreadable }: LeftOut): string[] => [
  ...(unpitched > 0 ? [`${unpitched} unpitched notes (percussion) were left out.`] : []),
  ...(tablature > 0 ? [`${notes(tablature)} written as tablature left out.`] : []),
  ...(unreadable.count > 0
    ? [`${notes(unreadable.count)} without a usable pitch left out, the first in ${unreadable.first}.`]
    : []),
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
