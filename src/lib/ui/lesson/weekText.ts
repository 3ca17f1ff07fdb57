/** What is set for a week, in words. */
import { REVIEW, stepInSentence } from '$core/lessons/steps';
import { measuresText } from '$ui/text';

/** "right hand, counting aloud; then both hands slowly" */
export const shortSteps = (steps: readonly string[], nameOf: (id: string) => string): string =>
  steps.map((id) => (id === REVIEW ? 'play it again' : stepInSentence(nameOf(id)))).join('; then ');

/** The measures of a chunk in a piece, by their printed numbers. */
export function chunkText(chunk: string, ids: readonly string[], numbers: readonly string[]): string {
  const [from = '', to = from] = chunk.split('..');
  const [first, last] = [ids.indexOf(from), ids.indexOf(to)];
  return first < 0 || last < 0 ? 'measures that aren’t there any more' : measuresText(numbers, first, last);
}
