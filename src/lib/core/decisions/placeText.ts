/** Where a decision holds, as a teacher says it: "measure 7, right hand, F♯4", "section B", "the whole version". */
import type { Form } from '../analysis/form';
import { pitchName } from '../theory/pitch';
import { measureAt } from '../score/query';
import type { Score } from '../score/score';
import type { Anchor } from './anchor';
import { rangeHeld, sectionsHeld } from './holds';

/** The place by the numbers and names of a version; by its ids where the version does not have it. */
export function placeText(
  at: Anchor,
  { score, form }: { readonly score: Score; readonly form: Pick<Form, 'sections'> },
): string {
  const { measures } = score;
  if ('version' in at) return 'the whole version';
  if ('note' in at) {
    const note = score.parts[0]?.notes.find((n) => n.id === at.note);
    if (!note) {
      // Not played in this version: its id still names its measure.
      const of = measures.find((m) => m.id === /[mi]\d+/.exec(at.note)?.[0]);
      return of ? `a note of measure ${of.number}` : `note ${at.note}`;
    }
    const { number } = measureAt(measures, note.onset);
    return `measure ${number}, ${note.staff === 1 ? 'right' : 'left'} hand, ${pitchName(note.pitch)}`;
  }
  if ('measure' in at) return `measure ${measures.find((m) => m.id === at.measure)?.number ?? at.measure}`;
  const layout = { measures, sections: form.sections };
  if ('range' in at) {
    const range = rangeHeld(at.range, layout);
    return range
      ? `measures ${measures[range.from]!.number} to ${measures[range.to]!.number}`
      : `measures ${at.range.join(' to ')}`;
  }
  const held = sectionsHeld(at.section, layout);
  return held.length > 0
    ? `section ${held.map((i) => form.sections[i]!.label).join(' and ')}`
    : `measures ${at.section.join(' to ')}`;
}
