/**
 * What the bench knows: the recipe and decisions in hand with their undo history, the version realised from them, the
 * note that is chosen, and whether everything is saved.
 */
import { levelNumbered, type LevelContract } from '$core/arrange/levels';
import type { Score } from '$core/score/score';
import type { Version } from '$core/version/realise';
import type { FingerReason } from '$core/fingering/explain';
import { measureAt } from '$core/score/query';
import { decide, giveBack, type Decision, type DecisionOf, type Recipe } from '$core/version/recipe';
import type { MeasureFingering } from '$core/version/why';
import { PEDAL_STYLES } from '$core/pedal/pedal';
import { isForLevel, TEXTURE_IDS } from '$core/arrange/textures';
import { introductionOf } from '$core/version/introduction';
import { startRealiser, type Realiser } from './realiser';
import { firstNoteOf, walk, type Move } from './walk';

interface Moment {
  readonly recipe: Recipe;
  readonly decisions: readonly Decision[];
}

/** Recipe and decisions after so many measures were put before the piece, or taken away. */
function shifted({ recipe, decisions }: Moment, by: number): Moment {
  const move = <T extends { readonly measure: number }>(item: T): T[] =>
    item.measure + by < 0 ? [] : [{ ...item, measure: item.measure + by }];
  return {
    recipe: { ...recipe, sections: recipe.sections.flatMap(move) },
    decisions: decisions.flatMap((d): Decision[] => ('measure' in d ? move(d) : [d])),
  };
}

export type SaveState =
  { readonly is: 'saved' } | { readonly is: 'saving' } | { readonly is: 'failed'; readonly why: string };

export interface BenchStart extends Moment {
  readonly source: Score;
  readonly revision: number;
  /** The levels of the studio. */
  readonly levels: readonly LevelContract[];
  /** Stores a change. Resolves with the new revision; rejects with a sentence for the teacher. */
  readonly save: (moment: Moment, basedOn: number) => Promise<number>;
}

