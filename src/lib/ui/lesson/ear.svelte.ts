/** The ear of a lesson: listens to an instrument while a step is played, judges as it goes, and proposes how it went. */
import { insideOf, type Places } from '$core/score/places';
import { perform } from '$core/performance/perform';
import type { Heard } from '$core/lessons/heard';
import { expectationOf, type Expectation, type TakenHand } from '$core/takes/expectation';
import { judge, type JudgedMeasure, type Take } from '$core/takes/judge';
import type { Keystroke } from '$core/takes/keystroke';
import { pretendToPlay, type Habits } from '$core/takes/pretendPlayer';
import { heardOf, sayTake, slipsOf, type TakenMusic } from '$core/takes/says';
import type { Version } from '$core/version/realise';
import { listenToRoom, type Listened } from '$ui/ear/microphone';
import { listenToKeys, strikeSimulated, type Instrument } from '$ui/midi/keyboard';
import { measureText } from '$ui/text';

/** What is played in a take. */
interface Wanted {
  readonly version: Pick<Version, 'score' | 'feel'>;
  readonly places: Places;
  readonly hand: TakenHand | 'both' | null;
  /** Quarter notes per minute that are asked for. */
  readonly tempo: number;
}

/** How a measure is marked: a sign beside the words, so that no colour is needed. */
type Mark = 'right' | 'slips' | 'stopped';

/** A pretend player who slips now and then. */
const HABITS: Omit<Habits, 'seed'> = { jitter: 0.03, wrong: 0.06, missed: 0.02, drift: 0.05 };

/** Seconds of silence after the last onset of the music that end a take; a microphone has taken most of them to hear it. */
const AFTER_END: Readonly<Record<EarSource, number>> = { keyboard: 1.2, microphone: 0.5 };

export type EarSource = 'keyboard' | 'microphone';

export class Ear {
  /** What is listened to. */
  source = $state<EarSource>('keyboard');
  /** The take is over and its last sound is being judged. */
  isJudging = $state(false);
  instrument = $state.raw<Instrument>();
  /** Why nothing can be heard. */
  problem = $state('');
  isListening = $state(false);
  take = $state.raw<Take>();
  #wanted: Wanted | undefined;
  #expectation: Expectation | undefined;
  #keystrokes: Keystroke[] = [];
  #asked = false;
  /** Of the pretend player: another take at each time. */
  #seed = 0;
  #room: Listened | undefined;
  readonly #onover: () => void;
  #end: ReturnType<typeof setTimeout> | undefined;
  #pretended: ReturnType<typeof setTimeout>[] = [];

  /** `onover` is told when a take has ended and is judged. */
  constructor(onover: () => void = () => undefined) {
    this.#onover = onover;
  }

  /** What was struck in the take, in order. */
  get keystrokes(): readonly Keystroke[] {
    return this.#keystrokes;
  }

