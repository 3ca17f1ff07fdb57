/** Which edit undo takes back, and which one redo makes again: read off the edits themselves. */

/** What undo and redo need to know of an edit. */
export interface EditKind {
  readonly number: number;
  /** The edit that this one takes back. */
  readonly undoes: number | null;
  /** The edit that this one makes again. */
  readonly redoes: number | null;
}

export interface History {
  /** The number of the edit that undo takes back. */
  readonly undo: number | undefined;
  /** The number of the edit that redo makes again. */
  readonly redo: number | undefined;
}

/** From edits in order. A new change makes what was undone before it stale: redo does not bring it back. */
export function historyOf(edits: readonly EditKind[]): History {
  const done: number[] = [];
  const undone: number[] = [];
  for (const { number, undoes, redoes } of edits) {
    if (undoes !== null) {
      done.pop();
      undone.push(undoes);
    } else if (redoes !== null) {
      undone.pop();
      done.push(redoes);
    } else {
      done.push(number);
      undone.length = 0;
    }
  }
  return { undo: done.at(-1), redo: undone.at(-1) };
}
