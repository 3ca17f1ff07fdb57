/** The parts of the microphone, as the file holds them: in the place of ui/ear/parts.ts. */
import capture from '../../static/ear/capture.js?raw';

const scriptUrl = (text: string): string =>
  URL.createObjectURL(new Blob([text], { type: 'text/javascript' }));

/** The thread that hears. */
export const hearWorker = (): Worker =>
  new Worker(scriptUrl(document.getElementById('hear')?.textContent ?? ''));

/** The address of what runs beside the sound. A page from the disk may not load it from an address that it makes itself: those are of no origin. */
export const captureModule = (): string => `data:text/javascript;base64,${btoa(capture)}`;
