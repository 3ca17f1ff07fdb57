/** The microphone's thread with everything that it needs in itself. */
import plain from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm?url';
import simd from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm?url';
import { io } from '@tensorflow/tfjs-core';
import { expose } from 'comlink';
import { hearService } from '$ui/ear/service';
import weights from '../../static/ear/group1-shard1of1.bin?url';
import described from '../../static/ear/model.json?raw';
import { z } from 'zod';

const modelSchema = z.object({
  modelTopology: z.looseObject({}),
  format: z.string(),
  generatedBy: z.string(),
  convertedBy: z.string(),
  signature: z.looseObject({}),
  weightsManifest: z.tuple([z.object({ weights: z.custom<io.WeightsManifestEntry[]>(Array.isArray) })]),
});

const model: io.IOHandler = {
  load: async () => {
    const { weightsManifest, ...facts } = modelSchema.parse(JSON.parse(described));
    return {
      ...facts,
      weightSpecs: weightsManifest[0].weights,
      weightData: await (await fetch(weights)).arrayBuffer(),
    };
  },
};

expose(
  hearService({
    // Its threads would need a server that keeps the page apart from all others; a file has none.
    wasm: {
      'tfjs-backend-wasm.wasm': plain,
      'tfjs-backend-wasm-simd.wasm': simd,
      'tfjs-backend-wasm-threaded-simd.wasm': simd,
    },
    model,
  }),
);
