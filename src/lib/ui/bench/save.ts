/** Keeps a change of a version from the page. */
import type { Decision, Recipe } from '$core/version/recipe';

/** Resolves with the new revision; rejects with a sentence for the teacher. */
export async function saveVersion(
  id: string,
  change: { readonly recipe: Recipe; readonly decisions: readonly Decision[] },
  basedOn: number,
): Promise<number> {
  const response = await fetch(`/versions/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...change, basedOn }),
  }).catch(() => undefined);
  if (!response) throw new Error('The server cannot be reached.');
  const answer: { revision?: number; message?: string } = await response.json();
  if (answer.revision === undefined) throw new Error(answer.message ?? 'The server did not take the change.');
  return answer.revision;
}
