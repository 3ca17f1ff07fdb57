/** The bench as one thing: the document, what is seen of it and where the teacher is, put together; given by context. */
import { levelNumbered, type LevelContract } from '$core/arrange/levels';
import type { StudioPattern } from '$core/arrange/teacherPattern';
import type { Taste } from '$core/fingering/taste';
import type { Situation } from '$core/decisions/kind';
import type { Layout } from '$core/decisions/holds';
import { transpositionTo } from '$core/transpose/transpose';
import { createContext } from 'svelte';
import { AgainState } from './again.svelte';
import { DocumentState, type DocumentStart } from './document.svelte';
import { SelectionState } from './selection.svelte';
import { SoundState } from '$ui/sound/sound.svelte';
import type { EditStore } from './store';
import { TrialState } from './trial.svelte';
import { ViewState, type Music } from './view.svelte';
import type { SheetWish } from '$lib/engrave/sheet';

interface BenchStart extends DocumentStart {
  /** The levels of the studio. */
  readonly levels: readonly LevelContract[];
  /** Patterns that the teacher has written. */
  readonly patterns?: readonly StudioPattern[];
  readonly show: SheetWish;
  /** The house's hand as it is now; null where there is none. */
  readonly taste?: Taste | null;
  /** Pictures that came with the page. */
  readonly pictures?: readonly string[];
}

export class BenchState {
  readonly document: DocumentState;
  readonly view: ViewState;
  readonly selection: SelectionState;
  readonly sound: SoundState;
  /** The next note or measure that is touched is the end of what is chosen. */
  choosesOn = $state(false);
  readonly again = new AgainState();
  readonly trial: TrialState;
  /** The worker with this piece in it. */
  readonly music: () => Promise<Music>;
  readonly levels: readonly LevelContract[];
  readonly taste: Taste | null;
  /** Patterns of the studio; one that is written here joins them. */
  patterns = $state.raw<readonly StudioPattern[]>([]);

  constructor(start: BenchStart, store: EditStore, music: () => Promise<Music>) {
    this.levels = start.levels;
    this.taste = start.taste ?? null;
    this.patterns = start.patterns ?? [];
    this.document = new DocumentState(start, store);
    this.view = new ViewState(music, start.show, start.pictures);
    this.selection = new SelectionState(() => this.view.version);
    this.sound = new SoundState(
      () => this.view.version,
      async (events) => new (await import('$ui/sound/player')).Player(events),
    );
    this.music = music;
    this.trial = new TrialState(this, async (document, from, to) => (await music()).hear(document, from, to));
    this.view.onversion = () => this.selection.settle();
  }

  /** The contract of the level in hand. */
  get contract(): LevelContract {
    return levelNumbered(this.document.recipe.level, this.levels);
  }

  /** Measures and sections as the version has them. */
  get layout(): Layout | undefined {
    const { version } = this.view;
    return version && { measures: version.score.measures, sections: version.form.sections };
  }

  /** Index of the section that holds a measure. */
  sectionOf(measure: number): number {
    return this.layout?.sections.findIndex((s) => s.from <= measure && measure <= s.to) ?? -1;
  }

  /** What stands where something is about to be decided. */
  get situation(): Situation | undefined {
    const { version } = this.view;
    const { measure, note } = this.selection;
    if (!version || measure === undefined) return undefined;
    return {
      measure: version.score.measures[measure]!,
      note,
      level: this.document.recipe.level,
      contract: this.contract,
      patterns: this.patterns,
      hasAccompaniment: version.hasOwnAccompaniment,
      melodyLines: version.melody.has,
      isSingAlong: version.sungMeasures.has(measure),
      hasRepeats: version.hasRepeats,
      transposition: transpositionTo(version.sourceKey, version.key),
    };
  }

  /** The phrase in hand, by its place. */
  get phrase(): number {
    const { measure } = this.selection;
    const at = this.view.version?.form.phrases.findIndex(
      (p) => measure !== undefined && p.from <= measure && measure <= p.to,
    );
    return Math.max(0, at ?? 0);
  }

  /** Draws the document as it is now. */
  display(): Promise<void> {
    return this.view.display(this.document.current, this.phrase);
  }

  async explain(): Promise<void> {
    const { id, measure } = this.selection;
    if (id !== undefined && measure !== undefined)
      await this.view.explain(id, measure, () => this.selection.id);
  }
}

export const [getBench, setBench] = createContext<BenchState>();
