/** The microphone's own thread: samples in, keystrokes out. Sound is neither kept nor sent. */
import { nothing, type Listening } from '$lib/ear/listening';
import { SAMPLE_RATE } from '$lib/ear/model';
import type { Expectation } from '$core/takes/expectation';
import type { Keystroke } from '$core/takes/keystroke';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { ready, setBackend, type io } from '@tensorflow/tfjs-core';
import { z } from 'zod';

/** Where the parts of the model are. */
interface Parts {
  /** Addresses of the backend's variants, by the names that it gives them. */
  readonly wasm: Readonly<Record<string, string>>;
  readonly model: string | io.IOHandler;
}

const samplesSchema = z.instanceof(Float32Array);

async function load({ wasm, model }: Parts): Promise<GraphModel> {
  setWasmPaths({ ...wasm });
  await setBackend('wasm');
  await ready();
  return loadGraphModel(model);
}

/** What the thread does; the model is loaded when it is first asked for. */
export function hearService(parts: Parts) {
  let model: Promise<GraphModel> | undefined;
  let listening: Listening | undefined;
  const loaded = (): Promise<GraphModel> => (model ??= load(parts));
  return {
    /** Loads the model, before it is wanted. */
    async prepare(): Promise<void> {
      await loaded();
    },
    /** Begins a take of some music; `rate`: samples per second that will come. */
    async begin(expectation: Expectation, rate: number): Promise<void> {
      listening = nothing(
        await loaded(),
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
}

export type HearService = ReturnType<typeof hearService>;
