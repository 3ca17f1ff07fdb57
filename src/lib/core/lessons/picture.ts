/** A path as a few letters, for lists: the measures to learn, how hard each is and how far the learner is. */
import type { Form } from '../analysis/form';
import type { MeasureState } from './progress';

/** What a list needs of a form. */
type PathForm = Pick<Form, 'firstSeen'> & {
  readonly sections: readonly Pick<Form['sections'][number], 'from' | 'to'>[];
};

export interface PathPicture {
  /** A letter for each measure to learn, "0" to "z" by difficulty; "|" between sections. */
  readonly heights: string;
  /** The first letter of each one's state, "|" between sections. */
  readonly states: string;
}

/** 36 heights over the scale of difficulty. */
const heightOf = (score: number): string =>
  Math.min(35, Math.max(0, Math.round((score / 100) * 35))).toString(36);

export function pathPicture(
  form: PathForm,
  difficulty: readonly number[],
  states: readonly MeasureState[],
): PathPicture {
  const sections = form.sections
    .map(({ from, to }) =>
      form.firstSeen.flatMap((first, i) => (first === i && i >= from && i <= to ? [i] : [])),
    )
    .filter((own) => own.length > 0);
  const letters = (letter: (measure: number) => string): string =>
    sections.map((own) => own.map(letter).join('')).join('|');
  return {
    heights: letters((i) => heightOf(difficulty[i] ?? 0)),
    states: letters((i) => (states[i] ?? 'open')[0]!),
  };
}
