/** What is heard on the bench, and where it is: the version in hand as it sounds, from a place or round a phrase. */
import type { Finger } from '$core/fingering/grips';
import { perform } from '$core/performance/perform';
import { isPlayed, programOf, type Hands, type PlayedHands, type Program } from '$core/performance/program';
import { type Performance } from '$core/performance/played';
import { insideOf, ticksOf, type Places } from '$core/score/places';
import type { Measure } from '$core/score/score';
import type { Ticks } from '$core/score/ticks';
import type { Version } from '$core/version/realise';
import type { HeardPhrase } from '$ui/worker/engine';
import type { Player, PlayerEvents } from './player';

/** What of a version is heard. */
type HeardVersion = Pick<Version, 'score' | 'feel' | 'counts'>;

/** Shares of the goal tempo that can be played. */
export const SLOWEST = 0.3;
export const FASTEST = 1.2;
const STEP = 0.05;

/** Measures (by index) to be played: on to the end, up to the last of them, or round and round. */
interface Stretch extends Places {
  readonly goes: 'on' | 'once' | 'round';
  /** Other hands than those that are heard otherwise. */
  readonly hands?: PlayedHands;
}

/** Milliseconds in which a picture comes first. */
const PAUSE = 150;

/** Whether two performances are the same to hear. */
const soundsAlike = (a: Performance, b: Performance): boolean =>
  a.end === b.end &&
  a.notes.length === b.notes.length &&
  a.pedals.length === b.pedals.length &&
  a.notes.every((n, i) => {
    const m = b.notes[i]!;
    return (
      n.id === m.id &&
      n.midi === m.midi &&
      n.onset === m.onset &&
      n.duration === m.duration &&
      n.velocity === m.velocity
    );
  }) &&
  a.pedals.every((p, i) => p.onset === b.pedals[i]!.onset && p.down === b.pedals[i]!.down) &&
  a.tempi.every((t, i) => t.onset === b.tempi[i]?.onset && t.tempo === b.tempi[i].tempo);

const NOTHING: ReadonlySet<string> = new Set();

export class SoundState {
  share = $state(1);
  hands = $state<Hands>('both');
  click = $state(false);
  countIn = $state(true);
  /** Whether the counts are spoken. */
  speaks = $state(false);
  /** Whether the phrase in hand is played round and round. */
  loops = $state(false);
  isPlaying = $state(false);
  /** Index of the measure that sounds. */
  measure = $state<number>();
  /** Ids of the notes that are down. */
  sounding = $state.raw<ReadonlySet<string>>(NOTHING);
  /** Fingers that are shown while they sound in place of the version's, by note id. */
  fingers = $state.raw<Readonly<Record<string, Finger>>>();
  /** What cannot be heard, and why. */
  silence = $state<string>();

  /** The fingering that was tried last. */
  lastHeard: Readonly<Record<string, Finger>> | undefined;
  readonly #version: () => HeardVersion | undefined;
  readonly #open: (events: PlayerEvents) => Promise<Player>;
  #player: Player | undefined;
  #opening: Promise<Player> | undefined;
  #performed: { readonly of: HeardVersion; readonly performance: Performance } | undefined;
  #program: Program | undefined;
  #stretch: Stretch | undefined;
  #frame = 0;
  #changed: ReturnType<typeof setTimeout> | undefined;

  constructor(version: () => HeardVersion | undefined, open: (events: PlayerEvents) => Promise<Player>) {
    this.#version = version;
    this.#open = open;
  }

  /** Plays from a written tick to the end, or, where phrases loop, round the measures that are given; stops what plays. */
  async toggle(from: Ticks, phrase: Places | undefined): Promise<void> {
    if (this.isPlaying) return this.stop();
    const version = this.#version();
    if (!version) return;
    const { measures } = version.score;
    this.#stretch =
      this.loops && phrase
        ? { ...phrase, goes: 'round' }
        : { from: measures.findLastIndex((m) => m.start <= from), to: measures.length - 1, goes: 'on' };
    const start = this.loops && phrase ? ticksOf(measures, phrase).start : from;
    this.isPlaying = true;
    performance.mark('play');
    await this.#begin(start, this.countIn);
  }

  /** Plays a measure once, in one hand, with fingers that are not taken yet: what a proposal is like before one decides. */
  async hear(measure: number, hand: Hands, fingers: Readonly<Record<string, Finger>>): Promise<void> {
    this.stop();
    const version = this.#version();
    if (!version) return;
    this.#stretch = { from: measure, to: measure, goes: 'once', hands: hand };
    this.fingers = fingers;
    this.lastHeard = fingers;
    this.isPlaying = true;
    await this.#begin(version.score.measures[measure]!.start, false);
  }

  /** Counts in and plays some measures once beside whoever plays: the other hand, or clicks alone. */
  async accompany({ from, to, fromBeat, toBeat }: Places, hands: PlayedHands): Promise<void> {
    this.stop();
    const version = this.#version();
    if (!version) return;
    this.#stretch = { from, to, fromBeat, toBeat, goes: 'once', hands };
    this.isPlaying = true;
    await this.#begin(version.score.measures[from]!.start, true);
  }

  /** Plays a phrase of another version once: what a texture, a level or a key is like before one decides. */
  async hearPhrase({ performance, measures, from, to }: HeardPhrase): Promise<void> {
    this.stop();
    this.#stretch = { from, to, goes: 'once' };
    this.isPlaying = true;
    await this.#play(performance, measures, undefined, false);
  }

