/**
 * Plays programs: a little ahead of time, each event at its own second of the audio clock, so that nothing drifts and what the page is
 * busy with is not heard. Where there is no sound device the same clock runs silently.
 */
import type { Program } from '$core/performance/program';
import {
  clicker,
  counter,
  grand,
  standIn,
  toneLibrary,
  type Clicker,
  type Counter,
  type Piano,
  type Tone,
} from './instruments';

/** Seconds ahead that are handed to the audio graph, and between two looks. */
const AHEAD = 0.25;
const EVERY = 0.05;
/** Seconds from the wish to the first sound: as little as the graph needs to be in time. */
export const START = 0.03;
/** Milliseconds after the first sound in which nothing else is begun. */
const LATER = 250;
/** Milliseconds to wait for an audio device to begin. */
const PATIENCE = 600;

interface Played {
  readonly program: Program;
  /** Begins again at the music when it ends. */
  readonly loops: boolean;
}

export interface PlayerEvents {
  /** It has come to its end, or was stopped. */
  readonly onend: () => void;
  /** What cannot be heard, and why; undefined where all is well. */
  readonly onsilence: (why: string | undefined) => void;
}

interface Running extends Played {
  /** Second of the clock at which the program's nought lies. */
  zero: number;
  /** Places of what comes next. */
  note: number;
  click: number;
  word: number;
}

export interface Graph {
  readonly tone: Tone;
  /** Of its own: a recording that is rendered meanwhile has another. */
  readonly context: BaseAudioContext;
  readonly stand: Piano;
  piano: Piano;
  /** The recorded piano, loaded when it is first asked for. */
  readonly grand: () => Promise<Piano>;
  readonly clicks: Clicker;
  readonly voice: Counter;
}

/** The place of the first event at a second or after it. */
function firstFrom(events: readonly { readonly at: number }[], second: number): number {
  const place = events.findIndex((e) => e.at >= second - 0.001);
  return place < 0 ? events.length : place;
}

/** The instruments on a context of their own; undefined where the browser has none. */
async function buildGraph(): Promise<Graph | undefined> {
  try {
    const tone = await toneLibrary();
    // Its own clock would be a worker made of text, which the page's policy forbids; this player has one of its own.
    tone.setContext(new tone.Context({ clockSource: 'timeout', latencyHint: 'interactive', lookAhead: 0 }));
    const stand = standIn(tone);
    stand.node.toDestination();
    const clicks = clicker(tone);
    clicks.node.toDestination();
    const context = tone.getContext().rawContext as unknown as BaseAudioContext;
    return {
      tone,
      context,
      stand,
      piano: stand,
      grand: () => grand(tone, context),
      clicks,
      voice: counter(context),
    };
  } catch (error) {
    console.warn('No sound:', error);
    return undefined;
  }
}

export class Player {
  readonly #events: PlayerEvents;
  readonly #make: () => Promise<Graph | undefined>;
  #built: Promise<Graph | undefined> | undefined;
  #opened: Promise<Graph | undefined> | undefined;
  #ready: Graph | undefined;
  #running: Running | undefined;
  #timer: ReturnType<typeof setInterval> | undefined;
  /** Counts wishes: what a newer one has overtaken does nothing. */
  #wish = 0;

  constructor(events: PlayerEvents, build: () => Promise<Graph | undefined> = buildGraph) {
    this.#events = events;
    this.#make = build;
  }

  /** Begins a program, at a second of it. What was playing stops. */
  async play(played: Played, at = 0): Promise<void> {
    const wish = ++this.#wish;
    this.#silence();
    const graph = this.#ready ?? (await (this.#opened ??= this.#open()));
    if (wish !== this.#wish) return;
    const { program } = played;
    this.#running = {
      ...played,
      zero: this.#now() + START - at,
      note: firstFrom(program.notes, at),
      click: firstFrom(program.clicks, at),
      word: firstFrom(program.words, at),
    };
    this.#pump(graph);
    performance.mark('sound');
    this.#timer = setInterval(() => this.#pump(graph), EVERY * 1000);
  }

  /** Seconds of the program that have been heard; undefined where nothing plays. */
  get position(): number | undefined {
    return this.#running && this.#now() - this.#running.zero;
  }

  stop(): void {
    this.#wish += 1;
    if (!this.#running) return;
    this.#silence();
    this.#events.onend();
  }

  #silence(): void {
    clearInterval(this.#timer);
    this.#running = undefined;
    this.#ready?.piano.silence();
    this.#ready?.stand.silence();
    this.#ready?.voice.silence();
  }

  /** Seconds of the clock: the audio device's, or the machine's where there is none. */
  #now(): number {
    return this.#ready ? this.#ready.context.currentTime : performance.now() / 1000;
  }

  /** Hands over what comes next. */
  #pump(graph: Graph | undefined): void {
    const running = this.#running;
    if (!running) return;
    const { program, loops } = running;
    const until = this.#now() + AHEAD;
    for (;;) {
      const note = program.notes[running.note];
      if (!note || running.zero + note.at >= until) break;
      graph?.piano.strike(note, running.zero + note.at, running.zero + note.until);
      running.note += 1;
    }
    for (;;) {
      const click = program.clicks[running.click];
      if (!click || running.zero + click.at >= until) break;
      graph?.clicks.click(click, running.zero + click.at);
      running.click += 1;
    }
    for (;;) {
      const word = program.words[running.word];
      if (!word || running.zero + word.at >= until) break;
      graph?.voice.say(word, running.zero + word.at);
      running.word += 1;
    }
    if (this.#now() < running.zero + program.ends - (loops ? AHEAD : 0)) return;
    if (!loops) return this.stop();
    // The count comes once.
    running.zero += program.ends - program.begins;
    running.note = 0;
    running.click = firstFrom(program.clicks, program.begins);
    running.word = firstFrom(program.words, program.begins);
    // At once: the next round's first strokes are due before the next look.
    this.#pump(graph);
  }

  /** Makes what sounds, before it is wanted. What cannot be made is said when it is. */
  async prepare(): Promise<void> {
    await (this.#built ??= this.#make());
  }

  /** The audio graph with its device; undefined where there is none to play on. */
  async #open(): Promise<Graph | undefined> {
    try {
      const graph = await (this.#built ??= this.#make());
      if (!graph) throw new Error('there is no sound in this browser');
      await Promise.race([
        graph.tone.start(),
        new Promise((_, no) => setTimeout(() => no(new Error('the sound device does not begin')), PATIENCE)),
      ]);
      if (graph.context.state !== 'running') throw new Error('the browser does not let it begin');
      this.#ready = graph;
      // After the first note: unpacking the recordings takes the machine.
      setTimeout(() => this.#load(graph), LATER);
      return graph;
    } catch (error) {
      console.warn('No sound:', error);
      this.#opened = undefined;
      this.#events.onsilence(
        'No sound: the computer has no sound device, or the browser blocks it. The cursor still follows the music.',
      );
      return undefined;
    }
  }

  /** The grand takes over from the stand-in when it is there. */
  #load(graph: Graph): void {
    graph
      .grand()
      .then((piano) => {
        piano.node.toDestination();
        graph.piano = piano;
        this.#events.onsilence(undefined);
      })
      .catch((error: unknown) => {
        console.warn('The recorded piano could not be loaded:', error);
        this.#events.onsilence('The recorded piano couldn’t be loaded; you hear a plain tone.');
      });
  }
}
