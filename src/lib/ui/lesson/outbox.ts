/**
 * What a lesson has to say to the server, kept in the browser until the server has it: nothing is lost when the tab, the server or the
 * power goes. It is sent in order, one at a time; each event carries its own name, so that what arrives twice is kept once.
 */
import { sentSchema, type Sent } from '$core/lessons/record';
import { z } from 'zod';

/** Between two tries while the server is away, in milliseconds. */
const AGAIN = 2000;
/** What is written is sent when the pen rests so long. */
const REST = 500;

export interface OutboxEvents {
  /** What is left to be sent, and whether the server is away. */
  readonly onchange: (left: number, isAway: boolean) => void;
  /** What the server would not take, and why. */
  readonly onrefused: (why: string) => void;
}

const keyOf = (lesson: string): string => `keypath lesson ${lesson}`;

/** Lessons of this browser of which something is left to be sent. */
export const waitingLessons = (storage: Storage = localStorage): string[] =>
  Object.keys(storage).flatMap((key) => (key.startsWith(keyOf('')) ? [key.slice(keyOf('').length)] : []));

export class Outbox {
  #left: Sent[];
  readonly #lesson: string;
  readonly #events: OutboxEvents;
  readonly #storage: Storage;
  #sending: Promise<void> | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isAway = false;

  constructor(lesson: string, events: OutboxEvents, storage: Storage = localStorage) {
    this.#lesson = lesson;
    this.#events = events;
    this.#storage = storage;
    this.#left = this.#kept();
    if (this.#left.length > 0) this.#soon(0);
  }

  /** Events and withdrawals that the server does not have yet, in order. */
  get left(): readonly Sent[] {
    return this.#left;
  }

  /** Keeps something and sends it; what changes the same field of the lesson takes the place of what was to be sent. */
  push(sent: Sent): void {
    const last = this.#left.at(-1);
    if (sent.kind === 'change' && last?.kind === 'change' && this.#left.length > (this.#sending ? 1 : 0))
      this.#left[this.#left.length - 1] = { ...last, ...sent };
    else this.#left.push(sent);
    this.#keep();
    this.#soon(sent.kind === 'change' ? REST : 0);
  }

  /** Resolves when everything is sent; rejects where the server is away. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    await this.#send();
    if (this.#left.length > 0) throw new Error('The server cannot be reached.');
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
      const answer = await this.#post(next);
      if (answer === 'away') {
        this.#isAway = true;
        this.#tell();
        this.#soon(AGAIN);
        return;
      }
      this.#isAway = false;
      if (answer !== 'taken') this.#events.onrefused(answer);
      this.#left.shift();
      this.#keep();
    }
  }

  /** "taken", "away", or why it is not taken. */
  async #post(sent: Sent): Promise<string> {
    try {
      const response = await fetch(`/lessons/${this.#lesson}/record`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(sent),
      });
      if (response.ok) return 'taken';
      // A server that is starting or in trouble may take it later.
      if (response.status >= 500) return 'away';
      const said: unknown = await response.json().catch(() => undefined);
      return z.object({ message: z.string() }).safeParse(said).data?.message ?? 'It could not be kept.';
    } catch {
      return 'away';
    }
  }

  #kept(): Sent[] {
    try {
      return z.array(sentSchema).parse(JSON.parse(this.#storage.getItem(keyOf(this.#lesson)) ?? '[]'));
    } catch (error) {
      console.warn('What was kept of this lesson cannot be read:', error);
      return [];
    }
  }

  #keep(): void {
    try {
      if (this.#left.length === 0) this.#storage.removeItem(keyOf(this.#lesson));
      else this.#storage.setItem(keyOf(this.#lesson), JSON.stringify(this.#left));
    } catch (error) {
      console.warn('This browser keeps nothing:', error);
    }
    this.#tell();
  }

  #tell(): void {
    this.#events.onchange(this.#left.length, this.#isAway);
  }
}
