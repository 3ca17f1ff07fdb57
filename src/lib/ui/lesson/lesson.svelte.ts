/** A lesson as it goes on: what is in hand, what was ticked and how it went, what is written and set. All of it is kept at once. */
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
import { REVIEW, stepFacts } from '$core/lessons/steps';
import { weekOf, type PieceToPractise, type WeekItem } from '$core/lessons/week';
import { formToken } from '$ui/form/token';
import { Outbox, type Sent } from './outbox';
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
}

export interface LessonStart {
  readonly id: string;
  readonly today: string;
  readonly note: string;
  readonly week: readonly WeekItem[] | null;
  readonly minutes: number;
  readonly practised: number | null;
  readonly piece: OpenPiece | null;
  /** The learner's other pieces. */
  readonly others: readonly PieceToPractise[];
  /** The chunk to open at. */
  readonly chunk: string | null;
}

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

export class LessonState {
  readonly #start: LessonStart;
  readonly #outbox: Outbox;
  /** Events of this page that the server may not have yet. */
  #own = $state.raw<readonly (LessonEvent & { readonly token: string; readonly assignment: string })[]>([]);
  #number = Date.now() * 1000;
  left = $state(0);
  isAway = $state(false);
  refused = $state('');

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

  constructor(start: LessonStart, outbox?: Outbox) {
    this.#start = start;
    this.note = start.note;
    this.week = start.week;
    this.minutes = start.minutes;
    this.practised = start.practised;
    this.#outbox =
      outbox ??
      new Outbox(start.id, {
        onchange: (left, isAway) => {
          this.left = left;
          this.isAway = isAway;
        },
        onrefused: (why) => (this.refused = why),
      });
    this.#takeUp(this.#outbox.left);
    const { piece, chunk } = start;
    const first = piece && (this.next[0]?.chunk.id ?? this.reviews[0]?.chunk ?? this.chunks[0]?.id);
    this.chunkId = (this.chunks.some((c) => c.id === chunk) ? chunk : first) ?? '';
  }

