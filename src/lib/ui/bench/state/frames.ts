/** Things that are shown, each in a frame of its own: laying out all at once keeps the page from answering. */

/** Calls back when a frame has been painted; where there are no frames, in a moment. */
const afterPaint = (done: () => void): void => {
  if (typeof requestAnimationFrame === 'undefined') setTimeout(done);
  else requestAnimationFrame(() => setTimeout(done));
};

export class OnePerFrame {
  /** What waits, in the order in which it came. */
  readonly #waiting = new Map<string, () => void>();
  #isShowing = false;

  /** Shows something as soon as a frame is free; what waits under the same name is not shown any more. */
  put(name: string, show: () => void): void {
    this.#waiting.set(name, show);
    if (!this.#isShowing) this.#showNext();
  }

  /** Resolves when all is shown. */
  async shown(): Promise<void> {
    while (this.#isShowing) await new Promise<void>(afterPaint);
  }

  #showNext(): void {
    const [next] = this.#waiting;
    this.#isShowing = next !== undefined;
    if (!next) return;
    const [name, show] = next;
    this.#waiting.delete(name);
    show();
    afterPaint(() => this.#showNext());
  }
}
