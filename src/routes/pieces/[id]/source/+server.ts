import { gone } from '$server/gone';
import { db } from '$server/db';
import { download } from '$server/download';
import { sourceFile } from '$server/studio/pieces';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The source file exactly as it was received. */
export const GET: RequestHandler = ({ params }) => {
  const file = sourceFile(db(), params.id);
  if (!file) error(404, gone('piece'));
  return download(file.name, 'application/octet-stream', new Uint8Array(file.bytes));
};
