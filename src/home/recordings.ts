/** The recordings of the grand, as the file holds them: in the place of ui/sound/recordings.ts. */
import { z } from 'zod';

const recordings = (): Record<string, string> =>
  z
    .record(z.string(), z.string())
    .parse(JSON.parse(document.getElementById('recordings')?.textContent ?? '{}'));

let read: Record<string, string> | undefined;

/** The bytes of a key's recording. Rejects where it is not there. */
export async function recordingOfKey(key: string): Promise<ArrayBuffer> {
  const text = (read ??= recordings())[key];
  if (text === undefined) throw new Error(`The recording of ${key} is not in this file.`);
  return (await fetch(`data:audio/mpeg;base64,${text}`)).arrayBuffer();
}
