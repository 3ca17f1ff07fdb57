/** A practice room: the step in hand, how it is practised now, what was heard of it, and what is told to the server. */
import { chunkOf } from '$core/lessons/chunkId';
import type { Heard } from '$core/lessons/heard';
import { ticksOf, type Places } from '$core/score/places';
import type { RoomSent } from '$core/lessons/record';
import { taskId, type RoomPiece, type RoomTask } from '$core/lessons/room';
import type { TakenHand } from '$core/takes/expectation';
import { proposedGrade } from '$core/takes/grade';
import { moveAfter, type Move } from '$core/takes/move';
import { playbackOf } from '$core/takes/playback';
import { prepareMicrophone } from '$ui/ear/microphone';
import { formToken } from '$ui/form/token';
import { instantNow } from '$ui/lesson/tapped';
import { Ear, type EarSource } from '$ui/lesson/ear.svelte';
import { FASTEST, SLOWEST, SoundState } from '$ui/sound/sound.svelte';
import { Clock } from './clock.svelte';

/** Where a room puts what was done. */
export interface RoomRecord {
  /** What was done of which whoever made the tasks does not know. */
  readonly kept: readonly RoomSent[];
  /** Where it is now, in a word; nothing where that is as usual. */
  readonly says: string;
  /** Why something could not be kept. */
  readonly refused: string;
  push(sent: RoomSent): void;
  close(): void;
}

interface RoomStart {
  readonly record: RoomRecord;
  readonly tasks: readonly RoomTask[];
  /** What is played, heard and shown of each piece, by its assignment: drawn anew where the screen asks for it. */
  readonly pieces: () => Readonly<Record<string, RoomPiece>>;
  readonly simulated: boolean;
}

/** What of a step is practised now: all of it, or what a proposal has made of it. */
interface Practising extends Places {
  readonly hand: TakenHand | 'both';
  readonly tempo: number;
}

/** What this device listens to, as it was chosen last. */
const SOURCE = 'keypath listens to';
/** Seconds before the first beat from which a microphone listens. */
const EARLY = 0.2;
/** One notch of the tempo. */
const NOTCH = 4;
const [LOWEST, HIGHEST] = [30, 240];

export class RoomState {
  /** Names of tasks that are done. */
  done = $state.raw<readonly string[]>([]);
  task = $state.raw<RoomTask>();
  practising = $state.raw<Practising>({ from: 0, to: 0, hand: 'both', tempo: 60 });
  /** The program plays the other hand, or the click goes on. */
  plays = $state<'click' | 'other hand'>('click');
  /** What to do after the take. */
  move = $state.raw<Move>();
  readonly ear: Ear;
  readonly sound: SoundState;
  readonly clock: Clock;
  readonly #start: RoomStart;

  constructor(start: RoomStart) {
    this.#start = start;
    this.ear = new Ear(() => this.#heard());
    if (localStorage.getItem(SOURCE) === 'microphone') this.ear.source = 'microphone';
    this.sound = new SoundState(
      () => this.music,
      async (events) => new (await import('$ui/sound/player')).Player(events),
    );
    this.done = [
      ...start.tasks.filter((t) => t.isDone).map(taskId),
      ...start.record.kept.flatMap((sent) =>
        sent.kind === 'event' && sent.by === 'learner' ? [taskId(sent)] : [],
      ),
    ];
    this.clock = new Clock((seconds) =>
      this.#tell({ kind: 'practice', token: formToken(), seconds, at: instantNow() }),
    );
  }

  /** The piece of the step in hand, as it is played, heard and shown. */
  get #piece(): RoomPiece | undefined {
    return this.task && this.#start.pieces()[this.task.assignment];
  }
  get music(): RoomPiece['music'] | undefined {
    return this.#piece?.music;
  }
  get pictures(): readonly string[] {
    return this.#piece?.pictures[this.task?.shows ?? ''] ?? [];
  }

  /** The step after the one in hand that is not done yet. */
  get next(): RoomTask | undefined {
    const { tasks } = this.#start;
    const at = this.task ? tasks.indexOf(this.task) : -1;
    return [...tasks.slice(at + 1), ...tasks.slice(0, Math.max(0, at))].find(
      (t) => !this.done.includes(taskId(t)),
    );
  }

  /** Opens a step, or with nothing goes back to the list. */
  open(task: RoomTask | undefined): void {
    this.quiet();
    this.task = task;
    if (!task) return;
    this.clock.begin();
    this.whole();
  }

  /** Listens to something else from now on; this device remembers it. */
  listenTo(source: EarSource): void {
    this.ear.forget();
    this.move = undefined;
    this.ear.source = source;
    localStorage.setItem(SOURCE, source);
    if (source === 'microphone') void prepareMicrophone();
  }

  /** All of the step again, at its own tempo. */
  whole(): void {
    const { task } = this;
    if (!task) return;
    const { from, to, fromBeat, toBeat } = task;
    this.practising = { from, to, fromBeat, toBeat, hand: task.hand ?? 'both', tempo: task.tempo };
    this.move = undefined;
    this.ear.forget();
  }
  get isWhole(): boolean {
    const { task, practising } = this;
    return (
      practising.from === task?.from && practising.to === task.to && practising.hand === (task.hand ?? 'both')
    );
  }

