/**
 * What a lesson has to say to the server, kept in the browser until the server has it: nothing is lost when the tab, the server or the
 * power goes. It is sent in order, one at a time; each event carries its own name, so that what arrives twice is kept once.
 */
import {
  lessonConflictSchema,
  sentSchema,
  type LessonFields,
  type Sent,
  type SentChange,
} from '$core/lessons/record';
import { formToken } from '$ui/form/token';
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
  /** What another window had changed meanwhile. */
  readonly onconflict: (conflict: Conflict) => void;
}

/** Fields of a lesson that were changed here and in another window. */
export interface Conflict {
  /** What is saved. */
  readonly there: LessonFields;
  /** What was written here. */
  readonly typed: LessonFields;
}

/** Each window keeps its own: two that have the same lesson open do not write over each other. */
const KEY = /^keypath lesson ([\w-]+)( [\w-]+)?$/;
const keyOf = (lesson: string, window: string): string => `keypath lesson ${lesson} ${window}`;
const lessonOf = (key: string): string | undefined => KEY.exec(key)?.[1];

/** Lessons of this browser of which something is left to be sent. */
export const waitingLessons = (storage: Storage = localStorage): string[] => [
  ...new Set(Object.keys(storage).flatMap((key) => lessonOf(key) ?? [])),
];

const conflictKey = (lesson: string): string => `keypath conflict ${lesson}`;
const conflictSchema = z.object({
  there: lessonConflictSchema.shape.there,
  typed: lessonConflictSchema.shape.there,
});

export class Outbox {
  #left: Sent[];
  readonly #lesson: string;
  readonly #key: string;
  readonly #events: OutboxEvents;
  readonly #storage: Storage;
  #sending: Promise<void> | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isAway = false;

  constructor(lesson: string, events: OutboxEvents, storage: Storage = localStorage) {
    this.#lesson = lesson;
    this.#key = keyOf(lesson, formToken().slice(0, 12));
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
      this.#left[this.#left.length - 1] = { ...last, ...sent, was: { ...sent.was, ...last.was } };
    else this.#left.push(sent);
    this.#keep();
    this.#soon(sent.kind === 'change' ? REST : 0);
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
      const answer = await this.#post(next);
      if (answer === 'away') {
        this.#isAway = true;
        this.#tell();
        this.#soon(AGAIN);
        return;
      }
      this.#isAway = false;
      if (typeof answer === 'object') this.#conflicts(answer.there, next as SentChange);
      else if (answer !== 'taken') this.#events.onrefused(answer);
      this.#left.shift();
      this.#keep();
    }
  }

  /** A conflict that nobody has settled yet: it outlives the page. */
  get conflict(): Conflict | null {
    const text = this.#read(conflictKey(this.#lesson));
    return text === null ? null : (conflictSchema.safeParse(JSON.parse(text)).data ?? null);
  }

  /** The teacher has chosen. */
  settle(): void {
    this.#write(conflictKey(this.#lesson), null);
  }

  /** What was written here is kept beside what is there, until the teacher chooses. */
  #conflicts(there: LessonFields, { kind: _kind, was: _was, ...typed }: SentChange): void {
    const before = this.conflict;
    const mine = Object.fromEntries(Object.entries(typed).filter(([field]) => field in there));
    const conflict = { there: { ...before?.there, ...there }, typed: { ...before?.typed, ...mine } };
    this.#write(conflictKey(this.#lesson), JSON.stringify(conflict));
    this.#events.onconflict(conflict);
  }

  /** "taken", "away", why it is not taken, or what is there instead. */
  async #post(sent: Sent): Promise<string | { readonly there: LessonFields }> {
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
      const conflict = lessonConflictSchema.safeParse(said).data;
      if (conflict) return conflict;
      return z.object({ message: z.string() }).safeParse(said).data?.message ?? 'It couldn’t be saved.';
    } catch {
      return 'away';
    }
  }

  /** What any window has left of the lesson. One that is still open sends it as well: what arrives twice is kept once. */
  #kept(): Sent[] {
    const keys = Object.keys(this.#storage).filter((key) => lessonOf(key) === this.#lesson);
    const left = keys.flatMap((key) => {
      try {
        return z.array(sentSchema).parse(JSON.parse(this.#read(key) ?? '[]'));
      } catch (error) {
        console.warn('What was kept of this lesson cannot be read:', error);
        return [];
      }
    });
    if (left.length > 0) this.#write(this.#key, JSON.stringify(left));
    for (const key of keys) this.#write(key, null);
    return left;
  }

  #keep(): void {
    this.#write(this.#key, this.#left.length === 0 ? null : JSON.stringify(this.#left));
    this.#tell();
  }

  #read(key: string): string | null {
    try {
      return this.#storage.getItem(key);
    } catch (error) {
      console.warn('This browser can’t store anything:', error);
      return null;
    }
  }

  #write(key: string, text: string | null): void {
    try {
      if (text === null) this.#storage.removeItem(key);
      else this.#storage.setItem(key, text);
    } catch (error) {
      console.warn('This browser can’t store anything:', error);
    }
  }

  #tell(): void {
    this.#events.onchange(this.#left.length, this.#isAway);
  }
}
