/** The recordings of the grand as the server has them. A room that is one file has src/home/recordings.ts in its place. */
import { sampleName } from './samples';

/** The bytes of a key's recording. Rejects where it cannot be had. */
export async function recordingOfKey(key: string): Promise<ArrayBuffer> {
  const response = await fetch(`/sounds/${sampleName(key)}`);
  if (!response.ok) throw new Error(`The recording of ${key} could not be loaded.`);
  return response.arrayBuffer();
}
