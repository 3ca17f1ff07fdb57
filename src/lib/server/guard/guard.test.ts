import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OpenDb } from '../db/open';
import { testStudio } from '../test/studio';
import { fileName } from '../download';
import { answeredHosts, isOpenToOthers, nameOf } from './hosts';
import {
  beginSession,
  continueSession,
  endSession,
  hasPassphrase,
  isPassphrase,
  setPassphrase,
} from './passphrase';
import { refusalOf } from './refusal';
import { Tries } from './tries';

vi.mock('../pool', () => ({ work: () => Promise.reject(new Error('There is no pool here.')) }));

const hosts = answeredHosts({ host: undefined, names: undefined }, []);
const asked = (method: string, headers: Record<string, string>, path = '/') =>
  refusalOf(
    {
      method,
      url: `http://localhost:5180${path}`,
      headers: new Headers({ host: 'localhost:5180', ...headers }),
    },
    hosts,
  );

describe('requests', () => {
  const form = { 'content-type': 'application/x-www-form-urlencoded', 'content-length': '3' };
  it('are taken from our own pages', () => {
    expect(asked('GET', {})).toBeUndefined();
    expect(asked('POST', { ...form, origin: 'http://localhost:5180' })).toBeUndefined();
    expect(
      asked('POST', { ...form, origin: 'http://localhost:5180', 'sec-fetch-site': 'same-origin' }),
    ).toBeUndefined();
  });
  it('are refused from anywhere else', () => {
    for (const origin of ['null', 'http://localhost:5181', 'http://elsewhere.example', 'https://localhost'])
      expect(asked('POST', { ...form, origin })).toMatchObject({ status: 403 });
    expect(asked('POST', { ...form, 'sec-fetch-site': 'cross-site' })).toMatchObject({ status: 403 });
    expect(asked('DELETE', { origin: 'null' })).toMatchObject({ status: 403 });
  });
  it('that make no sense are told so, and fail at nothing', () => {
    expect(asked('POST', { ...form, origin: 'ht!tp:/' })).toMatchObject({ status: 400 });
    expect(asked('POST', { 'content-type': 'text/plain', 'content-length': '3' })).toMatchObject({
      status: 400,
    });
    expect(asked('POST', { 'content-length': '3' })).toMatchObject({ status: 400 });
    expect(asked('POST', { ...form, 'content-length': '99999999' }, '/pieces')).toMatchObject({
      status: 413,
    });
    const large = { ...form, 'content-length': String(20 * 1024 * 1024) };
    expect(asked('POST', large, '/pieces')).toBeUndefined();
    expect(asked('POST', large, '/learners/new')).toMatchObject({ status: 413 });
    expect(asked('POST', { ...form, 'transfer-encoding': 'chunked' })).toMatchObject({ status: 413 });
  });
  it('under another name are not answered', () => {
    expect(asked('GET', { host: 'elsewhere.example' })).toMatchObject({ status: 403 });
    expect(asked('GET', { host: '127.0.0.1' })).toBeUndefined();
    expect(asked('GET', { host: '[::1]:5180' })).toBeUndefined();
  });
});

describe('names that are answered', () => {
  it('are this computer’s own where it listens everywhere, and those that are listed', () => {
    const everywhere = answeredHosts({ host: '0.0.0.0', names: 'Piano.example, ' }, ['10.0.0.7', 'fe80::1']);
    for (const name of ['localhost', '10.0.0.7', '[fe80::1]', 'piano.example'])
      expect(everywhere.has(name)).toBe(true);
    expect(everywhere.has('elsewhere.example')).toBe(false);
    expect(nameOf('Piano.example:8443')).toBe('piano.example');
  });
  it('ask for a passphrase as soon as others can get here', () => {
    expect(isOpenToOthers({ host: undefined, names: undefined })).toBe(false);
    expect(isOpenToOthers({ host: '127.0.0.1', names: '' })).toBe(false);
    expect(isOpenToOthers({ host: '0.0.0.0', names: undefined })).toBe(true);
    // Behind a proxy it listens to this computer alone, and is open to others all the same.
    expect(isOpenToOthers({ host: '127.0.0.1', names: 'piano.example' })).toBe(true);
  });
});