  /** Begins to listen. `simulated`: to the instrument that ships for tests. */
  async start(wanted: Wanted, simulated: boolean): Promise<void> {
    this.forget();
    const { version, places, hand, tempo } = wanted;
    this.#wanted = wanted;
    this.#expectation = expectationOf(perform(version.score, version.feel), {
      from: places.from,
      to: places.to,
      ...insideOf(version.score.measures, places),
      tempo,
      ...(hand === 'right' || hand === 'left' ? { hand } : {}),
    });
    try {
      if (this.source === 'microphone') {
        this.#room = await listenToRoom(this.#expectation, (keystrokes) => this.#heardInRoom(keystrokes));
        this.isListening = true;
        return;
      }
      this.instrument ??= await listenToKeys(({ midi, at, velocity }) => {
        if (this.isListening) this.#hear({ midi, onset: at, ...(velocity ? { velocity } : {}) });
      }, simulated);
      this.isListening = true;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : String(error);
    }
  }

  /** What the program itself plays in the next seconds is not heard. */
  hush(seconds: number): void {
    this.#room?.hush(seconds);
  }

  /** What is listened to, in words. */
  get listensTo(): string {
    return this.source === 'microphone' ? 'the microphone' : (this.instrument?.name ?? 'the keyboard');
  }

  /** What a microphone has heard so far: all of it, since what came before may be heard otherwise by now. */
  #heardInRoom(keystrokes: readonly Keystroke[]): void {
    if (!this.isListening || keystrokes.length === 0) return;
    const isMore = keystrokes.length !== this.#keystrokes.length;
    this.#keystrokes = [...keystrokes];
    if (isMore) this.#judge(false);
  }

  #hear(keystroke: Keystroke): void {
    this.#keystrokes.push(keystroke);
    if (this.#asked) return;
    // Keys of a chord come together and are judged together.
    this.#asked = true;
    requestAnimationFrame(() => {
      this.#asked = false;
      if (this.isListening) this.#judge(false);
    });
  }

  #judge(isOver: boolean): void {
    const expectation = this.#expectation;
    if (!expectation) return;
    this.take = judge(expectation, this.#keystrokes, isOver);
    clearTimeout(this.#end);
    const isThrough = this.take.passes.at(-1)?.to === expectation.onsets.length - 1;
    if (!isOver && isThrough) this.#end = setTimeout(() => this.stop(), AFTER_END[this.source] * 1000);
  }

  /** The pretend player plays what is wanted on the simulated instrument, in its own time. */
  pretend(): void {
    if (!this.#expectation || !this.isListening) return;
    const { keystrokes } = pretendToPlay(this.#expectation, { ...HABITS, seed: ++this.#seed });
    for (const { onset, midi } of keystrokes)
      this.#pretended.push(setTimeout(() => strikeSimulated(midi), onset * 1000));
  }

  /** The take is over: what was heard is judged to its end. */
  stop(): void {
    this.#clear();
    if (!this.isListening) return;
    this.isListening = false;
    const room = this.#room;
    this.#room = undefined;
    if (room) void this.#endInRoom(room);
    else this.#over();
  }

  /** The last sound is judged as well. */
  async #endInRoom(room: Listened): Promise<void> {
    const wanted = this.#wanted;
    this.isJudging = true;
    try {
      const keystrokes = await room.end();
      if (this.#wanted !== wanted) return;
      this.#keystrokes = [...keystrokes];
      this.#over();
    } catch (error) {
      this.problem = error instanceof Error ? error.message : String(error);
    } finally {
      this.isJudging = false;
    }
  }

  #over(): void {
    this.#judge(true);
    this.#onover();
  }

  #clear(): void {
    clearTimeout(this.#end);
    for (const timer of this.#pretended) clearTimeout(timer);
    this.#pretended = [];
  }

  /** Forgets the take. */
  forget(): void {
    this.#clear();
    this.problem = '';
    this.isListening = false;
    this.#room?.stop();
    this.#room = undefined;
    this.#wanted = undefined;
    this.take = undefined;
    this.#keystrokes = [];
  }

  close(): void {
    this.forget();
    this.instrument?.stop();
    this.instrument = undefined;
  }

  get #music(): TakenMusic | undefined {
    const { version } = this.#wanted ?? {};
    if (!version) return undefined;
    const { measures, parts } = version.score;
    return {
      pitchOf: (id) => parts[0]!.notes.find((n) => n.id === id)?.pitch,
      measureText: (measure) => measureText(measures[measure]!.number),
      ids: measures.map((m) => m.id),
      numbers: measures.map((m) => m.number),
      fifthsAt: (measure) => measures[measure]!.key.fifths,
    };
  }

  /** What was heard, in words; `tempoText` writes a tempo as the metre counts. */
  says(tempoText: (quarters: number) => string): string {
    const [take, music] = [this.take, this.#music];
    if (!take || !music) return '';
    return sayTake(take, music, take.tempo === undefined ? undefined : tempoText(Math.round(take.tempo)));
  }

  /** The facts that are kept with a step; undefined while nothing was played. */
  get heard(): Heard | undefined {
    const [take, music] = [this.take, this.#music];
    return take && music && this.#wanted ? heardOf(take, music, this.#wanted.tempo, this.source) : undefined;
  }

  /** Each measure that was played, with its mark and what was not right in it. */
  get marks(): readonly {
    readonly measure: number;
    readonly mark: Mark;
    readonly slips: readonly string[];
  }[] {
    const music = this.#music;
    if (!music || !this.take) return [];
    return this.take.measures.map((m) => {
      const slips = slipsOf(m, music);
      return { measure: m.measure, mark: markOf(m, slips), slips };
    });
  }

  /** Ids of written notes that were another key, or missed. */
  get slipped(): readonly string[] {
    const notes = this.take?.measures.flatMap((m) => m.notes) ?? [];
    return notes.flatMap((n) => (n.verdict === 'other' || n.verdict === 'missed' ? [n.note.id] : []));
  }
}

const markOf = ({ stood }: JudgedMeasure, slips: readonly string[]): Mark =>
  slips.length > 0 ? 'slips' : stood > 0 ? 'stopped' : 'right';
