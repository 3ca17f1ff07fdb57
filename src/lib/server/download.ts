/** Music as a file to take away. */
import { formatOf } from '$core/io/writeScoreFile';
import { error } from '@sveltejs/kit';
import { work } from './pool';
import type { Asked, JobInput } from './pool/work';

/** A response with a file of the given name. */
export function download(name: string, mediaType: string, content: string | Uint8Array): Response {
  return new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: {
      'content-type': mediaType,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });
}

/** Music in the format of an ending such as "abc", under a name. */
export async function downloadMusic(
  music: Omit<JobInput<'write'>, 'ending'>,
  title: string,
  ending: string,
  asked: Asked,
): Promise<Response> {
  const format = formatOf(`.${ending}`);
  if (!format) error(404, `Music cannot be written as “.${ending}”.`);
  const name = title.replace(/[\\/:*?"<>|]+/g, ' ').trim() || 'Piece';
  const content = await work('write', { ...music, ending: format.ending }, asked);
  return download(`${name}${format.ending}`, format.mediaType, content);
}
