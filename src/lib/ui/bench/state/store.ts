/** Where the bench saves: the server's answers, checked. */
import type { Patch } from '$core/edits/edit';
import { documentSchema } from '$core/version/document';
import { openedAt } from '$ui/shell/window';
import { z } from 'zod';

/** A version as it is saved. `document` is there where it is not what the page expects. */
const savedSchema = z.object({
  edit: z.number().int(),
  canUndo: z.boolean(),
  canRedo: z.boolean(),
  document: documentSchema.optional(),
  refused: z.string().optional(),
});
export type SavedAnswer = z.infer<typeof savedSchema>;

/** Each rejects with a sentence for the teacher. */
export interface EditStore {
  /** Saves a change made on an edit. */
  save(patches: Patch, basedOn: number): Promise<SavedAnswer>;
  /** Takes the last change back, or makes it again. */
  step(which: 'undo' | 'redo'): Promise<SavedAnswer>;
  /** What is saved now. */
  now(): Promise<SavedAnswer>;
}

export const AWAY = 'You’re offline.';

async function ask(url: string, body?: unknown): Promise<SavedAnswer> {
  const response = await fetch(url, {
    method: body === undefined ? 'GET' : 'POST',
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  }).catch(() => undefined);
  if (!response) throw new Error(AWAY);
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) return savedSchema.parse(answer);
  const { message } = z
    .object({ message: z.string() })
    .catch({ message: 'Your change wasn’t saved. Try again.' })
    .parse(answer);
  throw new Error(message);
}

/** The edits of a version on the server, for the window that it is opened in. `edit` is the newest one on the page. */
export function serverStore(versionId: string, edit: number): EditStore {
  const url = `/versions/${versionId}/edits`;
  const since = () => openedAt(versionId, edit);
  return {
    save: (patches, basedOn) => ask(url, { patches, basedOn, since: since() }),
    step: (step) => ask(url, { step, since: since() }),
    now: () => ask(`${url}?since=${since()}`),
  };
}
