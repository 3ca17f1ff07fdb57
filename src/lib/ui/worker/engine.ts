/**
 * What the page's worker does: it is told a piece once, then documents; it realises each, draws the phrases that changed, and
 * answers questions about single notes. A wish that a newer one has overtaken is not computed to its end.
 */
import type { Form } from '$core/analysis/form';
import type { LevelContract } from '$core/arrange/levels';
import { patternInMeasure, type PatternRead } from '$core/arrange/patternFrom';
import type { FingerReason } from '$core/fingering/explain';
import { rankKeys, type RankedKey, type VoiceRange } from '$core/keys/rank';
import { perform } from '$core/performance/perform';
import { type Performance } from '$core/performance/played';
import type { Measure, Score } from '$core/score/score';
import { keyboardPart } from '$core/score/query';
import { listening } from '$core/pipeline/progress';
import { analysed } from '$core/version/analysed';
import { arrangement, type Arrangement } from '$core/version/arrangement';
import { listed, type VersionDocument } from '$core/version/document';
import { realise, realising, writtenScore, type Version, type WrittenVersion } from '$core/version/realise';
import { otherFingerings, whyFinger, type MeasureFingering } from '$core/version/why';
import { engrave } from '$lib/engrave/engrave';
import { pictureKey, sheetOf, type Sheet, type SheetWish } from '$lib/engrave/sheet';

/** What a page wants to see. */
export interface Wish {
  readonly document: VersionDocument;
  readonly show: SheetWish;
  /** The phrase to be drawn first, by its place. */
  readonly first: number;
}

export interface Listener {
  /** A version that was made; pictures of its phrases follow. */
  readonly version: (version: Version) => void;
  /** The picture of a phrase, by its place. */
  readonly picture: (phrase: number, svg: string) => void;
  readonly failed: (why: string) => void;
  /** What long work is at: a stage of the pipeline. */
  readonly doing: (stage: string) => void;
}

/** Why a note has its finger, and what else would do in its measure. */
export interface Answer {
  readonly why: FingerReason | null;
  readonly others: readonly MeasureFingering[];
}

/** A stretch of measures (by index) as another document would have it sound. */
export interface HeardPhrase {
  readonly performance: Performance;
  readonly measures: readonly Measure[];
  readonly from: number;
  readonly to: number;
}

/** Milliseconds of work after which messages are let in: a newer wish is heard soon enough, and what is quick is not held up. */
const BREATH_AFTER = 6;
let worksSince = 0;

/** Lets messages in that have arrived meanwhile, where there was work for a while. */
async function breath(): Promise<void> {
  if (performance.now() - worksSince < BREATH_AFTER) return;
  await new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
  worksSince = performance.now();
}

/** Milliseconds after which it is said what is being done, and between two words of it. */
const PATIENCE = 700;
const TOLD_EVERY = 100;

