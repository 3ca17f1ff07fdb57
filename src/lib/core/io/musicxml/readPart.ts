/** One part of a MusicXML score: its measures one after another, and what had to be left out of them. */
import type { ReadMeasure, ReadPart } from '../readMeasures';
import { readMeasure, startOfPart, type LeftOut } from './readMeasure';
import { childrenOf, type XmlElement } from './xml';

export interface PartOptions {
  readonly index: number;
  readonly name: string;
  /** Counts that we wrote take the first lyric line: the words begin at the second. */
  readonly countsAbove: boolean;
  readonly warnings: string[];
}

/** Reads a part. What cannot be used is counted and named in the warnings. */
export function readPart(part: XmlElement, options: PartOptions): ReadPart {
  const state = startOfPart();
  const leftOut: LeftOut = { unpitched: 0, tablature: 0, unreadable: { count: 0 } };
  const measures = childrenOf(part, 'measure').map((element, index) =>
    readMeasure(element, index, { state, leftOut, ...options, part: options.index }),
  );
  const name = options.name || `Part ${options.index + 1}`;
  const { warnings } = options;
  const notes = (count: number): string => (count === 1 ? '1 note' : `${count} notes`);
  if (leftOut.unpitched > 0)
    warnings.push(`${name}: ${leftOut.unpitched} unpitched notes (percussion) were left out.`);
  if (leftOut.tablature > 0)
    warnings.push(`${name}: ${notes(leftOut.tablature)} written as tablature left out.`);
  if (leftOut.unreadable.count > 0)
    warnings.push(
      `${name}: ${notes(leftOut.unreadable.count)} without a usable pitch left out, the first in ${leftOut.unreadable.first}.`,
    );
  return {
    id: part.attributes.id || `P${options.index + 1}`,
    name: options.name,
    staves: state.staves,
    measures: withOwnVoices(measures),
  };
}

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
