/** What a lesson has to say on its way to the server, a tapped beat, and a table to take away. */
import { afterEach, describe, expect, it, vi } from 'vitest';
import { csvOf } from '../learner/csv';
import type { Sent } from '$core/lessons/record';
import { Outbox, waitingLessons } from './outbox';
import { tapped, tempoOfTaps } from './tapped';

class Memory implements Storage {
  readonly #kept: Record<string, string> = {};
  [name: string]: unknown;
  get length(): number {
    return Object.keys(this.#kept).length;
  }
  key = (index: number): string | null => Object.keys(this.#kept)[index] ?? null;
  getItem = (key: string): string | null => this.#kept[key] ?? null;
  setItem = (key: string, value: string): void => {
    this.#kept[key] = value;
    this[key] = value;
  };
  removeItem = (key: string): void => {
    delete this.#kept[key];
    delete this[key];
  };
  clear = (): void => undefined;
}

const event = (name: string): Sent => ({
  kind: 'event',
  token: `${name}-and-twelve-more`,
  assignment: 'a',
  chunk: 'm0..m3',
  step: 'hear',
  hand: null,
  counting: false,
  tempo: null,
  grade: null,
});
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 20));

describe('the outbox', () => {
  afterEach(() => void vi.unstubAllGlobals());
  const bodies = (calls: readonly unknown[][]): unknown[] =>
    calls.map(([, init]) => JSON.parse((init as { body: string }).body) as unknown);

  it('sends in order, and keeps what the server does not have', async () => {
    const storage = new Memory();
    const post = vi.fn(() => Promise.reject(new Error('away')));
    vi.stubGlobal('fetch', post);
    const seen: [number, boolean][] = [];
    const box = new Outbox(
      'a',
      { onchange: (left, away) => void seen.push([left, away]), onrefused: vi.fn(), onconflict: vi.fn() },
      storage,
    );
    box.push(event('one'));
    box.push(event('two'));
    await settled();
    expect(box.left).toHaveLength(2);
    expect(seen.at(-1)).toEqual([2, true]);
    await expect(box.flush()).rejects.toThrow(/offline/);
    box.close();
    // Another page takes it up where it was left.
    expect(waitingLessons(storage)).toEqual(['a']);
    const taken = vi.fn((..._: unknown[]) => Promise.resolve(new Response('{}')));
    vi.stubGlobal('fetch', taken);
    const next = new Outbox('a', { onchange: vi.fn(), onrefused: vi.fn(), onconflict: vi.fn() }, storage);
    await next.flush();
    expect(bodies(taken.mock.calls)).toEqual([event('one'), event('two')]);
    expect(waitingLessons(storage)).toEqual([]);
  });
  it('says what the server refuses, and goes on', async () => {
    const answers = [new Response('{"message":"No such step."}', { status: 422 }), new Response('{}')];
    vi.stubGlobal('fetch', () => Promise.resolve(answers.shift()));
    const onrefused = vi.fn();
    const box = new Outbox('b', { onchange: vi.fn(), onrefused, onconflict: vi.fn() }, new Memory());
    box.push(event('one'));
    box.push(event('two'));
    await box.flush();
    expect(onrefused).toHaveBeenCalledExactlyOnceWith('No such step.');
    expect(box.left).toEqual([]);
  });
  it('sends of what is written the last word, with what else was changed', async () => {
    const post = vi.fn((..._: unknown[]) => Promise.resolve(new Response('{}')));
    vi.stubGlobal('fetch', post);
    const box = new Outbox('c', { onchange: vi.fn(), onrefused: vi.fn(), onconflict: vi.fn() }, new Memory());
    for (const [was, note] of [
      ['', 'T'],
      ['T', 'Th'],
      ['Th', 'Thumb'],
    ])
      box.push({ kind: 'change', note, was: { note: was } });
    box.push({ kind: 'change', practised: 60, was: { practised: null } });
    await box.flush();
    expect(bodies(post.mock.calls)).toEqual([
      { kind: 'change', note: 'Thumb', practised: 60, was: { note: '', practised: null } },
    ]);
  });
  it('keeps what was written beside what another window has saved, until the teacher has chosen', async () => {
    const there = { message: 'Changed.', there: { note: 'Wrist' } };
    const answers = [Response.json(there, { status: 409 }), Response.json(there, { status: 409 })];
    vi.stubGlobal('fetch', () => Promise.resolve(answers.shift()));
    const storage = new Memory();
    const onconflict = vi.fn();
    const box = new Outbox('e', { onchange: vi.fn(), onrefused: vi.fn(), onconflict }, storage);
    box.push({ kind: 'change', note: 'Thumb', was: { note: '' } });
    await box.flush();
    box.push({ kind: 'change', note: 'Thumbs', was: { note: 'Thumb' } });
    await box.flush();
    const conflict = { there: { note: 'Wrist' }, typed: { note: 'Thumbs' } };
    expect(onconflict).toHaveBeenLastCalledWith(conflict);
    const later = new Outbox('e', { onchange: vi.fn(), onrefused: vi.fn(), onconflict: vi.fn() }, storage);
    expect(later.conflict).toEqual(conflict);
    later.settle();
    expect(box.conflict).toBeNull();
  });
  it('of two windows lose nothing of each other', async () => {
    const storage = new Memory();
    vi.stubGlobal('fetch', () => Promise.reject(new Error('away')));
    const events = { onchange: vi.fn(), onrefused: vi.fn(), onconflict: vi.fn() };
    const [one, two] = [new Outbox('f', events, storage), new Outbox('f', events, storage)];
    one.push(event('one'));
    two.push(event('two'));
    await settled();
    for (const box of [one, two]) box.close();
    expect(waitingLessons(storage)).toEqual(['f']);
    const next = new Outbox('f', events, storage);
    next.close();
    expect(next.left).toEqual([event('one'), event('two')]);
  });
  it('keeps for later what a server in trouble could not take', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('', { status: 503 })));
    const box = new Outbox('d', { onchange: vi.fn(), onrefused: vi.fn(), onconflict: vi.fn() }, new Memory());
    box.push(event('one'));
    await expect(box.flush()).rejects.toThrow();
    box.close();
    expect(box.left).toHaveLength(1);
  });
});

describe('a tapped beat', () => {
  const after = (times: readonly number[]): number[] =>
    times.reduce<number[]>((taps, now) => tapped(taps, now), []);
  it('is the middle of its intervals, from the third tap on', () => {
    expect(tempoOfTaps(after([0, 500]))).toBeUndefined();
    expect(tempoOfTaps(after([0, 500, 1000, 1500]))).toBe(120);
    expect(tempoOfTaps(after([0, 500, 1000, 1300, 2000, 2500]))).toBe(120);
  });
  it('begins anew after a pause', () => expect(after([0, 500, 9000])).toEqual([9000]));
});

describe('a table to take away', () => {
  it('is read by any spreadsheet, and is no formula there', () => {
    expect(
      csvOf([
        ['a "b"', 'c,d', null, -3],
        ['=1+1', '', 'plain', 2],
      ]),
    ).toBe('"a ""b""","c,d",,-3\r\n\'=1+1,,plain,2\r\n');
  });
});