  quicken(by: number): void {
    const tempo = Math.min(HIGHEST, Math.max(LOWEST, this.practising.tempo + by * NOTCH));
    this.practising = { ...this.practising, tempo };
  }

  /** Counts in and listens; or ends the take. */
  async take(): Promise<void> {
    const { music, practising, ear, sound } = this;
    this.clock.begin();
    if (ear.isListening) {
      sound.stop();
      return ear.stop();
    }
    if (!music) return;
    this.move = undefined;
    const { hand, tempo } = practising;
    await ear.start({ version: music, places: practising, hand, tempo }, this.#start.simulated);
    if (ear.problem) return;
    // What the program plays would be heard as well: a microphone gets the count-in alone, before it listens.
    const isOpen = ear.source === 'microphone';
    sound.click = !isOpen;
    sound.share = this.#share;
    const other = hand === 'right' ? 'left' : hand === 'left' ? 'right' : 'none';
    await sound.accompany(practising, this.plays === 'other hand' && !isOpen ? other : 'none');
    if (isOpen) ear.hush(sound.begins - EARLY);
  }

  /** Plays how it goes, in the hands that are asked for. */
  async play(): Promise<void> {
    const { music, practising, sound } = this;
    this.clock.begin();
    if (sound.isPlaying) return sound.stop();
    if (!music) return;
    const { hand } = practising;
    sound.click = false;
    sound.share = this.#share;
    sound.hands = hand;
    sound.countIn = true;
    // Round the stretch where it loops, else once.
    if (sound.loops) await sound.toggle(ticksOf(music.score.measures, practising).start, practising);
    else await sound.accompany(practising, hand);
  }

  /** What was played in the take. */
  async playTake(): Promise<void> {
    const { music, practising, ear, sound } = this;
    if (!music || ear.keystrokes.length === 0) return;
    const { from } = practising;
    sound.click = false;
    await sound.hearPhrase({
      performance: playbackOf(ear.keystrokes, from),
      measures: music.score.measures,
      from,
      to: from,
    });
  }

  get #share(): number {
    const tempo = this.music?.score.tempo ?? 60;
    return Math.min(FASTEST, Math.max(SLOWEST, this.practising.tempo / tempo));
  }

  /** A take is over: it is told, and what to do follows from it. */
  #heard(): void {
    const { task, ear, practising } = this;
    this.sound.stop();
    const [take, heard] = [ear.take, ear.heard];
    if (!task || !take) return;
    const grade = proposedGrade(take, practising.tempo)?.grade;
    this.move = moveAfter(take, grade, { ...practising, ladder: this.isWhole ? task.ladder : [] });
    if (!heard) return;
    this.#tell(this.#event(heard));
    if (heard.grade >= 3 && this.isWhole && this.move.do === 'next') this.#mark(task);
  }

  #event(heard: Heard): RoomSent {
    const { task, music, practising } = this;
    const ids = music!.score.measures.map((m) => m.id);
    const isPart = !this.isWhole;
    return {
      kind: 'event',
      token: formToken(),
      assignment: task!.assignment,
      chunk: isPart ? chunkOf(ids, practising) : task!.chunk,
      // One hand of a step for both is a step of that hand.
      step: isPart && practising.hand !== 'both' ? practising.hand : task!.step,
      hand: practising.hand,
      counting: task!.counting,
      tempo: heard.tempo === null ? null : Math.min(400, Math.max(5, Math.round(heard.tempo))),
      grade: heard.grade,
      by: 'ear',
      heard,
      at: instantNow(),
    };
  }

  /** By the student's own word: done, without an ear. */
  didIt(): void {
    const { task } = this;
    if (!task) return;
    this.#tell({
      kind: 'event',
      token: formToken(),
      assignment: task.assignment,
      chunk: task.chunk,
      step: task.step,
      hand: task.hand,
      counting: task.counting,
      tempo: null,
      grade: null,
      by: 'learner',
      at: instantNow(),
    });
    this.#mark(task);
  }

  #mark(task: RoomTask): void {
    this.done = [...this.done, taskId(task)];
  }

  /** Does what was proposed. */
  follow(): void {
    const { move, practising } = this;
    if (!move) return;
    this.ear.forget();
    this.move = undefined;
    switch (move.do) {
      case 'next':
        if (this.isWhole) return this.open(this.next);
        return this.whole();
      case 'measure':
        this.practising = { from: move.measure, to: move.measure, hand: move.hand, tempo: move.tempo };
        break;
      case 'hand':
        this.practising = { ...practising, hand: move.hand };
        break;
      case 'slower':
      case 'faster':
        this.practising = { ...practising, tempo: move.tempo };
        break;
      case 'again':
      case 'all':
    }
    void this.take();
  }

  get record(): RoomRecord {
    return this.#start.record;
  }
  #tell(sent: RoomSent): void {
    this.record.push(sent);
  }

  quiet(): void {
    this.sound.stop();
    this.ear.forget();
    this.move = undefined;
  }

  close(): void {
    this.quiet();
    this.ear.close();
    this.clock.close();
    this.record.close();
  }
}
