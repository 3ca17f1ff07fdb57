/** The music of a lesson: the version as it sounds, and large pictures of what is in hand. */
import { covers, type Places } from '$core/score/places';
import type { LevelContract } from '$core/arrange/levels';
import type { VersionDocument } from '$core/version/document';
import type { Version } from '$core/version/realise';
import { largeSheets, type LargeWish } from '$lib/engrave/large';
import { SoundState } from '$ui/sound/sound.svelte';
import { service } from '$ui/worker/service';

interface LessonMusicStart {
  readonly score: string;
  readonly levels: readonly LevelContract[];
  readonly document: VersionDocument;
  readonly show: LargeWish;
  /** Pictures that came with the page, by the name of their stretch. */
  readonly pictures: Readonly<Record<string, readonly string[]>>;
}

interface Stretch extends Places {
  readonly id: string;
}

/** Longer than this, music is shown phrase by phrase. */
const LONG = 6;

export class LessonMusic {
  readonly #start: LessonMusicStart;
  version = $state.raw<Version>();
  pictures = $state.raw<Readonly<Record<string, readonly string[]>>>({});
  problem = $state('');
  /** The note that was touched: its shape is shown on the keys. */
  note = $state<string>();
  readonly sound: SoundState;
  readonly #asked: Record<string, true> = {};

  constructor(start: LessonMusicStart) {
    this.#start = start;
    this.pictures = start.pictures;
    this.sound = new SoundState(
      () => this.version,
      async (events) => new (await import('$ui/sound/player')).Player(events),
    );
  }

  /** Makes the version in the page's worker. */
  async open(): Promise<void> {
    try {
      const music = service();
      await music.open(this.#start.score, this.#start.levels);
      this.version = (await music.make(this.#start.document)) as Version;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : String(error);
    }
  }

  /** What is shown of a chunk: itself, or its phrases where it is long. */
  stretchesOf(chunk: Stretch | undefined): Stretch[] {
    if (!chunk) return [];
    if (chunk.to - chunk.from < LONG || !this.version) return [chunk];
    return this.version.form.phrases
      .filter((p) => p.to >= chunk.from && p.from <= chunk.to)
      .map(({ from, to }): Stretch => {
        // A chunk that begins or ends inside a phrase shows no more of it than is its own.
        const isWhole = covers(chunk, { from, to });
        return {
          id: isWhole ? `phrase ${from}` : `${chunk.id} ${from}`,
          from: Math.max(from, chunk.from),
          to: Math.min(to, chunk.to),
          ...(from <= chunk.from ? { fromBeat: chunk.fromBeat } : {}),
          ...(to >= chunk.to ? { toBeat: chunk.toBeat } : {}),
        };
      });
  }

  /** Draws stretches that have no picture yet, the first one first. */
  async draw(stretches: readonly Stretch[]): Promise<void> {
    const { version } = this;
    if (!version) return;
    for (const { id, ...places } of stretches) {
      if (this.pictures[id] !== undefined || this.#asked[id]) continue;
      this.#asked[id] = true;
      try {
        const drawn: string[] = [];
        for (const sheet of largeSheets(version, places, this.#start.show))
          drawn.push(await service().draw(sheet));
        this.pictures = { ...this.pictures, [id]: drawn };
      } catch (error) {
        this.problem = error instanceof Error ? error.message : String(error);
      }
    }
  }
}
