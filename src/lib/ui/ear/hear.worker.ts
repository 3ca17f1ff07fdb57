/** The microphone's own thread: samples in, keystrokes out. Sound is neither kept nor sent. */
import { nothing, type Listening } from '$lib/ear/listening';
import { SAMPLE_RATE } from '$lib/ear/model';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import plain from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm?url';
import threaded from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-threaded-simd.wasm?url';
import simd from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm?url';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { ready, setBackend } from '@tensorflow/tfjs-core';
import type { Expectation } from '$core/takes/expectation';
import type { Keystroke } from '$core/takes/keystroke';
import { expose } from 'comlink';
import { z } from 'zod';

let model: Promise<GraphModel> | undefined;
let listening: Listening | undefined;

async function load(): Promise<GraphModel> {
  setWasmPaths({
    'tfjs-backend-wasm.wasm': plain,
    'tfjs-backend-wasm-simd.wasm': simd,
    'tfjs-backend-wasm-threaded-simd.wasm': threaded,
  });
  await setBackend('wasm');
  await ready();
  return loadGraphModel('/ear/model.json');
}

const samplesSchema = z.instanceof(Float32Array);

const service = {
  /** Loads the model, before it is wanted. */
  async prepare(): Promise<void> {
    await (model ??= load());
  },
  /** Begins a take of some music; `rate`: samples per second that will come. */
  async begin(expectation: Expectation, rate: number): Promise<void> {
    listening = nothing(
      await (model ??= load()),
      expectation,
      z
        .number()
        .min(SAMPLE_RATE / 4)
        .parse(rate),
    );
  },
  /** More sound; all keystrokes so far, where there is something new to say. */
  add: async (samples: unknown): Promise<readonly Keystroke[] | undefined> =>
    listening?.add(samplesSchema.parse(samples)),
  /** The take is over. */
  end: async (): Promise<readonly Keystroke[]> => (await listening?.end()) ?? [],
};

export type HearService = typeof service;
expose(service);
