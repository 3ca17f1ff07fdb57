/** What is seen of a document: the version that was made of it, the pictures of its phrases, and the answers about a note. */
import type { PatternRead } from '$core/arrange/patternFrom';
import type { VersionDocument } from '$core/version/document';
import type { Version } from '$core/version/realise';
import type { SheetWish } from '$lib/engrave/sheet';
import type { Answer, HeardPhrase, Listener, Wish } from '$ui/worker/engine';
import { flushSync } from 'svelte';
import { Frames } from './frames';

/** The worker as the view needs it. */
export interface Music {
  show(wish: Wish, listener: Listener): Promise<boolean>;
  explain(note: string, measure: number): Promise<Answer>;
  hear(document: VersionDocument, from: number, to: number): Promise<HeardPhrase>;
  picture(document: VersionDocument, show: SheetWish, phrase: number): Promise<string>;
  patternInSource(measure: string, staff: number): Promise<PatternRead>;
}

/** Phrases that a screen shows before and after the one in hand, at most. */
const IN_SIGHT = 3;

export class ViewState {
  version = $state.raw<Version>();
  /** The version whose path is shown: a moment behind, so that path and panel are not laid out in one frame. */
  onPath = $state.raw<Version>();
  /** By phrase; the pictures that came with the page until there are others. */
  pictures = $state.raw<readonly (string | undefined)[]>([]);
  problem = $state('');
  /** The stage that long work is at; empty where nothing takes long. */
  doing = $state('');
  answer = $state.raw<Answer & { readonly note: string }>();
  show = $state.raw<SheetWish>() as SheetWish;
  /** What has arrived and is not on the page yet. */
  readonly #frames = new Frames();
  /** Called when there is a new version, before its pictures. */
  onversion: () => void = () => undefined;
  readonly #music: () => Promise<Music>;
  #wished = 0;

  constructor(music: () => Promise<Music>, show: SheetWish, pictures: readonly string[] = []) {
    this.#music = music;
    this.show = show;
    this.pictures = pictures;
  }

  /** Makes and draws a document, the phrase in hand first. Resolves when all of it is on the page. */
  async display(document: VersionDocument, first: number): Promise<void> {
    const mine = ++this.#wished;
    const newest = (): boolean => mine === this.#wished;
    try {
      const music = await this.#music();
      await music.show(
        { document, show: this.show, first },
        {
          version: (version) =>
            this.#frames.put('version', () => {
              if (newest()) this.#showVersion(version);
            }),
          picture: (phrase, svg) =>
            this.#frames.put(
              `picture ${phrase}`,
              () => this.#showPicture(phrase, svg),
              Math.abs(phrase - first) <= IN_SIGHT,
            ),
          failed: (why) => {
            if (newest()) this.problem = why;
          },
          doing: (stage) => {
            if (newest()) this.doing = stage;
          },
        },
      );
      await this.#frames.shown();
    } catch (error) {
      if (newest()) this.problem = error instanceof Error ? error.message : String(error);
    } finally {
      if (newest()) this.doing = '';
    }
  }

  #showVersion(version: Version): void {
    this.version = version;
    this.problem = '';
    this.doing = '';
    this.onversion();
    this.#frames.put('path', () => (this.onPath = this.version));
    // What `npm run bench:ui` measures.
    performance.mark('version');
    if (this.pictures.length > version.form.phrases.length)
      this.pictures = this.pictures.slice(0, version.form.phrases.length);
  }

  #showPicture(phrase: number, svg: string): void {
    const pictures = [...this.pictures];
    pictures[phrase] = svg;
    this.pictures = pictures;
    // So that the frame knows what it has cost.
    flushSync();
  }

  /** Asks about a note; an answer that comes too late is dropped. `wanted` says which note is in hand by then. */
  async explain(note: string, measure: number, wanted: () => string | undefined): Promise<void> {
    const music = await this.#music();
    const answer = await music.explain(note, measure).catch(() => undefined);
    if (answer && wanted() === note) this.answer = { ...answer, note };
  }
}
