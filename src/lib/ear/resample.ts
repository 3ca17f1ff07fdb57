/** Samples of a microphone at the rate that the model hears, piece by piece. */
import { SAMPLE_RATE } from './model';

/** Taps of the low-pass before the rate is lowered, on each side. */
const TAPS = 16;

/** A low-pass at a share of the rate (windowed sinc, sum 1). */
function lowPass(cutoff: number): Float32Array {
  const taps = Float32Array.from({ length: 2 * TAPS + 1 }, (_, i) => {
    const x = i - TAPS;
    const sinc = x === 0 ? 2 * cutoff : Math.sin(2 * Math.PI * cutoff * x) / (Math.PI * x);
    return sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / (TAPS + 1)));
  });
  const sum = taps.reduce((a, b) => a + b, 0);
  return taps.map((tap) => tap / sum);
}

export class Resampler {
  readonly #ratio: number;
  readonly #taps: Float32Array;
  #kept = new Float32Array(0);
  /** Place of the next sample to make, in samples of what is kept. */
  #next = TAPS;

  constructor(rate: number) {
    this.#ratio = rate / SAMPLE_RATE;
    this.#taps = lowPass(Math.min(0.5, 0.45 / this.#ratio));
    this.#kept = new Float32Array(TAPS);
  }

  /** What can be made so far. */
  add(samples: Float32Array): Float32Array {
    const all = new Float32Array(this.#kept.length + samples.length);
    all.set(this.#kept);
    all.set(samples, this.#kept.length);
    const made: number[] = [];
    let at = this.#next;
    for (; at + TAPS + 1 < all.length; at += this.#ratio) {
      const whole = Math.floor(at);
      const share = at - whole;
      let value = 0;
      for (let i = -TAPS; i <= TAPS; i++) {
        const [one, two] = [all[whole + i] ?? 0, all[whole + i + 1] ?? 0];
        value += (one + share * (two - one)) * (this.#taps[i + TAPS] ?? 0);
      }
      made.push(value);
    }
    const drop = Math.max(0, Math.floor(at) - TAPS);
    this.#kept = all.slice(drop);
    this.#next = at - drop;
    return Float32Array.from(made);
  }
}