/** Tells stages of what goes on for long; what is quick is not worth a word. */
function patiently(tell: (stage: string) => void): (stage: string) => void {
  const began = performance.now();
  let last = 0;
  return (stage) => {
    const now = performance.now();
    if (now - began < PATIENCE || now - last < TOLD_EVERY) return;
    last = now;
    tell(stage);
  };
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Draws sheets. `lane` says where: what was drawn in a lane before is known there. */
interface Engraver {
  /** The lanes there are, each as often as it takes sheets at once: another thread is never to wait for its next one. */
  readonly lanes: () => readonly number[];
  readonly draw: (sheet: Sheet, lane: number) => Promise<string>;
}

const ALONE: Engraver = { lanes: () => [0], draw: (sheet) => engrave(sheet) };

/** The lane in which a phrase is likely to be known. */
const homeOf = (phrase: number, lanes: readonly number[]): number => lanes[phrase % new Set(lanes).size]!;

/** Takes the next phrase out of those that wait: the first at home in the lane, and when there is none the last of another's. */
function taken(waiting: number[], lane: number, lanes: readonly number[]): number | undefined {
  const own = waiting.findIndex((phrase) => homeOf(phrase, lanes) === lane);
  return own < 0 ? waiting.pop() : waiting.splice(own, 1)[0];
}

export class Engine {
  readonly #engraver: Engraver;
  #source: Score | undefined;
  #levels: readonly LevelContract[] = [];
  /** The newest wish; what belongs to an older one stops. */
  #latest = 0;
  #document: VersionDocument | undefined;
  /** By phrase, what the page shows of it; and the form whose phrases they are. */
  #shown: (string | undefined)[] = [];
  #form: Form | undefined;

  constructor(engraver: Engraver = ALONE) {
    this.#engraver = engraver;
  }

  async open(source: Score | Promise<Score>, levels: readonly LevelContract[]): Promise<void> {
    this.#source = await source;
    this.#levels = levels;
    this.#shown = [];
  }

  /** Makes and draws what is wanted. Answers false where a newer wish came in between. */
  async show({ document, show, first }: Wish, listener: Listener): Promise<boolean> {
    const mine = ++this.#latest;
    worksSince = performance.now();
    const overtaken = async (): Promise<boolean> => {
      await breath();
      return mine !== this.#latest;
    };
    try {
      this.#document = document;
      const steps = realising(this.#piece(), document.recipe, listed(document), this.#levels);
      const lanes = this.#engraver.lanes();
      const told = patiently(listener.doing);
      const onward = (): ReturnType<typeof steps.next> => listening(told, () => steps.next());
      let step = onward();
      let isInHandDrawn = false;
      while (!step.done) {
        if (await overtaken()) return false;
        // In the same form the picture in hand goes before everything else; in another, nobody knows yet where it belongs.
        const written = step.value;
        if (written && this.#form === written.form && first < written.form.phrases.length) {
          const draw = this.#drawing(written, show, listener, overtaken);
          isInHandDrawn = await draw(first, homeOf(first, lanes));
        }
        step = onward();
      }
      const version = step.value;
      const { phrases } = version.form;
      const waiting = fromFirst(phrases.length, first).slice(isInHandDrawn ? 1 : 0);
      const draw = this.#drawing(version, show, listener, overtaken);
      this.#shown.length = phrases.length;
      this.#form = version.form;
      listener.version(version);
      const inLane = async (lane: number): Promise<void> => {
        for (let next = taken(waiting, lane, lanes); next !== undefined; next = taken(waiting, lane, lanes))
          if (!(await draw(next, lane))) return;
      };
      await Promise.all(lanes.map(inLane));
    } catch (error) {
      if (mine === this.#latest) listener.failed(messageOf(error));
    }
    return mine === this.#latest;
  }

  /** Draws phrases where the page does not show them as they are. False where a newer wish came in between. */
  #drawing(version: WrittenVersion, show: SheetWish, listener: Listener, overtaken: () => Promise<boolean>) {
    return async (phrase: number, lane: number): Promise<boolean> => {
      const place = version.form.phrases[phrase]!;
      const key = pictureKey(version, place, show);
      if (this.#shown[phrase] === key) return true;
      if (await overtaken()) return false;
      const svg = await this.#engraver.draw(sheetOf(version, place, show), lane);
      if (await overtaken()) return false;
      this.#shown[phrase] = key;
      listener.picture(phrase, svg);
      return true;
    };
  }

  /** Makes a version without drawing anything. */
  make(document: VersionDocument): Version {
    this.#document = document;
    return realise(this.#piece(), document.recipe, listed(document), this.#levels);
  }

  /** About one note of the newest document. */
  explain(note: string, measure: number): Answer {
    const { made, decisions } = this.#arrangement();
    return {
      why: whyFinger(made, decisions, note) ?? null,
      others: otherFingerings(made, decisions, measure),
    };
  }

  /** What a document would sound like, without its being shown. */
  hear(document: VersionDocument, from: number, to: number): HeardPhrase {
    const [piece, decisions] = [this.#piece(), listed(document)];
    const score = writtenScore(piece, document.recipe, decisions, this.#levels);
    const { feel } = arrangement(piece, document.recipe, decisions, this.#levels);
    return { performance: perform(score, feel), measures: score.measures, from, to };
  }

  /** The picture of a phrase, by its place, as another document would have it, without its being shown. */
  async picture(document: VersionDocument, show: SheetWish, phrase: number): Promise<string> {
    const version = realise(this.#piece(), document.recipe, listed(document), this.#levels);
    const { phrases } = version.form;
    const place = phrases[Math.min(phrase, phrases.length - 1)]!;
    return this.#engraver.draw(sheetOf(version, place, show), 0);
  }

  /** The pattern of a hand in a measure of the source, by the measure's id. */
  patternInSource(measure: string, staff: number): PatternRead {
    const { score, chords, key } = analysed(this.#piece());
    const found = score.measures.find((m) => m.id === measure);
    if (!found) return { problem: 'This measure isn’t in the source.' };
    return patternInMeasure({
      notes: keyboardPart(score).notes,
      chords,
      key,
      measure: found,
      staff,
      name: '',
    });
  }

  /** Every key judged for a document, with the usual weights. `songRange`: how low and high the song goes, where there is no melody. */
  keys(
    document: VersionDocument,
    voice: VoiceRange | null,
    songRange: VoiceRange | null = null,
  ): RankedKey[] {
    return rankKeys(this.#piece(), document.recipe, {
      decisions: listed(document),
      voice: voice ?? undefined,
      songRange: songRange ?? undefined,
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
