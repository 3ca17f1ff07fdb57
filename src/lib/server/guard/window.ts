/** The window that a request comes from, as its page says (ui/shell/window.ts). */
import type { EditWindow } from '$core/edits/history';

const NAME = /^[\w-]{8,64}$/;

/** Undefined where it does not say. What it saves is its own; which edits it saw when it was opened does not matter for that. */
export function windowOf({ headers }: Request): EditWindow | undefined {
  const id = headers.get('x-keypath-window');
  return id !== null && NAME.test(id) ? { id, since: 0 } : undefined;
}
