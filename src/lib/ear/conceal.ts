/**
 * A busy device drops pieces of sound: the browser then gives exact silence, which no microphone hears, and a note that goes on again after it
 * would be taken for another stroke. Such a gap is filled with the sound before it, backwards, and faded into what comes after it
 * (waveform substitution, as in Goodman and others, "Waveform substitution techniques for recovering missing speech segments in packet
 * voice communications", IEEE ASSP 34, 1986).
 */

/** Seconds of exact silence that are a gap, at least; and seconds that are filled at most: longer silence is somebody's wish. */
const [SHORTEST, LONGEST] = [0.001, 0.15];
/** Seconds in which the filling gives way to the sound after it. */
const FADE = 0.005;

export class Concealer {
  readonly #shortest: number;
  readonly #fade: number;
  /** What was given out last, the newest at the end. */
  #last: Float32Array;
  /** What was given out before the gap in hand. */
  #before: Float32Array;
  /** Samples since that gap began; 0 where there is none. */
  #since = 0;
  /** Of these, samples after its end. */
  #after = 0;

  /** `rate`: samples per second. */
  constructor(rate: number) {
    this.#shortest = Math.round(SHORTEST * rate);
    this.#fade = Math.round(FADE * rate);
    this.#last = new Float32Array(Math.round(LONGEST * rate));
    this.#before = this.#last;
  }

  /** The same samples, their gaps filled. */
  add(samples: Float32Array): Float32Array {
    const known = this.#last.length;
    const all = new Float32Array(known + samples.length);
    all.set(this.#last);
    all.set(samples, known);
    for (let at = known; at < all.length;) {
      const end = endOfSilence(all, at);
      // One that reaches the end may go on.
      const isGap = end > at && (this.#since > 0 || end === all.length || end - at >= this.#shortest);
      if (isGap) {
        if (this.#since === 0 || this.#after > 0) this.#begin(all.slice(at - known, at));
        for (; at < end; at++) all[at] = this.#filling();
      } else {
        const next = Math.max(end, at + 1);
        for (; at < next; at++) if (this.#since > 0) all[at] = this.#faded(all[at]!);
      }
    }
    this.#last = all.slice(samples.length);
    return all.subarray(known);
  }

  #begin(before: Float32Array): void {
    this.#before = before;
    this.#since = 0;
    this.#after = 0;
  }

  #filling(): number {
    return this.#before[this.#before.length - 1 - this.#since++] ?? 0;
  }

  #faded(sample: number): number {
    const filling = this.#filling();
    const share = ++this.#after / this.#fade;
    if (share >= 1) this.#since = this.#after = 0;
    return share * sample + (1 - share) * filling;
  }
}

/** The place of the first sample from a place on that is not silent. */
function endOfSilence(samples: Float32Array, from: number): number {
  let at = from;
  while (at < samples.length && samples[at] === 0) at++;
  return at;
}