  /** Seconds of count-in before the music of what plays. */
  get begins(): number {
    return this.#program?.begins ?? 0;
  }

  stop(): void {
    this.#player?.stop();
    // What was wished for and has not begun yet never does.
    if (this.isPlaying) this.#ended();
  }

  /** The version as a recording, as it is heard. Rejects where it cannot be made. */
  async record(): Promise<Uint8Array<ArrayBuffer> | undefined> {
    const version = this.#version();
    if (!version) return undefined;
    const { hands, share, click, countIn, speaks } = this;
    const { wavOfVersion } = await import('$ui/sound/recording');
    return wavOfVersion(version, {
      hands,
      share,
      click,
      countIn,
      ...(speaks ? { counts: version.counts } : {}),
    });
  }

  faster(): void {
    this.setShare(this.share + STEP);
  }

  slower(): void {
    this.setShare(this.share - STEP);
  }

  setShare(share: number): void {
    this.share = Math.round(Math.min(FASTEST, Math.max(SLOWEST, share)) * 100) / 100;
    void this.renew();
  }

  /** Goes on at once with what has changed: the version, the tempo, the hands. */
  async renew(): Promise<void> {
    const [position, program] = [this.#player?.position, this.#program];
    if (!this.isPlaying || position === undefined || !program) return;
    await this.#begin(undefined, false, program.tickAt(position));
  }

  /** Fetches what plays, before it is wanted: the first sound need not wait for it. */
  async prepare(): Promise<void> {
    await (await this.#plays()).prepare();
  }

  /** Goes on with another version when the teacher pauses, and only where it sounds otherwise. */
  versionChanged(): void {
    clearTimeout(this.#changed);
    if (!this.isPlaying) return;
    this.#changed = setTimeout(() => {
      const [version, before] = [this.#version(), this.#performed?.performance];
      if (!version || !before || !this.isPlaying) return;
      const now = perform(version.score, version.feel);
      if (soundsAlike(before, now)) this.#performed = { of: version, performance: before };
      else void this.renew();
    }, PAUSE);
  }

  /** The performance of the version in hand. */
  #perform(version: HeardVersion): Performance {
    if (this.#performed?.of !== version)
      this.#performed = { of: version, performance: perform(version.score, version.feel) };
    return this.#performed.performance;
  }

  /** Begins at a written tick, or at a tick of the performance that is under way. */
  async #begin(written: Ticks | undefined, countIn: boolean, played?: Ticks): Promise<void> {
    const version = this.#version();
    if (version) await this.#play(this.#perform(version), version.score.measures, written, countIn, played);
  }

  async #play(
    performance: Performance,
    measures: readonly Measure[],
    written: Ticks | undefined,
    countIn: boolean,
    played?: Ticks,
  ): Promise<void> {
    const stretch = this.#stretch;
    if (!stretch) return;
    const passOf = (index: number, after = 0) =>
      performance.measures.find((p) => p.index === index && p.onset >= after);
    const first = passOf(stretch.from);
    if (!first) return this.stop();
    const last = stretch.goes === 'on' ? performance.measures.at(-1) : passOf(stretch.to, first.onset);
    const inFirst = written === undefined ? 0 : Math.max(0, written - measures[stretch.from]!.start);
    const { skips, until } = insideOf(measures, stretch);
    const from = first.onset + (stretch.goes === 'on' ? inFirst : skips);
    const program = programOf(performance, measures, {
      from: stretch.goes === 'round' ? from : Math.min(from, played ?? from),
      to: last ? last.onset + (stretch.goes === 'on' ? last.length : until) : performance.end,
      hands: stretch.hands ?? this.hands,
      share: this.share,
      click: this.click,
      countIn,
      ...(this.speaks ? { counts: this.#version()?.counts ?? [] } : {}),
    });
    this.#program = program;
    const player = await this.#plays();
    if (!this.isPlaying) return;
    await player.play(
      { program, loops: stretch.goes === 'round' },
      played === undefined ? 0 : program.secondsAt(Math.min(played, performance.end)),
    );
    this.#follow(performance);
  }

  async #plays(): Promise<Player> {
    this.#opening ??= this.#open({
      onend: () => this.#ended(),
      onsilence: (why) => (this.silence = why),
    });
    return (this.#player ??= await this.#opening);
  }

  #ended(): void {
    cancelAnimationFrame(this.#frame);
    this.isPlaying = false;
    this.measure = undefined;
    this.fingers = undefined;
    this.sounding = NOTHING;
  }

  /** Says which notes are down, frame by frame; only where it has changed. */
  #follow(performance: Performance): void {
    cancelAnimationFrame(this.#frame);
    const hands = this.#stretch?.hands ?? this.hands;
    const own = performance.notes.filter((n) => isPlayed(n.staff, hands));
    const look = (): void => {
      const [position, program] = [this.#player?.position, this.#program];
      if (position === undefined || !program) return;
      const tick = program.tickAt(Math.max(0, position));
      const down =
        position < program.begins
          ? []
          : own.filter((n) => n.onset <= tick + 1 && tick < n.onset + n.duration);
      if (down.length !== this.sounding.size || down.some((n) => !this.sounding.has(n.id)))
        // Replaced as a whole, never changed.
        // eslint-disable-next-line svelte/prefer-svelte-reactivity
        this.sounding = new Set(down.map((n) => n.id));
      const measure = performance.measures.findLast((m) => m.onset <= tick + 1)?.index;
      if (measure !== this.measure) this.measure = measure;
      this.#frame = requestAnimationFrame(look);
    };
    look();
  }
}
