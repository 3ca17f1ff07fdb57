/** Music as a file to take away. */
import { formatOf } from '$core/io/writeScoreFile';
import { error } from '@sveltejs/kit';
import { createReadStream, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { work } from './pool';
import type { Asked, JobInput } from './pool/work';

/** What no file may be called on some system: signs for paths and orders, what cannot be seen, and what turns text around. */
const UNWANTED = /[\\/:*?"<>|\p{Cc}\p{Cf}\p{Zl}\p{Zp}]+/gu;
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;
const LONGEST = 120;

/** A name that a file can have anywhere. The one place where names of downloads are cleaned. */
export function fileName(wanted: string): string {
  const ending = /\.[a-z0-9]{1,9}$/i.exec(wanted)?.[0] ?? '';
  const name = wanted
    .slice(0, wanted.length - ending.length)
    .replace(UNWANTED, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s.]+|[\s.]+$/g, '')
    .replace(RESERVED, '_$1');
  return ([...name].slice(0, LONGEST).join('').trim() || 'Key Path') + ending;
}

const disposition = (name: string): string =>
  // What a header's value may hold besides: RFC 5987.
  `attachment; filename*=UTF-8''${encodeURIComponent(fileName(name)).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)}`;

/** A response with a file of the given name. */
export const download = (name: string, mediaType: string, content: string | Uint8Array): Response =>
  new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: { 'content-type': mediaType, 'content-disposition': disposition(name) },
  });

/** A response with a file that lies on the disk; `sent` is called when it is on its way or was given up. */
export function fileDownload(path: string, name: string, sent?: () => void): Response {
  const stream = createReadStream(path);
  if (sent) stream.once('close', sent);
  return new Response(Readable.toWeb(stream) as ReadableStream, {
    headers: {
      'content-type': 'application/vnd.sqlite3',
      'content-length': String(statSync(path).size),
      'content-disposition': disposition(name),
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
  if (!format) error(404, `Key Path can’t write music as “.${ending}”.`);
  const content = await work('write', { ...music, ending: format.ending }, asked);
  return download(`${title}${format.ending}`, format.mediaType, content);
}
