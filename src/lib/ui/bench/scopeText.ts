/** Where something would hold, in words: "this note", "5 notes", "measures 3 to 6", "Verse", "the whole version". */
import type { Scope } from '$core/decisions/anchor';
import { measuresText } from '$ui/text';
import type { BenchState } from './state/bench.svelte';

export function scopeText(bench: BenchState, scope: Scope | undefined): string {
  const { selection, view } = bench;
  const { version } = view;
  if (!version || !selection.range || selection.measure === undefined) return '';
  const numbers = version.score.measures.map((m) => m.number);
  const { from, to } = selection.range;
  const measures = measuresText(numbers, from, to);
  const { length } = selection.notes;
  switch (scope) {
    case 'version':
      return 'the whole version';
    case 'section':
      return version.form.sections[bench.sectionOf(selection.measure)]?.label ?? '';
    case 'range':
      return measures;
    case 'measure':
      return measuresText(numbers, selection.measure, selection.measure);
    case 'note':
      return length === 1 ? 'this note' : `${length} notes`;
    case undefined:
      return length === 1 ? `At this note, or in ${measures}.` : `At ${length} notes, or in ${measures}.`;
  }
}
