/** The parts of the microphone as the server has them. A room that is one file has src/home/parts.ts in its place. */

/** The thread that hears. */
export const hearWorker = (): Worker =>
  new Worker(new URL('./hear.worker.ts', import.meta.url), { type: 'module' });

/** The address of what runs beside the sound. */
export const captureModule = (): string => '/ear/capture.js';
