/** A pattern of the teacher's while it is written: typed, played or taken from a measure, and what it makes of the phrase in hand. */
import {
  readTeacherPattern,
  teacherPatternText,
  unitAndSteps,
  patternProblem,
  studioPatternSchema,
  type StudioPattern,
  type TeacherPattern,
} from '$core/arrange/teacherPattern';
import { patternInMeasure, patternPlayed, type PatternRead, type PlayedKey } from '$core/arrange/patternFrom';
import { decide } from '$core/decisions/decide';
import type { Decision } from '$core/decisions/registry';
import { parseChord } from '$core/theory/chordName';
import { documentOf, listed, type VersionDocument } from '$core/version/document';
import { listenToKeys, type Instrument } from '$ui/midi/keyboard';
import { z } from 'zod';
import type { BenchState } from './bench.svelte';

/** Seconds of silence after which what is played is over. */
const SILENCE = 1.5;

export class PatternState {
  name = $state('');
  steps = $state('eighths 1 5 8 5');
  hand = $state<'left' | 'right'>('left');
  /** The chord under which it is played. */
  over = $state('C');
  isListening = $state(false);
  problem = $state('');
  /** The phrase in hand with the pattern in its measure or stretch. */
  picture = $state<string>();
  readonly #bench: BenchState;
  #instrument: Instrument | undefined;
  #played: PlayedKey[] = [];
  #end: ReturnType<typeof setTimeout> | undefined;

  constructor(bench: BenchState) {
    this.#bench = bench;
    if (bench.view.version?.isSingAlong) this.hand = 'right';
  }

  get read(): PatternRead {
    return readTeacherPattern(`${this.name.replaceAll(':', ' ')}: ${this.steps}`);
  }

  get pattern(): TeacherPattern | undefined {
    const { read } = this;
    return 'problem' in read ? undefined : read;
  }

  /** What is to be mended before it can be kept, or why this level leaves it out. */
  get says(): { readonly isWrong: boolean; readonly text: string } | undefined {
    const { read } = this;
    if ('problem' in read) return { isWrong: true, text: read.problem };
    const { situation, contract } = this.#bench;
    const why = situation && patternProblem(read, contract, situation.measure.time, this.hand);
    return why ? { isWrong: false, text: `This level leaves it out here: ${why}.` } : undefined;
  }

  /** The document with the pattern in the whole phrase. */
  get #tried(): VersionDocument | undefined {
    const { pattern } = this;
    const { document, view, layout, phrase } = this.#bench;
    const place = view.version?.form.phrases[phrase];
    const [from, to] = [layout?.measures[place?.from ?? 0]?.id, layout?.measures[place?.to ?? 0]?.id];
    if (!pattern || from === undefined || to === undefined) return undefined;
    const decision: Decision = {
      kind: this.hand === 'left' ? 'texture' : 'rhythm',
      at: { range: [from, to] },
      value: teacherPatternText(pattern),
    };
    return documentOf(document.recipe, decide(listed(document.current), decision));
  }

  /** Draws the phrase in hand with it. */
  async draw(): Promise<void> {
    const tried = this.#tried;
    if (!tried) return;
    const music = await this.#bench.music();
    const svg = await music.picture(tried, this.#bench.view.show, this.#bench.phrase);
    if (this.#tried && JSON.stringify(this.#tried) === JSON.stringify(tried)) this.picture = withoutIds(svg);
  }

  /** Plays the phrase in hand with it. */
  async hear(): Promise<void> {
    const tried = this.#tried;
    const place = this.#bench.view.version?.form.phrases[this.#bench.phrase];
    if (!tried || !place) return;
    const music = await this.#bench.music();
    await this.#bench.sound.hearPhrase(await music.hear(tried, place.from, place.to));
  }

  /** Takes it from the measure in hand. */
  async takeFrom(source: 'source' | 'version'): Promise<void> {
    const { view, situation, music } = this.#bench;
    const { version } = view;
    if (!version || !situation) return;
    const staff = this.hand === 'left' ? 2 : 1;
    const { measure } = situation;
    this.#take(
      source === 'source'
        ? await (await music()).patternInSource(measure.id, staff)
        : patternInMeasure({
            notes: version.score.parts[0]!.notes,
            chords: version.chords,
            key: version.key,
            measure,
            staff,
            name: '',
          }),
    );
  }

  #take(read: PatternRead): void {
    this.problem = 'problem' in read ? read.problem : '';
    if (!('problem' in read)) this.steps = unitAndSteps(read);
  }

  /** Listens to a keyboard until nothing comes any more. */
  async listen(simulated: boolean): Promise<void> {
    this.problem = '';
    this.#played = [];
    if (!parseChord(this.over)) {
      this.problem = `“${this.over}” isn’t a chord.`;
      return;
    }
    try {
      this.#instrument ??= await listenToKeys(({ midi, at }) => {
        if (!this.isListening) return;
        this.#played.push({ midi, onset: at });
        clearTimeout(this.#end);
        this.#end = setTimeout(() => this.stop(), SILENCE * 1000);
      }, simulated);
      this.isListening = true;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : String(error);
    }
  }

  /** What was played becomes the steps. */
  stop(): void {
    clearTimeout(this.#end);
    this.isListening = false;
    const chord = parseChord(this.over);
    const key = this.#bench.view.version?.key;
    if (this.#played.length === 0 || !chord || !key) return;
    const unit = this.pattern?.unit ?? 'eighths';
    this.#take(patternPlayed(this.#played, { chord, key, unit, name: '' }));
  }

  close(): void {
    clearTimeout(this.#end);
    this.#instrument?.stop();
    this.#instrument = undefined;
    this.isListening = false;
  }

  /** Keeps it in the studio and chooses it at what is selected. False where it could not be kept. */
  async keep(): Promise<boolean> {
    const { pattern } = this;
    if (!pattern) return false;
    const kept: StudioPattern = { hand: this.hand, text: teacherPatternText(pattern) };
    try {
      const response = await fetch('/settings/patterns/keep', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(kept),
      });
      const answer = answerSchema.parse(await response.json());
      if (!answer.patterns) {
        this.problem = answer.message ?? 'The pattern couldn’t be saved.';
        return false;
      }
      this.#bench.patterns = answer.patterns;
      return true;
    } catch {
      this.problem = 'The pattern couldn’t be saved: the server didn’t answer. Try again.';
      return false;
    }
  }
}

/** The same notes stand on the page behind it, by the same ids. */
const withoutIds = (svg: string): string => svg.replace(/(<g\b[^>]*?) id="[^"]*"/g, '$1');

const answerSchema = z.object({
  message: z.string().optional(),
  patterns: z.array(studioPatternSchema).optional(),
});
