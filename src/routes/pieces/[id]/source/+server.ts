import { db } from '$server/db';
import { sourceFile } from '$server/studio/pieces';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The source file exactly as it was received. */
export const GET: RequestHandler = ({ params }) => {
  const file = sourceFile(db(), params.id);
  if (!file) error(404, 'There is no such piece.');
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    },
  });
};
