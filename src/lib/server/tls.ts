/**
 * HTTPS without a proxy: microphones and MIDI need a secure page. With a certificate that is given (KEYPATH_CERT and KEYPATH_KEY), or with one of
 * its own (KEYPATH_TLS=own), which is made once, kept in the data folder and made anew before it ends or where the computer has another name.
 */
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';

interface Tls {
  readonly cert: string;
  readonly key: string;
}

/** How the process was started. */
interface TlsSettings {
  readonly own: string | undefined;
  readonly cert: string | undefined;
  readonly key: string | undefined;
}

export const tlsSettings = (): TlsSettings => ({
  own: process.env.KEYPATH_TLS,
  cert: process.env.KEYPATH_CERT,
  key: process.env.KEYPATH_KEY,
});

/** Why HTTPS can't be spoken, in a sentence. */
export class TlsProblem extends Error {
  override readonly name = 'TlsProblem';
}

/** Days that a certificate of its own is good for (phones refuse more than 398), and how many are left when the next one is made. */
const [GOOD, RENEWED] = [397, 30];
const DAY = 86_400_000;

export const ownCertificate = (folder: string): string => join(folder, 'tls', 'certificate.pem');
const ownKey = (folder: string): string => join(folder, 'tls', 'key.pem');

/** What HTTPS is spoken with; undefined where HTTP is. Throws TlsProblem. */
export async function tlsOf(
  { own, cert, key }: TlsSettings,
  folder: string,
  names: readonly string[],
): Promise<Tls | undefined> {
  if (cert || key) {
    if (!cert || !key)
      throw new TlsProblem('KEYPATH_CERT and KEYPATH_KEY name two files; one of them is missing.');
    return { cert: readGiven('KEYPATH_CERT', cert), key: readGiven('KEYPATH_KEY', key) };
  }
  if (!own) return undefined;
  if (own !== 'own') throw new TlsProblem(`KEYPATH_TLS takes “own”; it says “${own}”.`);
  return keptOwn(folder, names) ?? (await madeOwn(folder, names));
}

function readGiven(setting: string, path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    throw new TlsProblem(`The file ${path} in ${setting} can’t be read.`);
  }
}

/** The certificate that was made before, where it still holds for all names. */
function keptOwn(folder: string, names: readonly string[], now = Date.now()): Tls | undefined {
  if (!existsSync(ownCertificate(folder)) || !existsSync(ownKey(folder))) return undefined;
  const [cert, key] = [readFileSync(ownCertificate(folder), 'utf8'), readFileSync(ownKey(folder), 'utf8')];
  const read = new X509Certificate(cert);
  const holds = (name: string): boolean =>
    (isIP(name) ? read.checkIP(name) : read.checkHost(name)) !== undefined;
  const isGood = Date.parse(read.validTo) - now > RENEWED * DAY && names.every(holds);
  return isGood ? { cert, key } : undefined;
}

async function madeOwn(folder: string, names: readonly string[]): Promise<Tls> {
  // Loaded where it is wanted: it is large, and most servers never make one.
  const { generate } = await import('selfsigned');
  const made = await generate([{ name: 'commonName', value: 'Key Path' }], {
    keySize: 2048,
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + GOOD * DAY),
    extensions: [
      // It vouches for itself: phones take it into their list of trusted ones.
      { name: 'basicConstraints', cA: true, critical: true },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, keyCertSign: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: names.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name })),
      },
    ],
  });
  mkdirSync(join(folder, 'tls'), { recursive: true });
  writeFileSync(ownKey(folder), made.private, { mode: 0o600 });
  writeFileSync(ownCertificate(folder), made.cert);
  return { cert: made.cert, key: made.private };
}
