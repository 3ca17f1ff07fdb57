/**
 * Which decision holds in a measure: the one for the measure, else the last one for a range that has it, else the one for its
 * section, else the one for the version.
 *
 * A decision for a section holds in every section most of whose measures it was made for. So a boundary that moves by a few
 * measures takes it along, a section that is split keeps it in both halves, and one that became the smaller part of another
 * has it parked, where it is shown.
 */
import { sameData } from '../pipeline/memo';
import type { Measure } from '../score/score';
import type { Anchor } from './anchor';
import { decisionsOf } from './decide';
import type { Decision, DecisionOf, KindId } from './registry';

/** Measures of a version, and its sections by the indices of their measures. */
export interface Layout {
  readonly measures: readonly Measure[];
  readonly sections: readonly { readonly from: number; readonly to: number }[];
}

/** Indices of the first and last measure of a range (ids) in a version; undefined where it lacks either. */
export function rangeHeld(
  [from, to]: readonly [string, string],
  { measures }: Layout,
): { readonly from: number; readonly to: number } | undefined {
  const [first, last] = [measures.findIndex((m) => m.id === from), measures.findIndex((m) => m.id === to)];
  return first < 0 || last < first ? undefined : { from: first, to: last };
}

/** Indices of the sections in which a decision for the measures `from` to `to` (ids) holds. */
export function sectionsHeld([from, to]: readonly [string, string], layout: Layout): number[] {
  const held = rangeHeld([from, to], layout);
  if (!held) return [];
  return layout.sections.flatMap((section, i) => {
    const shared = Math.min(held.to, section.to) - Math.max(held.from, section.from) + 1;
    return shared * 2 > section.to - section.from + 1 ? [i] : [];
  });
}

/** What holds in each measure, by index; undefined where nothing is decided. Equal answers are the same object. */
export function valuesIn<Id extends KindId>(
  kind: Id,
  decisions: readonly Decision[],
  layout: Layout,
): readonly (DecisionOf<Id>['value'] | undefined)[] {
  const own = decisionsOf(decisions, kind);
  const values: (DecisionOf<Id>['value'] | undefined)[] = layout.measures.map(
    () => own.findLast((d) => 'version' in d.at)?.value,
  );
  for (const { at, value } of own)
    if ('section' in at)
      for (const i of sectionsHeld(at.section, layout))
        for (let m = layout.sections[i]!.from; m <= layout.sections[i]!.to; m++) values[m] = value;
  for (const { at, value } of own) {
    const range = 'range' in at ? rangeHeld(at.range, layout) : undefined;
    if (range) values.fill(value, range.from, range.to + 1);
  }
  const byMeasure = new Map(
    own.flatMap((d) => ('measure' in d.at ? [[d.at.measure, d.value] as const] : [])),
  );
  if (byMeasure.size > 0)
    layout.measures.forEach((m, i) => {
      if (byMeasure.has(m.id)) values[i] = byMeasure.get(m.id);
    });
  return sameData(values);
}

/** The anchor of a section of a version. */
export const sectionAnchor = ({ measures, sections }: Layout, index: number): Anchor => {
  const { from, to } = sections[index]!;
  return { section: [measures[from]!.id, measures[to]!.id] };
};

/** The decision of a kind for a section as it is now, whatever its measures were when it was made; the last of several. */
export const sectionDecision = <Id extends KindId>(
  decisions: readonly Decision[],
  kind: Id,
  layout: Layout,
  section: number,
): DecisionOf<Id> | undefined =>
  decisionsOf(decisions, kind).findLast(
    (d) => 'section' in d.at && sectionsHeld(d.at.section, layout).includes(section),
  );
