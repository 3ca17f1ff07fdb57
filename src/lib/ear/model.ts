/**
 * The pitch model of the microphone: sound in, how likely each key begins and sounds in each frame out. The model is Basic Pitch (Bittner
 * and others, ICASSP 2022; Apache-2.0, static/ear/LICENSE), 88 keys from A0, run by TensorFlow.js. Nothing but arrays goes in and out, so that it runs in
 * a worker of the page and in Node alike.
 */
import type { GraphModel } from '@tensorflow/tfjs-converter';
import { tensor3d, tidy, type Tensor } from '@tensorflow/tfjs-core';

/** Samples per second that the model hears. */
export const SAMPLE_RATE = 22050;
/** Samples from one frame to the next. */
export const HOP = 256;
/** Samples of one window: two seconds less a frame. */
export const WINDOW = 2 * SAMPLE_RATE - HOP;
/** Frames of a window. */
export const WINDOW_FRAMES = Math.ceil(WINDOW / HOP);
/** Frames at each end of a window that have too little sound around them to be believed. */
export const MARGIN = 15;
/** Seconds of one frame. */
export const FRAME = HOP / SAMPLE_RATE;
export const KEYS = 88;

/** Frames of likelihoods, 0 to 1, a row of 88 keys each. */
interface Likelihoods {
  readonly onsets: Float32Array;
  readonly sounding: Float32Array;
}

const [SOUNDING, ONSETS] = ['Identity_1', 'Identity_2'];

/** Runs one window. Shorter sound is heard as if silence followed. */
export async function hearWindow(model: GraphModel, samples: Float32Array): Promise<Likelihoods> {
  const whole = samples.length === WINDOW ? samples : new Float32Array(WINDOW);
  if (whole !== samples) whole.set(samples.subarray(0, WINDOW));
  const made = tidy(() => {
    const input = tensor3d(whole, [1, WINDOW, 1]);
    return model.execute(input, [ONSETS, SOUNDING]) as Tensor[];
  });
  const [onsets, sounding] = await Promise.all(made.map((t) => t.data()));
  for (const t of made) t.dispose();
  return { onsets: onsets as Float32Array, sounding: sounding as Float32Array };
}
