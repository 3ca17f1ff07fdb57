/** What is set for a week, in words. */
import { placesOf } from '$core/lessons/chunkId';
import { placesText } from '$core/score/places';
import { REVIEW, stepInSentence } from '$core/lessons/steps';

/** "right hand, counting aloud; then both hands slowly" */
export const shortSteps = (steps: readonly string[], nameOf: (id: string) => string): string =>
  steps.map((id) => (id === REVIEW ? 'play it again' : stepInSentence(nameOf(id)))).join('; then ');

/** The measures of a chunk in a piece, by their printed numbers. */
export function chunkText(chunk: string, ids: readonly string[], numbers: readonly string[]): string {
  const places = placesOf(ids, chunk);
  return places ? placesText(numbers, places) : 'measures that aren’t there any more';
}
