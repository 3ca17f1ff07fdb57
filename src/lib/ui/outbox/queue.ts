/**
 * What a page has to say to the server, kept in the browser until the server has it: nothing is lost when the tab, the server or the
 * power goes. It is sent in order, one at a time; each thing carries its own name, so that what arrives twice is kept once.
 */
import { formToken } from '$ui/form/token';
import { z } from 'zod';

/** Between two tries while the server is away, in milliseconds. */
const AGAIN = 2000;

interface QueueOf<Sent> {
  /** What is kept under it, as a word: "lesson". */
  readonly kind: string;
  /** The thing that it belongs to. Each window keeps its own: two that have the same thing open do not write over each other. */
  readonly id: string;
  readonly schema: z.ZodType<Sent>;
  /** Sends one; "away" where it is to be tried again. */
  readonly post: (sent: Sent) => Promise<'taken' | 'away'>;
  /** What is left to be sent, and whether the server is away. */
  readonly onchange: (left: number, isAway: boolean) => void;
  readonly storage?: Storage;
}

const prefixOf = (kind: string): string => `keypath ${kind} `;
const idIn = (kind: string, key: string): string | undefined =>
  key.startsWith(prefixOf(kind))
    ? /^([\w-]+)( [\w-]+)?$/.exec(key.slice(prefixOf(kind).length))?.[1]
    : undefined;

/** Things of a kind of which this browser has something left to send. */
export const waiting = (kind: string, storage: Storage = localStorage): string[] => [
  ...new Set(Object.keys(storage).flatMap((key) => idIn(kind, key) ?? [])),
];

/** Reads and writes where the browser lets it. */
export class Kept {
  readonly #storage: Storage;
  constructor(storage: Storage) {
    this.#storage = storage;
  }
  keys(): string[] {
    return Object.keys(this.#storage);
  }
  read(key: string): string | null {
    try {
      return this.#storage.getItem(key);
    } catch (error) {
      console.warn('This browser can’t store anything:', error);
      return null;
    }
  }
  write(key: string, text: string | null): void {
    try {
      if (text === null) this.#storage.removeItem(key);
      else this.#storage.setItem(key, text);
    } catch (error) {
      console.warn('This browser can’t store anything:', error);
    }
  }
}

export class Queue<Sent> {
  readonly #of: QueueOf<Sent>;
  readonly #key: string;
  readonly #kept: Kept;
  #left: Sent[];
  #sending: Promise<void> | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isAway = false;

  constructor(of: QueueOf<Sent>) {
    this.#of = of;
    this.#key = `${prefixOf(of.kind)}${of.id} ${formToken().slice(0, 12)}`;
    this.#kept = new Kept(of.storage ?? localStorage);
    this.#left = this.#keptBefore();
    if (this.#left.length > 0) this.#soon(0);
  }

  /** What the server does not have yet, in order. */
  get left(): readonly Sent[] {
    return this.#left;
  }

  /** Keeps something and sends it after `rest` milliseconds; `joined` makes one of it and what was to be sent last. */
  push(sent: Sent, rest = 0, joined: (last: Sent) => Sent | undefined = () => undefined): void {
    const last = this.#left.at(-1);
    // What is on its way is not changed any more.
    const isFree = this.#left.length > (this.#sending ? 1 : 0);
    const both = last !== undefined && isFree ? joined(last) : undefined;
    if (both) this.#left[this.#left.length - 1] = both;
    else this.#left.push(sent);
    this.#keep();
    this.#soon(rest);
  }

  /** Resolves when everything is sent; rejects where the server is away. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    await this.#send();
    if (this.#left.length > 0) throw new Error('You’re offline.');
  }

  /** Nothing more is tried. What is left stays kept. */
  close(): void {
    clearTimeout(this.#timer);
  }

  #soon(after: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#send(), after);
  }

  #send(): Promise<void> {
    return (this.#sending ??= this.#sendAll().finally(() => (this.#sending = undefined)));
  }

  async #sendAll(): Promise<void> {
    for (let next = this.#left[0]; next; next = this.#left[0]) {
      const isAway = (await this.#of.post(next)) === 'away';
      this.#isAway = isAway;
      if (isAway) {
        this.#tell();
        this.#soon(AGAIN);
        return;
      }
      this.#left.shift();
      this.#keep();
    }
  }

  /** What any window has left. One that is still open sends it as well: what arrives twice is kept once. */
  #keptBefore(): Sent[] {
    const { kind, id, schema } = this.#of;
    const keys = this.#kept.keys().filter((key) => idIn(kind, key) === id);
    const left = keys.flatMap((key) => {
      try {
        return z.array(schema).parse(JSON.parse(this.#kept.read(key) ?? '[]'));
      } catch (error) {
        console.warn(`What was kept of this ${kind} cannot be read:`, error);
        return [];
      }
    });
    if (left.length > 0) this.#kept.write(this.#key, JSON.stringify(left));
    for (const key of keys) this.#kept.write(key, null);
    return left;
  }

  #keep(): void {
    this.#kept.write(this.#key, this.#left.length === 0 ? null : JSON.stringify(this.#left));
    this.#tell();
  }

  #tell(): void {
    this.#of.onchange(this.#left.length, this.#isAway);
  }
}
