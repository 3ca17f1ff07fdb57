/** This window, by a name that it keeps through reloads: undo takes back what was done in it. */
import { formToken } from '$ui/form/token';

const ID = 'keypath window';
const SINCE = 'keypath since';

/** As the server reads it (server/guard/window.ts). */
export const WINDOW_HEADER = 'x-keypath-window';

/** Used where the browser keeps nothing. */
const kept = new Map<string, string>();

function keep(key: string, make: () => string): string {
  const known = kept.get(key);
  if (known !== undefined) return known;
  let value: string | null = null;
  try {
    value = sessionStorage.getItem(key) ?? make();
    sessionStorage.setItem(key, value);
  } catch (error) {
    console.warn('This browser can’t store anything:', error);
  }
  value ??= make();
  kept.set(key, value);
  return value;
}

export const windowId = (): string => keep(ID, () => formToken().slice(0, 16));

/** The newest edit of a version when this window first opened it: `edit` where it does so now. */
export const openedAt = (versionId: string, edit: number): number =>
  Number(keep(`${SINCE} ${versionId}`, () => String(edit)));
