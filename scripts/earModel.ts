/** The microphone's model in Node, for measuring: the same files and the same backend as in the page. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { ready, setBackend } from '@tensorflow/tfjs-core';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';

const FOLDER = 'static/ear';

export async function earModel(): Promise<GraphModel> {
  setWasmPaths(`${dirname(createRequire(import.meta.url).resolve('@tensorflow/tfjs-backend-wasm'))}/`);
  await setBackend('wasm');
  await ready();
  const { modelTopology, weightsManifest } = JSON.parse(readFileSync(`${FOLDER}/model.json`, 'utf8')) as {
    modelTopology: object;
    weightsManifest: { weights: never[] }[];
  };
  const weights = readFileSync(`${FOLDER}/group1-shard1of1.bin`);
  return loadGraphModel({
    load: () =>
      Promise.resolve({
        modelTopology,
        weightSpecs: weightsManifest.flatMap((group) => group.weights),
        weightData: weights.buffer.slice(
          weights.byteOffset,
          weights.byteOffset + weights.length,
        ) as ArrayBuffer,
      }),
  });
}
