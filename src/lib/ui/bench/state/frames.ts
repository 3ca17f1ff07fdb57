/** Things that are shown a few at a time: laying out all at once keeps the page from answering. */

/** Calls back when a frame has been painted; where there are no frames, in a moment. */
const afterPaint = (done: () => void): void => {
  if (typeof requestAnimationFrame === 'undefined') setTimeout(done);
  else requestAnimationFrame(() => setTimeout(done));
};

/** Milliseconds that what is out of sight may take of one frame: it is read, but neither laid out nor painted. */
const BUDGET = 10;

interface Waiting {
  readonly show: () => void;
  readonly isInSight: boolean;
}

export class Frames {
  /** What waits, in the order in which it came. */
  readonly #waiting = new Map<string, Waiting>();
  #isShowing = false;

  /**
   * Shows something as soon as a frame is free: what is in sight in a frame of its own, of the rest as much in one as it has time for.
   * What waits under the same name is not shown any more.
   */
  put(name: string, show: () => void, isInSight = true): void {
    this.#waiting.set(name, { show, isInSight });
    if (!this.#isShowing) this.#showNext();
  }

  /** Resolves when all is shown. */
  async shown(): Promise<void> {
    while (this.#isShowing) await new Promise<void>(afterPaint);
  }

  #showNext(): void {
    this.#isShowing = this.#waiting.size > 0;
    if (!this.#isShowing) return;
    const began = performance.now();
    for (const [name, { show, isInSight }] of this.#waiting) {
      this.#waiting.delete(name);
      show();
      if (isInSight || performance.now() - began > BUDGET) break;
    }
    afterPaint(() => this.#showNext());
  }
}