describe('the passphrase', () => {
  let db: OpenDb;
  let end: () => void;
  beforeEach(() => {
    ({ db, end } = testStudio());
  });
  afterEach(() => {
    vi.useRealTimers();
    end();
  });
  it('is known by itself alone, and kept as argon2 only', async () => {
    expect(await isPassphrase(db, '')).toBe(false);
    await setPassphrase(db, 'four words to keep');
    expect(hasPassphrase(db)).toBe(true);
    expect(await isPassphrase(db, 'four words to keep')).toBe(true);
    expect(await isPassphrase(db, 'four words to Keep')).toBe(false);
    expect(db.$client.prepare('select passphrase from studio').pluck().get()).toMatch(/^\$argon2id\$/);
  });
  it('opens sessions whose token is a new one each day, and which end', () => {
    vi.useFakeTimers({ now: Date.parse('2026-03-01T10:00:00Z'), toFake: ['Date'] });
    const token = beginSession(db);
    expect(continueSession(db, token)).toEqual({});
    expect(continueSession(db, `${token}x`)).toBeUndefined();
    vi.setSystemTime(Date.parse('2026-03-02T11:00:00Z'));
    const next = continueSession(db, token)?.next;
    expect(next).toBeDefined();
    expect(continueSession(db, next!)).toEqual({});
    // What was on its way with the old one is still taken; a little later it is not.
    expect(continueSession(db, token)).toEqual({});
    vi.setSystemTime(Date.parse('2026-03-02T11:02:00Z'));
    expect(continueSession(db, token)).toBeUndefined();
    endSession(db, next!);
    expect(continueSession(db, next!)).toBeUndefined();
    const forgotten = beginSession(db);
    vi.setSystemTime(Date.parse('2026-04-10T11:00:00Z'));
    expect(continueSession(db, forgotten)).toBeUndefined();
  });
  it('that is set anew signs everybody out', async () => {
    const token = beginSession(db);
    await setPassphrase(db, 'four other words');
    expect(continueSession(db, token)).toBeUndefined();
  });
  it('cannot be guessed at: each wrong one of an address makes the next wait longer, and nobody is locked out', async () => {
    const tries = new Tries();
    const waits: number[] = [];
    for (let i = 0; i < 10; i++) waits.push((await tries.turn('a', 0)).wait);
    // At once they wait in line.
    expect(waits).toEqual([0, 0, 0, 0, 500, 1500, 3500, 7500, 15_500, 23_500]);
    expect(await tries.turn('a', 0)).toEqual({ wait: 1500, isTooMany: true });
    // Somebody else is not kept waiting by that, however many addresses there are.
    for (let i = 0; i < 200; i++) await tries.turn(`n${i}`, 0);
    expect(await tries.turn('b', 0)).toEqual({ wait: 0, isTooMany: false });
    // The address gets its turn after the longest pause, and begins anew with the right one.
    expect(await tries.turn('a', 60_000)).toEqual({ wait: 8000, isTooMany: false });
    await tries.right('a');
    expect(await tries.turn('a', 60_000)).toEqual({ wait: 0, isTooMany: false });
  });
});

describe('names of downloads', () => {
  it('are names that any system takes', () => {
    expect(fileName('Kite Weather, level 3.musicxml')).toBe('Kite Weather, level 3.musicxml');
    expect(fileName('../../etc/passwd.abc')).toBe('etc passwd.abc');
    expect(fileName('a\u202egnp.exe\r\nSet-Cookie: x.mid')).not.toMatch(/[\u202e\r\n:]/);
    expect(fileName('CON.txt')).toBe('_CON.txt');
    expect(fileName('   .pro')).toBe('Key Path.pro');
    expect([...fileName(`${'é'.repeat(500)}.mxl`)].length).toBeLessThan(130);
  });
});
