/** A lesson as it goes on: what is in hand, what was ticked and how it went, what is written and set. All of it is kept at once. */
import { placesOf } from '$core/lessons/chunkId';
import { inMusic } from '$core/score/places';
import { GRADES, holding, type Grade, type LessonEvent } from '$core/lessons/events';
import { chunksIn, type Chunk, type Plan, type Step, type ToLearn } from '$core/lessons/plan';
import {
  learnedIn,
  measureStates,
  nextRung,
  nextSteps,
  planState,
  type ChunkState,
} from '$core/lessons/progress';
import { dueOn, reviewsOf } from '$core/lessons/reviews';
import type { Heard } from '$core/lessons/heard';
import type { LessonFields, Sent, SentEvent, SentWithdrawal } from '$core/lessons/record';
import { playedBy, REVIEW } from '$core/lessons/steps';
import { weekOf, type PieceToPractise, type WeekItem } from '$core/lessons/week';
import { formToken } from '$ui/form/token';
import { Outbox, type Conflict, type OutboxEvents } from './outbox';
import { instantNow, tapped, tempoOfTaps } from './tapped';

/** The piece that is open. */
export interface OpenPiece extends ToLearn {
  readonly assignment: string;
  readonly title: string;
  readonly plan: Plan;
  /** Quarter notes per minute. */
  readonly goal: number;
  readonly form: ToLearn['form'] & { readonly firstSeen: readonly number[] };
  /** What the server has of it. */
  readonly events: readonly LessonEvent[];
  /** What is known from earlier versions of it. */
  readonly carried: readonly LessonEvent[];
}

/** What is open of a learner's pieces. */
interface LessonView {
  readonly piece: OpenPiece | null;
  /** The learner's other pieces. */
  readonly others: readonly PieceToPractise[];
  /** The chunk to open at. */
  readonly chunk: string | null;
}

export interface LessonStart extends LessonView {
  readonly id: string;
  readonly today: string;
  readonly note: string;
  readonly week: readonly WeekItem[] | null;
  readonly minutes: number;
  /** As the lesson has it; null where nobody has set it. */
  readonly minutesSet: number | null;
  readonly practised: number | null;
}

/** Steps that are looked ahead, and reviews that are offered. */
const AHEAD = 6;
const MOST_DUE = 9;
const WHOLE_NAME = 'The whole piece';

/** What an event says that only takes another one back. */
const NOTHING_DONE = { chunk: '', step: '', hand: null, counting: false, tempo: null, grade: null } as const;

const sendable = (week: readonly WeekItem[]) => week.map((item) => ({ ...item, steps: [...item.steps] }));

/** What is played again, as a step. */
const AGAIN: Step = {
  id: REVIEW,
  says: 'Play it again',
  hand: 'both',
  counting: false,
  tempi: 'none',
  ladder: [],
  minutes: 1,
};

/** How what is said reaches the server. */
type LessonPost = Pick<Outbox, 'left' | 'push' | 'flush' | 'close' | 'conflict' | 'settle'>;

export class LessonState {
  readonly #today: string;
  readonly #outbox: LessonPost;
  #view = $state.raw<LessonView>({ piece: null, others: [], chunk: null });
  /** What was said on this page of steps, in whatever piece, each with a number of its own: the server may not have it yet. */
  #own = $state.raw<readonly { readonly id: number; readonly sent: SentEvent | SentWithdrawal }[]>([]);
  #number = Date.now() * 1000;
  left = $state(0);
  isAway = $state(false);
  refused = $state('');
  /** What was changed in another window as well, and waits for a choice. */
  conflict = $state.raw<Conflict | null>(null);
  /** What the server has when all that was said has arrived: each change says what it was made from. */
  #base: LessonFields;

  chunkId = $state('');
  /** The step in hand where it was chosen; else what is next. */
  #chosen = $state<string>();
  /** The tempo that was chosen or tapped for it, in quarter notes per minute. */
  tempo = $state<number>();
  /** What was ticked last: how it went is said of it. */
  lastToken = $state<string>();
  note = $state('');
  week = $state.raw<readonly WeekItem[] | null>(null);
  minutes = $state(15);
  practised = $state<number | null>(null);
  #taps = $state.raw<readonly number[]>([]);

