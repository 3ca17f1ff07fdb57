/** A whole recording through the model, window by window; the frames at the ends of windows, which have too little around them, are left to their neighbours. */
import type { GraphModel } from '@tensorflow/tfjs-converter';
import type { Sound } from '$core/takes/hearing';
import { FRAME, hearWindow, HOP, KEYS, MARGIN, WINDOW, WINDOW_FRAMES } from './model';

/** Frames that a window adds, and their samples. */
const STEP_FRAMES = WINDOW_FRAMES - 2 * MARGIN;
export const STEP = STEP_FRAMES * HOP;

/** One step of sound: what the model makes of it, and how loud each frame is. */
export interface SoundStep {
  readonly onsets: Float32Array;
  readonly loudness: Float32Array;
}

/** The step that begins at a sample. `samples` has what comes before and after as well. */
export async function stepOf(model: GraphModel, samples: Float32Array, begin: number): Promise<SoundStep> {
  const from = begin - MARGIN * HOP;
  const window = new Float32Array(WINDOW);
  window.set(samples.subarray(Math.max(0, from), Math.max(0, from + WINDOW)), Math.max(0, -from));
  const made = await hearWindow(model, window);
  const loudness = new Float32Array(STEP_FRAMES);
  for (let frame = 0; frame < STEP_FRAMES; frame++) {
    let power = 0;
    for (let i = 0; i < HOP; i++) power += (samples[begin + frame * HOP + i] ?? 0) ** 2;
    loudness[frame] = Math.sqrt(power / HOP);
  }
  return { onsets: made.onsets.slice(MARGIN * KEYS, (MARGIN + STEP_FRAMES) * KEYS), loudness };
}

/** Steps of sound, one after another. */
export function joined(steps: readonly SoundStep[]): Sound {
  const onsets = new Float32Array(steps.length * STEP_FRAMES * KEYS);
  const loudness = new Float32Array(steps.length * STEP_FRAMES);
  for (const [i, step] of steps.entries()) {
    onsets.set(step.onsets, i * STEP_FRAMES * KEYS);
    loudness.set(step.loudness, i * STEP_FRAMES);
  }
  return { onsets, loudness, frame: FRAME };
}

/** Samples at the model's rate, as keys over time. */
export async function soundOf(model: GraphModel, samples: Float32Array): Promise<Sound> {
  const steps: SoundStep[] = [];
  for (let begin = 0; begin < Math.max(1, samples.length); begin += STEP)
    steps.push(await stepOf(model, samples, begin));
  return joined(steps);
}
