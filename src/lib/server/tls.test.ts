import { X509Certificate } from 'node:crypto';
import { mkdtempSync, statSync, writeFileSync } from 'node:fs';
import { get } from 'node:https';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ownCertificate, TlsProblem, tlsOf } from './tls';

const nothing = { own: undefined, cert: undefined, key: undefined };
const folder = (): string => mkdtempSync(join(tmpdir(), 'keypath-tls-'));

describe('HTTPS', () => {
  it('is not spoken where nobody asks for it', async () => {
    expect(await tlsOf(nothing, folder(), ['localhost'])).toBeUndefined();
  });

  it('is spoken with a certificate of its own, which is kept until another name comes', async () => {
    const data = folder();
    const names = ['localhost', 'music-room.local', '192.168.0.7', '127.0.0.1'];
    const made = (await tlsOf({ ...nothing, own: 'own' }, data, names))!;
    const read = new X509Certificate(made.cert);
    for (const name of ['localhost', 'music-room.local']) expect(read.checkHost(name)).toBe(name);
    expect(read.checkIP('192.168.0.7')).toBe('192.168.0.7');
    const days = (Date.parse(read.validTo) - Date.now()) / 86_400_000;
    expect(days).toBeGreaterThan(390);
    expect(days).toBeLessThan(398);
    expect(statSync(join(data, 'tls', 'key.pem')).mode & 0o77).toBe(0);
    expect(await tlsOf({ ...nothing, own: 'own' }, data, names)).toEqual(made);
    const more = (await tlsOf({ ...nothing, own: 'own' }, data, [...names, 'piano.local']))!;
    expect(more.cert).not.toBe(made.cert);
    // Whoever trusts it is let in, and nobody else.
    const server = createServer(more, (_request, response) => response.end('in'));
    await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
    const { port } = server.address() as AddressInfo;
    const ask = (ca?: string) =>
      new Promise<string>((resolve) =>
        get({ host: 'localhost', port, ...(ca ? { ca } : {}) }, (r) => resolve(String(r.statusCode))).on(
          'error',
          (e: NodeJS.ErrnoException) => resolve(e.code ?? ''),
        ),
      );
    expect(await ask(more.cert)).toBe('200');
    expect(await ask()).toMatch(/SELF_SIGNED/);
    server.close();
    expect(ownCertificate(data)).toContain('certificate.pem');
  });

  it('takes a certificate that is given, and says what is missing', async () => {
    const data = folder();
    const [cert, key] = [join(data, 'c.pem'), join(data, 'k.pem')];
    writeFileSync(cert, 'C');
    writeFileSync(key, 'K');
    expect(await tlsOf({ ...nothing, cert, key }, data, [])).toEqual({ cert: 'C', key: 'K' });
    await expect(tlsOf({ ...nothing, cert }, data, [])).rejects.toThrow(TlsProblem);
    await expect(tlsOf({ ...nothing, cert, key: join(data, 'none') }, data, [])).rejects.toThrow(
      /KEYPATH_KEY/,
    );
    await expect(tlsOf({ ...nothing, own: 'yes' }, data, [])).rejects.toThrow(/takes “own”/);
  });
});
