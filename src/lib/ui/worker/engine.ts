/**
 * What the page's worker does: it is told a piece once, then documents; it realises each, draws the phrases that changed, and
 * answers questions about single notes. A wish that a newer one has overtaken is not computed to its end.
 */
import type { LevelContract } from '$core/arrange/levels';
import type { FingerReason } from '$core/fingering/explain';
import { rankKeys, type RankedKey, type VoiceRange } from '$core/keys/rank';
import type { Score } from '$core/score/score';
import { arrangement, type Arrangement } from '$core/version/arrangement';
import { listed, type VersionDocument } from '$core/version/document';
import { realising, type Version } from '$core/version/realise';
import { otherFingerings, whyFinger, type MeasureFingering } from '$core/version/why';
import { engrave } from '$lib/engrave/engrave';
import { pictureKey, sheetOf, type SheetOptions } from '$lib/engrave/sheet';

/** What a page wants to see. */
export interface Wish {
  readonly document: VersionDocument;
  readonly show: SheetOptions;
  /** The phrase to be drawn first, by its place. */
  readonly first: number;
}

export interface Listener {
  /** A version that was made; pictures of its phrases follow. */
  readonly version: (version: Version) => void;
  /** The picture of a phrase, by its place. */
  readonly picture: (phrase: number, svg: string) => void;
  readonly failed: (why: string) => void;
}

/** Why a note has its finger, and what else would do in its measure. */
export interface Answer {
  readonly why: FingerReason | null;
  readonly others: readonly MeasureFingering[];
}

/** Lets messages in that have arrived meanwhile. */
const breath = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

export class Engine {
  #source: Score | undefined;
  #levels: readonly LevelContract[] = [];
  /** The newest wish; what belongs to an older one stops. */
  #latest = 0;
  #document: VersionDocument | undefined;
  /** By phrase, what the page shows of it. */
  #shown: (string | undefined)[] = [];

  async open(source: Score | Promise<Score>, levels: readonly LevelContract[]): Promise<void> {
    this.#source = await source;
    this.#levels = levels;
    this.#shown = [];
  }

  /** Makes and draws what is wanted. Answers false where a newer wish came in between. */
  async show({ document, show, first }: Wish, listener: Listener): Promise<boolean> {
    const mine = ++this.#latest;
    const overtaken = async (): Promise<boolean> => {
      await breath();
      return mine !== this.#latest;
    };
    try {
      this.#document = document;
      const steps = realising(this.#piece(), document.recipe, listed(document), this.#levels);
      let step = steps.next();
      while (!step.done) {
        if (await overtaken()) return false;
        step = steps.next();
      }
      const version = step.value;
      listener.version(version);
      const { phrases } = version.form;
      this.#shown.length = phrases.length;
      for (const i of fromFirst(phrases.length, first)) {
        const key = pictureKey(version, phrases[i]!, show);
        if (this.#shown[i] === key) continue;
        if (await overtaken()) return false;
        const svg = await engrave(sheetOf(version, phrases[i]!, show));
        this.#shown[i] = key;
        listener.picture(i, svg);
      }
    } catch (error) {
      if (mine === this.#latest) listener.failed(messageOf(error));
    }
    return mine === this.#latest;
  }

  /** About one note of the newest document. */
  explain(note: string, measure: number): Answer {
    const { made, decisions } = this.#arrangement();
    return {
      why: whyFinger(made, decisions, note) ?? null,
      others: otherFingerings(made, decisions, measure),
    };
  }

  /** Every key judged for a document, with the usual weights. */
  keys(document: VersionDocument, voice: VoiceRange | null): RankedKey[] {
    return rankKeys(this.#piece(), document.recipe, {
      decisions: listed(document),
      voice: voice ?? undefined,
      levels: this.#levels,
    });
  }

  #piece(): Score {
    if (!this.#source) throw new Error('The piece has not arrived yet.');
    return this.#source;
  }

  #arrangement(): { made: Arrangement; decisions: ReturnType<typeof listed> } {
    if (!this.#document) throw new Error('No version has been shown yet.');
    const decisions = listed(this.#document);
    return { made: arrangement(this.#piece(), this.#document.recipe, decisions, this.#levels), decisions };
  }
}

/** Places from the first one on, then those before it. */
export const fromFirst = (count: number, first: number): number[] => {
  const from = Math.min(Math.max(0, first), Math.max(0, count - 1));
  return Array.from({ length: count }, (_, i) => (from + i) % count);
};
