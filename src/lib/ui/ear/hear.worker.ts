/** The microphone's thread, with its parts from the server. */
import plain from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm?url';
import threaded from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-threaded-simd.wasm?url';
import simd from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm?url';
import { expose } from 'comlink';
import { hearService } from './service';

expose(
  hearService({
    wasm: {
      'tfjs-backend-wasm.wasm': plain,
      'tfjs-backend-wasm-simd.wasm': simd,
      'tfjs-backend-wasm-threaded-simd.wasm': threaded,
    },
    model: '/ear/model.json',
  }),
);
