/** The frame of measures that all parts share: lengths from what the longest part holds, pickups placed. */
import { measureId } from '../../score/measureId';
import { measureLength } from '../../score/metre';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import type { ReadPart } from './readMeasures';

/** Measures with their start and length, from what the parts hold. */
export function frameOf(parts: readonly ReadPart[]): Measure[] {
  const lead = parts.reduce((a, b) => (b.measures.length > a.measures.length ? b : a), parts[0]!);
  const contents = lead.measures.map((_, i) => Math.max(...parts.map((p) => p.measures[i]?.content ?? 0)));
  let start: Ticks = 0;
  let carried: Ticks = 0;
  return lead.measures.map((measure, index): Measure => {
    const full = measureLength(measure.time);
    const content = contents[index]!;
    const previous = lead.measures[index - 1];
    const barlines = Object.assign(
      {},
      ...parts.map((p) => p.measures[index]?.frame ?? {}),
    ) as Partial<Measure>;
    const cut =
      measure.implicit ||
      index === 0 ||
      index === lead.measures.length - 1 ||
      !!barlines.repeatEnd ||
      !!barlines.repeatStart ||
      !!barlines.barline ||
      !!previous?.frame.repeatEnd ||
      carried > 0;
    const short = content > 0 && content < full;
    const length = short && cut ? content : Math.max(full, content);
    // A short first measure is a pickup and ends with the barline; a short one later completes the one before it.
    const beginsAt =
      length < full
        ? index === 0 || measure.pickup
          ? full - length
          : carried > 0
            ? Math.min(carried, full - length)
            : 0
        : 0;
    carried = length < full && index > 0 && beginsAt === 0 ? length : 0;
    const section = parts.map((p) => p.measures[index]?.section).find((s) => s);
    const changes = measure.changes.map((c) => ({ ...c, onset: c.onset + start }));
    const result: Measure = {
      id: measureId(index),
      index,
      number: measure.number,
      start,
      length,
      time: measure.time,
      key: measure.key,
      beginsAt,
      ...(changes.length > 0 ? { changes } : {}),
      ...barlines,
      ...(section ? { section } : {}),
    };
    start += length;
    return result;
  });
}
