/** Which edit undo takes back, and which one redo makes again: read off the edits themselves. */

/** What undo and redo need to know of an edit. */
export interface EditKind {
  readonly number: number;
  /** The edit that this one takes back. */
  readonly undoes: number | null;
  /** The edit that this one makes again. */
  readonly redoes: number | null;
  /** The window in which it was made. */
  readonly window?: string | null;
}

/** A window, and the newest edit there was when it was opened: what was done until then is as good as its own. */
export interface EditWindow {
  readonly id: string;
  readonly since: number;
}

interface History {
  /** The number of the edit that undo takes back. */
  readonly undo: number | undefined;
  /** The number of the edit that redo makes again. */
  readonly redo: number | undefined;
}

/**
 * From edits in order, for one window: it takes back what was done in it, or before it was opened, and not what another window has done
 * meanwhile. Without a window all edits count. A new change makes what was undone before it stale: redo does not bring it back.
 */
export function historyOf(edits: readonly EditKind[], of?: EditWindow): History {
  const done: number[] = [];
  const undone: number[] = [];
  for (const { number, undoes, redoes, window } of edits) {
    const isOwn = !of || number <= of.since || window === of.id;
    if (undoes !== null) {
      // Whichever window has taken it back: it is not there to be taken back again.
      const at = done.lastIndexOf(undoes);
      if (at >= 0) done.splice(at, 1);
      if (isOwn) undone.push(undoes);
    } else if (redoes !== null) {
      const at = undone.lastIndexOf(redoes);
      if (at >= 0) undone.splice(at, 1);
      if (isOwn) done.push(redoes);
    } else if (isOwn) {
      done.push(number);
      undone.length = 0;
    }
  }
  return { undo: done.at(-1), redo: undone.at(-1) };
}
