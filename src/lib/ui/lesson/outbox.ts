/** What a lesson has to say to the server, in a queue that outlives its tab, and what another window had changed meanwhile. */
import {
  lessonConflictSchema,
  sentSchema,
  type LessonFields,
  type Sent,
  type SentChange,
} from '$core/lessons/record';
import { postJson, refusalIn } from '$ui/outbox/post';
import { Kept, Queue, waiting } from '$ui/outbox/queue';
import { z } from 'zod';

/** What is written is sent when the pen rests so long, in milliseconds. */
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

/** Lessons of this browser of which something is left to be sent. */
export const waitingLessons = (storage: Storage = localStorage): string[] => waiting('lesson', storage);

const conflictKey = (lesson: string): string => `keypath conflict ${lesson}`;
const conflictSchema = z.object({
  there: lessonConflictSchema.shape.there,
  typed: lessonConflictSchema.shape.there,
});

/** One change after another of what is written is one change. */
const changed =
  (sent: Sent) =>
  (last: Sent): Sent | undefined =>
    sent.kind === 'change' && last.kind === 'change'
      ? { ...last, ...sent, was: { ...sent.was, ...last.was } }
      : undefined;

export class Outbox {
  readonly #lesson: string;
  readonly #events: OutboxEvents;
  readonly #kept: Kept;
  readonly #queue: Queue<Sent>;

  constructor(lesson: string, events: OutboxEvents, storage: Storage = localStorage) {
    this.#lesson = lesson;
    this.#events = events;
    this.#kept = new Kept(storage);
    this.#queue = new Queue({
      kind: 'lesson',
      id: lesson,
      schema: sentSchema,
      post: (sent) => this.#post(sent),
      onchange: events.onchange,
      storage,
    });
  }

  /** Events and withdrawals that the server does not have yet, in order. */
  get left(): readonly Sent[] {
    return this.#queue.left;
  }

  /** Keeps something and sends it; what changes the same field of the lesson takes the place of what was to be sent. */
  push(sent: Sent): void {
    this.#queue.push(sent, sent.kind === 'change' ? REST : 0, changed(sent));
  }

  /** Resolves when everything is sent; rejects where the server is away. */
  flush(): Promise<void> {
    return this.#queue.flush();
  }

  /** Nothing more is tried. What is left stays kept. */
  close(): void {
    this.#queue.close();
  }

  /** A conflict that nobody has settled yet: it outlives the page. */
  get conflict(): Conflict | null {
    const text = this.#kept.read(conflictKey(this.#lesson));
    return text === null ? null : (conflictSchema.safeParse(JSON.parse(text)).data ?? null);
  }

  /** The teacher has chosen. */
  settle(): void {
    this.#kept.write(conflictKey(this.#lesson), null);
  }

  /** What was written here is kept beside what is there, until the teacher chooses. */
  #conflicts(there: LessonFields, { kind: _kind, was: _was, ...typed }: SentChange): void {
    const before = this.conflict;
    const mine = Object.fromEntries(Object.entries(typed).filter(([field]) => field in there));
    const conflict = { there: { ...before?.there, ...there }, typed: { ...before?.typed, ...mine } };
    this.#kept.write(conflictKey(this.#lesson), JSON.stringify(conflict));
    this.#events.onconflict(conflict);
  }

  async #post(sent: Sent): Promise<'taken' | 'away'> {
    const answer = await postJson(`/lessons/${this.#lesson}/record`, sent);
    if (answer === 'taken' || answer === 'away') return answer;
    const conflict = lessonConflictSchema.safeParse(answer.said).data;
    if (conflict) this.#conflicts(conflict.there, sent as SentChange);
    else this.#events.onrefused(refusalIn(answer.said));
    return 'taken';
  }
}
