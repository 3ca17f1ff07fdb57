import { dataFolder } from '$server/db/open';
import { ownCertificate } from '$server/tls';
import { error } from '@sveltejs/kit';
import { readFile } from 'node:fs/promises';
import type { RequestHandler } from './$types';

/** The certificate of this server, where it has one of its own: a phone takes it into those that it trusts. It is no secret. */
export const GET: RequestHandler = async () => {
  const bytes = await readFile(ownCertificate(dataFolder())).catch(() =>
    error(404, 'This server made no certificate.'),
  );
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/x-x509-ca-cert',
      'content-disposition': 'attachment; filename="key-path.crt"',
    },
  });
};