  /** What was kept in the browser and never reached the server holds, too. */
  #takeUp(left: readonly Sent[]): void {
    for (const { kind, body } of left) {
      if (kind === 'change') {
        if (typeof body.note === 'string') this.note = body.note;
        if (body.week !== undefined) this.week = body.week as readonly WeekItem[] | null;
        if (typeof body.minutesSet === 'number') this.minutes = body.minutesSet;
        if (typeof body.practised === 'number') this.practised = body.practised;
        continue;
      }
      const { token, assignment, withdraws } = body as {
        token: string;
        assignment: string;
        withdraws?: number | string;
      };
      const chunk = typeof body.chunk === 'string' ? body.chunk : '';
      const step = typeof body.step === 'string' ? body.step : '';
      this.#add({
        token,
        assignment,
        chunk,
        step,
        tempo: (body.tempo as number | null | undefined) ?? null,
        grade: (body.grade as Grade | null | undefined) ?? null,
        withdraws: withdraws === undefined ? null : this.#numberOf(withdraws),
      });
    }
  }

  /** The number of an event by its number or its token. */
  #numberOf(name: number | string): number {
    if (typeof name === 'number') return name;
    return this.events.find((e) => e.token === name)?.id ?? 0;
  }

  #add(event: {
    token: string;
    assignment: string;
    chunk: string;
    step: string;
    tempo: number | null;
    grade: Grade | null;
    withdraws: number | null;
  }): void {
    const facts = stepFacts(event.step);
    const own = this.chunks.flatMap((c) => c.steps).find((s) => s.id === event.step);
    this.#own = [
      ...this.#own,
      {
        ...event,
        id: ++this.#number,
        hand: facts?.hand ?? own?.hand ?? (event.step === REVIEW ? 'both' : null),
        counting: facts?.counting ?? false,
        by: 'teacher',
        at: instantNow(),
        day: this.#start.today,
      },
    ];
  }

  get piece(): OpenPiece | null {
    return this.#start.piece;
  }

  /** Everything that is known of the open piece. */
  readonly events: readonly LessonEvent[] = $derived.by(() => {
    const { piece } = this.#start;
    if (!piece) return [];
    const known = piece.events.map((e) => e.token);
    return [
      ...piece.events,
      ...this.#own.filter((e) => e.assignment === piece.assignment && !known.includes(e.token)),
    ];
  });
  readonly chunks: readonly Chunk[] = $derived.by(() =>
    this.#start.piece ? chunksIn(this.#start.piece.plan, this.#start.piece, this.#start.piece.goal) : [],
  );
  readonly #learned = $derived.by(() => learnedIn(this.#start.piece?.ids ?? [], this.events));
  readonly states = $derived.by(() =>
    this.#start.piece ? measureStates(this.#start.piece.form, this.#learned, this.#start.piece.goal) : [],
  );
  readonly plans: readonly ChunkState[] = $derived.by(() => planState(this.chunks, this.#learned));
  readonly next = $derived.by(() => nextSteps(this.plans, 6));
  /** What is kept alive of the open piece and due. */
  readonly reviews = $derived.by(() => {
    const { piece, today } = this.#start;
    return piece
      ? dueOn(reviewsOf(this.chunks, this.#learned, this.states, piece.ids, piece.goal), today, 9)
      : [];
  });
  /** The whole piece, where it is kept alive as one. */
  readonly whole: Chunk | null = $derived.by(() => {
    const { piece } = this.#start;
    if (
      !piece ||
      this.chunks.length === 0 ||
      this.states.some(
        (s, i) =>
          piece.form.firstSeen[i] === i && s !== 'goal' && this.chunks.some((c) => c.from <= i && i <= c.to),
      )
    )
      return null;
    const from = Math.min(...this.chunks.map((c) => c.from));
    const to = Math.max(...this.chunks.map((c) => c.to));
    return {
      id: `${piece.ids[from]!}..${piece.ids[to]!}`,
      from,
      to,
      name: 'The whole piece',
      section: 'The whole piece',
      difficulty: 0,
      steps: [],
    };
  });
  /** Chunks in the order of the music, and the whole piece at the end. */
  readonly walk: readonly Chunk[] = $derived.by(() => [
    ...[...this.chunks].sort((a, b) => a.from - b.from),
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
    return holding(this.events).filter((e) => e.day === this.#start.today);
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
  ): void {
    const { piece } = this.#start;
    const { chunk } = this;
    if (!piece || !chunk || !step) return;
    const token = formToken();
    const body = { token, assignment: piece.assignment, chunk: chunk.id, step: step.id, tempo, grade };
    this.#add({ ...body, withdraws: null });
    this.#send({
      kind: 'event',
      body: { ...body, hand: step.hand, counting: step.counting, at: instantNow() },
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
  }

  #withdraw(event: LessonEvent): void {
    const { piece } = this.#start;
    if (!piece) return;
    const token = formToken();
    this.#add({
      token,
      assignment: piece.assignment,
      chunk: event.chunk,
      step: event.step,
      tempo: null,
      grade: null,
      withdraws: event.id,
    });
    this.#send({
      kind: 'withdrawal',
      body: {
        token,
        assignment: piece.assignment,
        withdraws: event.token ?? event.id,
        at: instantNow(),
      },
    });
    if (event.token === this.lastToken) this.lastToken = undefined;
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
    this.note = note;
    this.#send({ kind: 'change', body: { note } });
  }

  setPractised(minutes: number | null): void {
    this.practised = minutes;
    this.#send({ kind: 'change', body: { practised: minutes } });
  }

  /** What would be set for the week, from what is next and due now. */
  readonly proposed: readonly WeekItem[] = $derived.by(() => {
    const { piece, others } = this.#start;
    const own = piece ? [{ assignment: piece.assignment, next: this.next, due: this.reviews }] : [];
    return weekOf([...own, ...others], this.minutes);
  });
  readonly planned = $derived(this.week ?? this.proposed);

  setMinutes(minutes: number): void {
    this.minutes = minutes;
    this.week = null;
    this.#send({ kind: 'change', body: { minutesSet: minutes, week: null } });
  }

  /** Sets the week as it stands, or without one of its items. */
  setWeek(items: readonly WeekItem[] | null = this.planned): void {
    this.week = items;
    this.#send({ kind: 'change', body: { week: items, minutesSet: this.minutes } });
  }

  /** Everything is with the server; rejects where it is away. */
  flush(): Promise<void> {
    return this.#outbox.flush();
  }

  close(): void {
    this.#outbox.close();
  }

  #send(sent: Sent): void {
    this.#outbox.push(sent);
  }
}

/** Grades by their keys, 1 to 4. */
export const GRADE_KEYS = GRADES.map((says, i) => ({ grade: (i + 1) as Grade, says }));
