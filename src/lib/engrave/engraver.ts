/** The page's end of the engraver: asks the worker, keeps every picture by its input, so that an edit redraws one phrase. */
import type { EngraveRequest, EngraveResponse } from './engrave.worker';
import type { Sheet } from './sheet';

const MOST_PICTURES = 200;

let worker: Worker | undefined;
let lastId = 0;
const waiting = new Map<number, { resolve: (svg: string) => void; reject: (error: Error) => void }>();
const pictures = new Map<string, Promise<string>>();

function engraverWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./engrave.worker.ts', import.meta.url), { type: 'module' });
  worker.addEventListener('message', (event: MessageEvent<EngraveResponse>) => {
    const request = waiting.get(event.data.id);
    waiting.delete(event.data.id);
    if ('svg' in event.data) request?.resolve(event.data.svg);
    else request?.reject(new Error(event.data.error));
  });
  worker.addEventListener('error', (event) => {
    for (const request of waiting.values())
      request.reject(new Error(event.message || 'The engraver stopped.'));
    waiting.clear();
  });
  return worker;
}

/** The picture of a sheet as SVG text. Browser only. */
export function draw(sheet: Sheet): Promise<string> {
  const key = JSON.stringify(sheet);
  const known = pictures.get(key);
  if (known) {
    pictures.delete(key);
    pictures.set(key, known); // the most recently used last
    return known;
  }
  const picture = new Promise<string>((resolve, reject) => {
    const id = ++lastId;
    waiting.set(id, { resolve, reject });
    engraverWorker().postMessage({ id, sheet } satisfies EngraveRequest);
  });
  pictures.set(key, picture);
  picture.catch(() => pictures.delete(key)); // a failure is not kept
  if (pictures.size > MOST_PICTURES) pictures.delete(pictures.keys().next().value!);
  return picture;
}