  constructor(start: LessonStart, open = (events: OutboxEvents): LessonPost => new Outbox(start.id, events)) {
    this.#today = start.today;
    this.note = start.note;
    this.week = start.week;
    this.minutes = start.minutes;
    this.practised = start.practised;
    const { note, week, minutesSet, practised } = start;
    this.#base = { note, week: week && sendable(week), minutesSet, practised };
    this.#outbox = open({
      onchange: (left, isAway) => {
        this.left = left;
        this.isAway = isAway;
      },
      onrefused: (why) => (this.refused = why),
      onconflict: (conflict) => {
        this.conflict = conflict;
        this.#base = { ...this.#base, ...conflict.there };
      },
    });
    this.conflict = this.#outbox.conflict;
    this.#view = start;
    // What was kept in the browser and never reached the server holds, too.
    for (const sent of this.#outbox.left) this.#hold(sent);
    this.show(start);
  }

  /** Opens a piece within the lesson: what was written, set and ticked meanwhile stays. */
  show(view: LessonView): void {
    this.#view = view;
    const wanted = [view.chunk, this.next[0]?.chunk.id, this.reviews[0]?.chunk, this.chunks[0]?.id];
    this.choose(wanted.find((id) => this.walk.some((c) => c.id === id)) ?? '');
  }

  /** Takes something said into the lesson as it stands. */
  #hold(sent: Sent): void {
    if (sent.kind === 'change') {
      const { kind: _kind, was: _was, ...fields } = sent;
      this.#showFields(fields);
      this.#base = { ...this.#base, ...fields };
      return;
    }
    this.#own = [...this.#own, { id: ++this.#number, sent }];
  }

  #showFields({ note, week, minutesSet, practised }: LessonFields): void {
    this.note = note ?? this.note;
    this.minutes = minutesSet ?? this.minutes;
    if (week !== undefined) this.week = week;
    if (practised !== undefined) this.practised = practised;
  }

  /** Changes fields of the lesson, from what they are. */
  #change(fields: LessonFields): void {
    const was = Object.fromEntries(
      Object.keys(fields).map((field) => [field, this.#base[field as keyof LessonFields]]),
    );
    this.#say({ kind: 'change', ...fields, was });
  }

  /** Settles a conflict: with what was written here, what is there, or for the notes both. */
  settle(choice: 'mine' | 'theirs' | 'both'): void {
    const { conflict } = this;
    if (!conflict) return;
    const { there, typed } = conflict;
    this.conflict = null;
    this.#outbox.settle();
    this.#base = { ...this.#base, ...there };
    if (choice === 'theirs') return this.#showFields(there);
    const both =
      choice === 'both' && there.note && typed.note ? { note: `${there.note}\n${typed.note}` } : {};
    this.#change({ ...typed, ...both });
  }

  /** Holds something, keeps it and sends it. */
  #say(sent: Sent): void {
    this.#hold(sent);
    this.#outbox.push(sent);
  }

  get piece(): OpenPiece | null {
    return this.#view.piece;
  }

  /** Everything that is known of the open piece. */
  readonly events: readonly LessonEvent[] = $derived.by(() => {
    const { piece } = this;
    if (!piece) return [];
    const known = piece.events.map((e) => e.token);
    const own = this.#own.filter(
      ({ sent }) => sent.assignment === piece.assignment && !known.includes(sent.token),
    );
    const numberOf = (name: number | string): number =>
      typeof name === 'number'
        ? name
        : (piece.events.find((e) => e.token === name)?.id ?? own.find((o) => o.sent.token === name)?.id ?? 0);
    return [
      ...piece.events,
      ...own.map(({ id, sent }): LessonEvent => {
        const said = { id, token: sent.token, by: 'teacher', at: sent.at ?? instantNow(), day: this.#today };
        if (sent.kind === 'withdrawal')
          return { ...NOTHING_DONE, ...said, withdraws: numberOf(sent.withdraws) };
        const { chunk, step, tempo, grade, by = 'teacher', heard } = sent;
        return {
          ...said,
          ...playedBy(step, sent),
          chunk,
          step,
          tempo,
          grade,
          by,
          ...(heard ? { heard } : {}),
          withdraws: null,
        };
      }),
    ];
  });
  readonly chunks: readonly Chunk[] = $derived.by(() =>
    this.piece ? chunksIn(this.piece.plan, this.piece, this.piece.goal) : [],
  );
  readonly #learned = $derived.by(() => learnedIn(this.piece?.ids ?? [], this.events, this.piece?.carried));
  readonly states = $derived.by(() =>
    this.piece ? measureStates(this.piece.form, this.#learned, this.piece.goal) : [],
  );
  readonly plans: readonly ChunkState[] = $derived.by(() => planState(this.chunks, this.#learned));
  readonly next = $derived.by(() => nextSteps(this.plans, AHEAD));
  /** What is kept alive of the open piece. */
  readonly #kept = $derived.by(() =>
    this.piece ? reviewsOf(this.chunks, this.#learned, this.states, this.piece.ids, this.piece.goal) : [],
  );
  /** What of it is due. */
  readonly reviews = $derived.by(() => dueOn(this.#kept, this.#today, MOST_DUE));
  /** The whole piece, where it is kept alive as one. */
  readonly whole: Chunk | null = $derived.by(() => {
    const id = this.#kept.find((r) => r.isWhole)?.chunk;
    if (id === undefined || !this.piece) return null;
    const places = placesOf(this.piece.ids, id);
    if (!places) return null;
    return { id, ...places, name: WHOLE_NAME, section: WHOLE_NAME, difficulty: 0, steps: [] };
  });
  /** Chunks in the order of the music, and the whole piece at the end. */
  readonly walk: readonly Chunk[] = $derived.by(() => [
    ...[...this.chunks].sort(inMusic),
    ...(this.whole && !this.chunks.some((c) => c.id === this.whole!.id) ? [this.whole] : []),
  ]);
  readonly chunk = $derived(this.walk.find((c) => c.id === this.chunkId) ?? this.walk[0]);
  /** The steps of the chunk in hand; playing it again first, where that is due. */
  readonly steps: readonly ChunkState['steps'][number][] = $derived.by(() => {
    const own = this.plans.find((p) => p.chunk.id === this.chunk?.id)?.steps ?? [];
    const isDue = this.reviews.some((r) => r.chunk === this.chunk?.id);
    const again = this.today.findLast((e) => e.chunk === this.chunk?.id && e.step === REVIEW);
    if (!isDue && !again && this.chunk !== this.whole) return own;
    const done = again ? { tempo: again.tempo, at: again.at } : null;
    return [{ ...AGAIN, done, measures: 0, tempo: null, passed: done !== null, waits: false }, ...own];
  });
  readonly step = $derived(
    this.steps.find((s) => s.id === this.#chosen) ??
      this.steps.find((s) => !s.passed && !s.waits) ??
      this.steps.at(-1),
  );
  /** What was done today in the open piece and holds. */
  get today(): readonly LessonEvent[] {
    return holding(this.events).filter((e) => e.day === this.#today);
  }
  /** The tempo that a tick would say: chosen, or what the step asks for. */
  readonly asked = $derived(
    this.step?.hand && this.step.ladder.length > 0
      ? (this.tempo ?? nextRung(this.step, this.step.tempo))
      : (this.tempo ?? null),
  );
  readonly rungs: readonly number[] = $derived.by(() => {
    const all = (this.chunk?.steps ?? []).flatMap((s) => s.ladder).sort((a, b) => a - b);
    return all.filter((tempo, i) => tempo !== all[i - 1]);
  });
  /** What was ticked last and still holds. */
  readonly last = $derived(
    this.lastToken === undefined ? undefined : holding(this.events).find((e) => e.token === this.lastToken),
  );
  readonly lastStep = $derived(this.last && this.nameOf(this.last.step));

  nameOf(step: string): string {
    return step === REVIEW
      ? AGAIN.says
      : (this.chunks.flatMap((c) => c.steps).find((s) => s.id === step)?.says ?? step);
  }

  choose(chunk: string): void {
    this.chunkId = chunk;
    this.#chosen = undefined;
    this.tempo = undefined;
    this.lastToken = undefined;
  }

  chooseStep(step: string): void {
    this.#chosen = step;
    this.tempo = undefined;
    this.lastToken = undefined;
  }

  /** To the chunk before or after in the music. */
  walkBy(by: number): void {
    const at = this.walk.findIndex((c) => c.id === this.chunk?.id);
    const to = this.walk[Math.min(this.walk.length - 1, Math.max(0, at + by))];
    if (to) this.choose(to.id);
  }

  stepBy(by: number): void {
    const at = this.steps.findIndex((s) => s.id === this.step?.id);
    const to = this.steps[Math.min(this.steps.length - 1, Math.max(0, at + by))];
    if (to) this.chooseStep(to.id);
  }

  /** Writes down that a step was done, at the tempo that is asked; how it went can be said with it or after it. */
  tick(
    step: Step | undefined = this.step,
    grade: Grade | null = null,
    tempo: number | null = this.askedOf(step),
    basis: Pick<SentEvent, 'by' | 'heard'> = {},
  ): void {
    const { piece, chunk } = this;
    if (!piece || !chunk || !step) return;
    const token = formToken();
    this.#say({
      kind: 'event',
      token,
      assignment: piece.assignment,
      chunk: chunk.id,
      step: step.id,
      hand: step.hand,
      counting: step.counting,
      tempo,
      grade,
      ...basis,
      at: instantNow(),
    });
    this.lastToken = token;
    this.#chosen = undefined;
    this.tempo = undefined;
  }

  askedOf(step: Step | undefined): number | null {
    if (!step) return null;
    if (step.id === this.step?.id) return this.asked;
    return step.ladder.length > 0 ? nextRung(step, null) : null;
  }

  /** Takes back the last time a step of the chunk in hand was done. */
  untick(step: string): void {
    const event = holding(this.events).findLast((e) => e.step === step && e.chunk === this.chunk?.id);
    if (event) this.#withdraw(event);
    else this.refused = 'Checked off in another chunk or an earlier version; uncheck it there.';
  }

  #withdraw({ token, id }: LessonEvent): void {
    if (!this.piece) return;
    this.#say({
      kind: 'withdrawal',
      token: formToken(),
      assignment: this.piece.assignment,
      withdraws: token ?? id,
      at: instantNow(),
    });
    if (token === this.lastToken) this.lastToken = undefined;
  }

  /**
   * Takes what the ear proposed for the step in hand, or another grade for it: what was heard is kept with it, and whose grade it is.
   * The tempo that was reached counts, up to what was asked.
   */
  accept(heard: Heard, grade: Grade = heard.grade): void {
    const asked = this.askedOf(this.step);
    const tempo = asked === null || heard.tempo === null ? asked : Math.min(asked, heard.tempo);
    this.tick(this.step, grade, tempo, { by: grade === heard.grade ? 'ear' : 'teacher', heard });
  }

  /** Says how it went: of what was ticked last, or else of the step in hand, which is ticked with it. */
  grade(grade: Grade): void {
    const { last } = this;
    if (!last) return this.tick(this.step, grade);
    const step = this.steps.find((s) => s.id === last.step);
    if (!step || last.grade === grade) return;
    this.#withdraw(last);
    this.tick(step, grade, last.tempo);
  }

  /** The beat is tapped; from the third tap on there is a tempo. `toQuarters` reads beats per minute. */
  tap(now: number, toQuarters: (beats: number) => number): void {
    this.#taps = tapped(this.#taps, now);
    const beats = tempoOfTaps(this.#taps);
    if (beats !== undefined) this.tempo = Math.min(400, Math.max(20, toQuarters(beats)));
  }

  get isTapping(): boolean {
    return this.#taps.length > 0;
  }

  write(note: string): void {
    this.#change({ note });
  }

  setPractised(practised: number | null): void {
    this.#change({ practised });
  }

  /** What would be set for the week, from what is next and due now. */
  readonly proposed: readonly WeekItem[] = $derived.by(() => {
    const { piece, others } = this.#view;
    const own = piece ? [{ assignment: piece.assignment, next: this.next, due: this.reviews }] : [];
    return weekOf([...own, ...others], this.minutes);
  });
  readonly planned = $derived(this.week ?? this.proposed);

  setMinutes(minutesSet: number): void {
    this.#change({ minutesSet, week: null });
  }

  /** Sets the week as it stands, or without one of its items; null proposes it anew. */
  setWeek(items: readonly WeekItem[] | null = this.planned): void {
    this.#change({ week: items && sendable(items), minutesSet: this.minutes });
  }

  /** Everything is with the server; rejects where it is away. */
  flush(): Promise<void> {
    return this.#outbox.flush();
  }

  close(): void {
    this.#outbox.close();
  }
}

/** Grades by their keys, 1 to 4. */
export const GRADE_KEYS = GRADES.map((says, i) => ({ grade: (i + 1) as Grade, says }));