export function createBench(start: BenchStart) {
  let moment = $state.raw<Moment>({ recipe: start.recipe, decisions: start.decisions });
  let past = $state.raw<readonly Moment[]>([]);
  let future = $state.raw<readonly Moment[]>([]);
  let version = $state.raw<Version>();
  let problem = $state('');
  let selected = $state<string>();
  let why = $state.raw<{ note: string; reason: FingerReason }>();
  let others = $state.raw<{ measure: number; list: readonly MeasureFingering[] }>();
  let saveState = $state.raw<SaveState>({ is: 'saved' });

  let realiser: Realiser | undefined;
  let revision = start.revision;
  let saving = false;
  let unsaved: Moment | undefined;

  const notes = $derived(version?.score.parts[0]?.notes ?? []);
  const note = $derived(notes.find((n) => n.id === selected));
  const measure = $derived(version && note ? measureAt(version.score.measures, note.onset).index : undefined);

  async function refresh(): Promise<void> {
    const wanted = moment;
    try {
      const made = await realiser!.realise(wanted.recipe, wanted.decisions);
      if (wanted !== moment) return; // a newer change is on its way
      version = made;
      problem = '';
      if (!selected || !(selected in made.fingers))
        selected = walk(made.score.parts[0]!.notes, made.score.measures, undefined, 'next');
      await explain();
    } catch (error) {
      if (wanted === moment) problem = error instanceof Error ? error.message : String(error);
    }
  }

  async function explain(): Promise<void> {
    const asked = selected;
    if (!asked || !realiser) return;
    const reason = await realiser.why(moment.recipe, moment.decisions, asked);
    if (reason && asked === selected) why = { note: asked, reason };
    const at = measure;
    if (at === undefined) return;
    const list = await realiser.others(moment.recipe, moment.decisions, at);
    if (at === measure) others = { measure: at, list };
  }

  /** One save at a time; what changes meanwhile is saved next. */
  async function save(): Promise<void> {
    unsaved = moment;
    if (saving) return;
    saving = true;
    saveState = { is: 'saving' };
    try {
      while (unsaved) {
        const wanted: Moment = unsaved;
        unsaved = undefined;
        revision = await start.save(wanted, revision);
      }
      saveState = { is: 'saved' };
    } catch (error) {
      saveState = { is: 'failed', why: error instanceof Error ? error.message : String(error) };
    } finally {
      saving = false;
    }
  }

  function go(to: Moment): void {
    moment = to;
    void refresh();
    void save();
  }

  function change(to: Moment): void {
    past = [...past, moment];
    future = [];
    go(to);
  }

  const decideAll = (...made: readonly Decision[]): void =>
    change({ ...moment, decisions: decide(moment.decisions, ...made) });

  function withdraw(decisions: readonly Decision[]): void {
    if (decisions.length !== moment.decisions.length) change({ ...moment, decisions });
  }

  function select(id: string | undefined): void {
    if (!id || id === selected || !version || !(id in version.fingers)) return;
    selected = id;
    void explain();
  }

  return {
    get recipe() {
      return moment.recipe;
    },
    levels: start.levels,
    /** The contract of the level in hand. */
    get contract() {
      return levelNumbered(moment.recipe.level, start.levels);
    },
    get decisions() {
      return moment.decisions;
    },
    get version() {
      return version;
    },
    get problem() {
      return problem;
    },
    get selected() {
      return selected;
    },
    get note() {
      return note;
    },
    get measure() {
      return measure;
    },
    get why() {
      return why?.note === selected ? why?.reason : undefined;
    },
    /** Ways to finger the measure in hand, the present one first for each hand. */
    get others() {
      return others?.measure === measure ? (others?.list ?? []) : [];
    },
    get saveState() {
      return saveState;
    },
    get canUndo() {
      return past.length > 0;
    },
    get canRedo() {
      return future.length > 0;
    },
    open() {
      realiser = startRealiser(start.source, start.levels);
      void refresh();
    },
    close() {
      realiser?.stop();
    },
    select,
    selectMeasure(index: number) {
      if (version) select(firstNoteOf(notes, version.score.measures[index]!));
    },
    move(move: Move) {
      if (version) select(walk(notes, version.score.measures, selected, move));
    },
    decide(finger: DecisionOf<'finger'>['finger']) {
      if (selected) decideAll({ kind: 'finger', note: selected, finger });
    },
    /** Decides any number of things at once; one undo takes them back. */
    decideAll,
    /** Gives the finger and the hand of the chosen note back. */
    giveBack() {
      if (!selected) return;
      withdraw(giveBack(giveBack(moment.decisions, 'finger', selected), 'hand', selected));
    },
    withdraw(kind: Decision['kind'], subject: string | number) {
      withdraw(giveBack(moment.decisions, kind, subject));
    },
    /** The chosen note goes to the other hand. */
    otherHand() {
      if (note) decideAll({ kind: 'hand', note: note.id, hand: note.staff === 1 ? 'left' : 'right' });
    },
    /** The measure in hand gets the next style of pedal. */
    nextPedal() {
      if (measure === undefined) return;
      const decided = moment.decisions.find((d) => d.kind === 'pedal' && d.measure === measure);
      const at = decided?.kind === 'pedal' ? PEDAL_STYLES.indexOf(decided.style) : -1;
      const style = PEDAL_STYLES[at + 1];
      if (style) decideAll({ kind: 'pedal', measure, style });
      else withdraw(giveBack(moment.decisions, 'pedal', measure));
    },
    /** The measure in hand gets the next texture that its level and metre have. */
    nextTexture() {
      const at = measure === undefined ? undefined : version?.score.measures[measure];
      if (measure === undefined || !at) return;
      const options = TEXTURE_IDS.filter((id) => isForLevel(id, moment.recipe.level, at.time));
      const decided = moment.decisions.find((d) => d.kind === 'texture' && d.measure === measure);
      const before = decided?.kind === 'texture' ? options.indexOf(decided.texture) : -1;
      const texture = options[before + 1];
      if (texture) decideAll({ kind: 'texture', measure, texture });
      else withdraw(giveBack(moment.decisions, 'texture', measure));
    },
    setRecipe(part: Partial<Recipe>) {
      const recipe = { ...moment.recipe, ...part };
      const before = version?.introduction ?? 0;
      const changesStart = part.style !== undefined || part.introduction !== undefined;
      // An introduction pushes the measures on: what is decided for a measure goes with it.
      const by = changesStart ? introductionOf(start.source, recipe) - before : 0;
      change(by === 0 ? { ...moment, recipe } : shifted({ recipe, decisions: moment.decisions }, by));
    },
    undo() {
      const before = past.at(-1);
      if (!before) return;
      past = past.slice(0, -1);
      future = [moment, ...future];
      go(before);
    },
    redo() {
      const after = future[0];
      if (!after) return;
      future = future.slice(1);
      past = [...past, moment];
      go(after);
    },
    retrySave: () => void save(),
  };
}

export type Bench = ReturnType<typeof createBench>;
