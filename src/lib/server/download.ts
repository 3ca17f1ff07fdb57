/** Music as a file to take away. */
import { formatOf } from '$core/io/writeScoreFile';
import type { Score } from '$core/score/score';
import { error } from '@sveltejs/kit';

/** A response with a file of the given name. */
export function download(name: string, mediaType: string, content: string | Uint8Array): Response {
  return new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: {
      'content-type': mediaType,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });
}

/** The score in the format of an ending such as "abc". */
export function downloadScore(score: Score, title: string, ending: string): Response {
  const format = formatOf(`.${ending}`);
  if (!format) error(404, `Music cannot be written as “.${ending}”.`);
  const name = title.replace(/[\\/:*?"<>|]+/g, ' ').trim() || 'Piece';
  return download(`${name}${format.ending}`, format.mediaType, format.write(score));
}
