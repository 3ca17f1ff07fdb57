/** A take as it is heard, step by step: samples at the microphone's rate in, all keystrokes so far out. */
import type { GraphModel } from '@tensorflow/tfjs-converter';
import type { Expectation } from '$core/takes/expectation';
import { keystrokesHeard } from '$core/takes/hearing';
import type { Keystroke } from '$core/takes/keystroke';
import { Concealer } from './conceal';
import { joined, STEP, stepOf, type SoundStep } from './listen';
import { HOP, MARGIN, WINDOW } from './model';
import { Resampler } from './resample';

export interface Listening {
  /** Undefined where there is nothing new to say. */
  readonly add: (samples: Float32Array) => Promise<readonly Keystroke[] | undefined>;
  readonly end: () => Promise<readonly Keystroke[]>;
}

/** Samples that a step needs after its beginning. */
const NEEDED = WINDOW - MARGIN * HOP;

/** Begins with silence. */
export function nothing(model: GraphModel, expectation: Expectation, rate: number): Listening {
  const concealer = new Concealer(rate);
  const resampler = new Resampler(rate);
  let samples = new Float32Array(WINDOW);
  let length = 0;
  const steps: SoundStep[] = [];
  /** One after another: sound that comes while a step is worked on waits. */
  let work: Promise<unknown> = Promise.resolve();
  const heard = (): readonly Keystroke[] => keystrokesHeard(joined(steps), expectation);
  const step = async (): Promise<void> => {
    steps.push(await stepOf(model, samples.subarray(0, length), steps.length * STEP));
  };
  const inTurn = <T>(job: () => Promise<T>): Promise<T> => {
    const next = work.then(job);
    work = next.catch(() => undefined);
    return next;
  };
  return {
    add: (more) =>
      inTurn(async () => {
        const made = resampler.add(concealer.add(more));
        if (length + made.length > samples.length) {
          const longer = new Float32Array(2 * (length + made.length));
          longer.set(samples.subarray(0, length));
          samples = longer;
        }
        samples.set(made, length);
        length += made.length;
        let isNew = false;
        for (; steps.length * STEP + NEEDED <= length; isNew = true) await step();
        return isNew ? heard() : undefined;
      }),
    end: () =>
      inTurn(async () => {
        while (steps.length * STEP < length) await step();
        return heard();
      }),
  };
}
