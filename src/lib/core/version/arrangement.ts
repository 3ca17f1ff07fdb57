/** The stages that make the notes of a version: the source analysed, in its key, arranged, in the hands that were decided. */
import type { Form } from '../analysis/form';
import { chordAt, type ChordSpan } from '../analysis/harmony';
import { idiomOf } from '../analysis/idiom';
import { inInstrumental, instrumentals, type Instrumental } from '../analysis/instrumentals';
import type { Idiom } from '../analysis/idioms';
import type { MelodyLine } from '../analysis/melody';
import { arrange, hasLeftHand } from '../arrange/arrange';
import { asWritten } from '../arrange/asWritten';
import { AS_SOURCE, type Arranged, type ArrangeSettings, type SongStyle } from '../arrange/arranged';
import { LEVELS, levelNumbered, type LevelContract } from '../arrange/levels';
import type { Reason } from '../arrange/reason';
import { KEYBOARDS, REACH_SEMITONES } from '../hands/register';
import type { ChordFigure } from '../arrange/singAlong';
import { keepsOwn, strokesLeft } from '../arrange/styles';
import type { Texture } from '../arrange/textures';
import { feelOf, type Feel } from '../counting/feel';
import { withDecidedMarks, withDecidedNotes, type Surroundings } from '../decisions/apply';
import { valuesIn, type Layout } from '../decisions/holds';
import { kindOf, type Decision } from '../decisions/registry';
import { difficultyOf } from '../difficulty/difficulty';
import { scoreOfWhole } from '../difficulty/level';
import type { Hand } from '../fingering/events';
import type { Taste } from '../fingering/taste';
import { levelKey, type LevelKey } from './private/levelKey';
import { USUAL_TEMPO } from '../performance/perform';
import { sameData, stage } from '../pipeline/memo';
import { keyboardPart, soundingNotes, type SoundingNote } from '../score/query';
import { octaveSigns, readableClefs, underSigns } from '../score/staves';
import type { Mark, Note, PedalMark, Score } from '../score/score';
import { transposePitch, transpositionTo, type Transposition } from '../transpose/transpose';
import { inMode, keyCode, keyName, parseKey, type Key } from '../theory/key';
import { checkVersion } from './check';
import { analysed, inKey, type Analysed, type InKey } from './analysed';
import { decidedSource, withDecidedChords } from './private/decidedSource';
import { stylesOf } from './private/songStyles';
import { introductionOf } from './introduction';
import { heldIn, withHandIn } from './otherHands';
import { introductionSchema, type OtherHand, type Recipe } from './recipe';

/** Notes of a version without fingers, counts and pedal: what the ranking of keys needs. */
export interface Arrangement {
  /** Two staves, written. */
  readonly score: Score;
  readonly contract: LevelContract;
  readonly sourceKey: Key;
  readonly key: Key;
  readonly form: Form;
  readonly layout: Layout;
  readonly chords: readonly ChordSpan[];
  readonly arranged: Arranged;
  readonly introduction: number;
  readonly reasons: readonly Reason[];
  /** Pedal marks of the source. */
  readonly ownPedals: readonly PedalMark[];
  readonly feel: Feel;
  readonly idiom: Idiom;
  /** The house's hand. */
  readonly taste: Taste | null;
  /** Semitones per hand. */
  readonly reach: Readonly<Record<Hand, number>>;
  readonly keyboard: { readonly low: number; readonly high: number };
  readonly setting: MarkSetting;
  /** Decisions that could not be carried out, with the reason. */
  readonly refused: ReadonlyMap<Decision, string>;
  /** The source has repeat signs or jumps. */
  readonly hasRepeats: boolean;
}

/** What the arranger is asked for, as plain data; lists are by measure. */
interface Wishes {
  readonly styles: readonly SongStyle[];
  readonly instrumentals: readonly Instrumental[];
  readonly textures: readonly (Texture | undefined)[];
  readonly melodyLines: readonly (MelodyLine | undefined)[];
  readonly rhythms: readonly (ChordFigure | undefined)[];
  readonly reach: ArrangeSettings['reach'];
  readonly keyboard: ArrangeSettings['keyboard'];
  readonly idiom: Idiom;
  /** Tempo of the source, quarter notes per minute. */
  readonly tempo: number;
  readonly isWithin: boolean;
}

/** Everything but the textures that the teacher has decided. */
type PlainWishes = Omit<Wishes, 'textures'>;

const settingsOf = (
  form: Form,
  contract: LevelContract,
  { styles, instrumentals: runs, melodyLines, rhythms, tempo: _tempo, ...plain }: PlainWishes,
  textures: Wishes['textures'] = [],
): ArrangeSettings => ({
  ...plain,
  contract,
  form,
  styleIn: (measure) => styles[measure] ?? 'solo',
  isInstrumental: (measure) => inInstrumental(runs, measure),
  textureIn: (measure) => textures[measure] ?? null,
  melodyLineIn: (measure) => melodyLines[measure] ?? undefined,
  rhythmIn: (measure) => rhythms[measure] ?? null,
});

const idiomStage = stage('idiom', idiomOf);

interface Reduced {
  readonly arranged: Arranged;
  readonly steps: number;
}

/** The arrangement as the engine proposes it. A decided texture changes its own measures, and not what the others are reduced by. */
const reduceStage = stage(
  'reduce',
  (
    { score, chords }: InKey,
    form: Form,
    contract: LevelContract,
    next: LevelContract | null,
    wishes: PlainWishes,
  ): Reduced =>
    noHarderThanSource(score, chords, settingsOf(form, contract, wishes), wishes.tempo, next ?? undefined),
);

/** Whether a source, played as it is written, keeps every limit of a level; its pedal is another's. */
const withinStage = stage(
  'within',
  (
    { score }: InKey,
    contract: LevelContract,
    reach: ArrangeSettings['reach'],
    keyboard: ArrangeSettings['keyboard'],
  ): { readonly isWithin: boolean } => {
    if (score.parts.length === 0) return { isWithin: false };
    const part = keyboardPart(score);
    const isWithin =
      part.staves >= 2 &&
      checkVersion({ ...score, parts: [part], pedals: [] }, { contract, reach, keyboard }).length === 0 &&
      asWritten(part, { measures: score.measures, reach, keyboard }).reasons.length === 0;
    return { isWithin };
  },
);

const arrangeStage = stage(
  'arrange',
  (
    moved: InKey,
    form: Form,
    contract: LevelContract,
    next: LevelContract | null,
    { textures, ...wishes }: Wishes,
  ): Arranged => {
    const { arranged, steps } = reduceStage(moved, form, contract, next, sameData(wishes));
    if (textures.every((texture) => texture === undefined)) return arranged;
    const settings = settingsOf(form, contract, wishes, textures);
    return arrange(moved.score, moved.chords, { ...settings, reduction: steps });
  },
);

const otherHandStage = stage(
  'other hand',
  (
    arranged: Arranged,
    { measures }: Score,
    other: Score,
    { hand, ...held }: { readonly hand: Hand; readonly from: number; readonly to: number },
  ): Arranged => ({ ...arranged, notes: withHandIn(arranged.notes, measures, other, hand, held) }),
);

/** The written notes of both hands, with what the teacher has decided about them. */
const handsStage = stage(
  'hands',
  (
    { score, chords }: InKey,
    arranged: Arranged,
    feel: Feel,
    decisions: readonly Decision[],
    layout: Layout,
    setting: MarkSetting,
  ): { score: Score; refused: ReadonlyMap<Decision, string> } => {
    const surroundings = surroundingsOf(score, chords, setting);
    const { made, refused } = withDecidedNotes(
      // What the teacher puts on a key that the other hand has stays where it was put.
      withoutDoubledKeys(arranged.notes),
      decisions,
      surroundings,
      layout,
    );
    return { score: asPianoPart(score, arranged, made, feel), refused };
  },
);

/** What kinds of decisions are told beside the music itself. */
interface MarkSetting {
  readonly transposition: Transposition;
  readonly reach: Arrangement['reach'];
  readonly rightNotes: number | null;
}

const surroundingsOf = (
  { measures }: Score,
  chords: readonly ChordSpan[],
  { transposition, reach, rightNotes }: MarkSetting,
): Surroundings => ({
  measures,
  chordAt: (tick) => chordAt(chords, tick),
  inKey: (pitch) => transposePitch(pitch, transposition),
  reach: (staff) => (staff === 1 ? reach.right : reach.left),
  rightNotes: rightNotes ?? Infinity,
});

const markStage = stage(
  'marks',
  (
    written: Score,
    chords: readonly ChordSpan[],
    decisions: readonly Decision[],
    layout: Layout,
    setting: MarkSetting,
  ): { score: Score; refused: ReadonlyMap<Decision, string> } => {
    const surroundings = surroundingsOf(written, chords, setting);
    const { made, refused } = withDecidedMarks(written.parts[0]!, decisions, surroundings, layout);
    return { score: { ...written, parts: [made] }, refused };
  },
);

/** The written version with the marks that are decided for its page. The same object where there are none. */
export function marked(
  { score, chords, layout, setting }: Pick<Arrangement, 'score' | 'chords' | 'layout' | 'setting'>,
  decisions: readonly Decision[],
): { readonly score: Score; readonly refused: ReadonlyMap<Decision, string> } {
  const own = decisions.filter((d) => kindOf(d.kind).mark);
  return own.length === 0
    ? { score, refused: new Map() }
    : markStage(score, chords, sameData(own), layout, setting);
}

const instrumentalsStage = stage('instrumentals', instrumentals);

const layoutOf = stage('layout', ({ measures }: Score, { sections }: Form): Layout => ({
  measures,
  sections,
}));

/** An arrangement with the hands that it has from other versions, each made by `arranged` where it holds. */
const withOtherHands = (
  own: Arranged,
  score: Score,
  layout: Layout,
  others: readonly { readonly hand: OtherHand; readonly recipe: Recipe }[],
  arranged: (recipe: Recipe, decisions: readonly Decision[]) => Score,
): Arranged =>
  others.reduce((made, { hand, recipe }): Arranged => {
    const held = heldIn(hand, layout);
    if (!held) return made;
    const other = arranged(recipe, hand.decisions);
    return otherHandStage(made, score, other, sameData({ hand: hand.hand, ...held }));
  }, own);

/** Arranges without fingers, counts and pedal. `levels` are those of the studio. */
export function arrangement(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Arrangement {
  const contract = sameData(levelNumbered(recipe.level, levels));
  const next = levels.find((l) => l.level > contract.level);
  const shaped = decidedSource(source, decisions);
  const introduction = introductionOf(shaped, recipe);
  const from = withDecidedChords(analysed(shaped, introduction), decisions);
  const { form, key: sourceKey } = from;
  const { key, because } = keyFor(recipe, from, contract);
  const moved = inKey(from, key);
  const feel = recipe.feel ?? feelOf(shaped);
  const idiom = recipe.idiom ?? (recipe.feel === 'swing' ? 'swing' : idiomStage(shaped).idiom);
  const layout = layoutOf(from.score, form);
  const reach = { right: REACH_SEMITONES[recipe.reach.right], left: REACH_SEMITONES[recipe.reach.left] };
  const keyboard = KEYBOARDS[recipe.keyboard];
  const runs = instrumentalsStage(from.score);
  const proposed = arrangeStage(
    moved,
    form,
    contract,
    next ? sameData(next) : null,
    sameData({
      styles: stylesOf(recipe, from.score, runs, valuesIn('style', decisions, layout)),
      instrumentals: runs,
      textures: valuesIn('texture', decisions, layout),
      melodyLines: valuesIn('melody', decisions, layout),
      rhythms: valuesIn('rhythm', decisions, layout),
      reach,
      keyboard,
      idiom,
      tempo: source.tempo || USUAL_TEMPO,
      // A style that walks or breaks its chords does so more slowly below its own level, whatever a limit allows.
      isWithin:
        contract.accompaniment !== 'kept' &&
        strokesLeft(contract, idiom) === Infinity &&
        withinStage(moved, contract, sameData(reach), sameData(keyboard)).isWithin,
    }),
  );
  const arranged = withOtherHands(
    proposed,
    moved.score,
    layout,
    recipe.otherHands.map((hand) => ({
      hand,
      // In the key and for the hands of this version, as everything in it.
      recipe: {
        ...hand.recipe,
        key: keyCode(key),
        introduction: introductionSchema.parse(introduction),
        reach: recipe.reach,
        keyboard: recipe.keyboard,
        otherHands: [],
      },
    })),
    (other, choices) => arrangement(source, other, choices, levels).score,
  );
  const written = analysed(shaped, introduction).key;
  const signed: Reason[] =
    written.fifths === sourceKey.fifths
      ? []
      : [
          {
            measure: 0,
            about: 'register',
            notes: [],
            text: `the notes suggest ${keyName(sourceKey)}: with that key signature they need fewer accidentals`,
          },
        ];
  const keyReason: Reason[] = because ? [{ measure: 0, about: 'register', notes: [], text: because }] : [];
  const aboutNotes = decisions.filter((d) => kindOf(d.kind).apply);
  const setting = sameData({
    transposition: transpositionTo(sourceKey, key),
    reach,
    // Small plain data has no infinity.
    rightNotes: Number.isFinite(contract.rightNotes) ? contract.rightNotes : null,
  });
  const { score, refused } = handsStage(moved, arranged, feel, sameData(aboutNotes), layout, setting);
  return {
    score,
    refused,
    setting,
    hasRepeats: source.measures.some((m) => m.repeatEnd || m.route?.jump),
    contract,
    sourceKey,
    key,
    form,
    layout,
    chords: moved.chords,
    arranged,
    introduction,
    reasons: [...signed, ...keyReason, ...arranged.reasons],
    ownPedals: moved.score.pedals,
    feel,
    idiom,
    taste: recipe.taste,
    reach,
    keyboard,
  };
}

/**
 * A simplified version is never harder than what it simplifies: where textures and filling make it so, they are taken
 * back step by step.
 */
function noHarderThanSource(
  score: Score,
  chords: readonly ChordSpan[],
  settings: ArrangeSettings,
  tempo: number,
  next: LevelContract | undefined,
): Reduced {
  const { contract } = settings;
  const first = arrange(score, chords, settings);
  const own = score.parts.length > 0 ? keyboardPart(score) : undefined;
  if (
    contract.accompaniment === 'kept' ||
    settings.isWithin ||
    !hasLeftHand(first) ||
    first.isSingAlong ||
    !own
  )
    return { arranged: first, steps: 0 };
  const hard = (notes: readonly Note[], { tempoShare }: LevelContract = contract): number =>
    scoreOfWhole(
      difficultyOf({
        ...score,
        tempo: tempo * tempoShare,
        parts: [{ id: 'P1', name: '', staves: 2, notes }],
      }),
    );
  // The next level may itself have thinned the source: then that is the measure.
  const { idiom } = settings;
  const isLastReplaced = next !== undefined && !keepsOwn(contract, idiom) && keepsOwn(next, idiom);
  const most = Math.min(
    hard(own.notes),
    isLastReplaced ? hard(arrange(score, chords, { ...settings, contract: next }).notes, next) : Infinity,
  );
  let made: Reduced = { arranged: first, steps: 0 };
  // Below level 3 a left hand is never busy enough to be harder than its source for that reason.
  const last = contract.level < 3 ? AS_SOURCE - 1 : AS_SOURCE;
  for (let steps = 1; steps <= last && hard(made.arranged.notes) > most; steps++)
    made = { arranged: arrange(score, chords, { ...settings, reduction: steps }), steps };
  return made;
}

/** The goal of a version in quarter notes per minute; in steps of two, as metronomes go. */
export const goalTempoOf = (source: Score, { tempoShare }: LevelContract): number =>
  2 * Math.round(((source.tempo || USUAL_TEMPO) * tempoShare) / 2);

/** The key of a version, without making it. */
export function versionKey(source: Score, recipe: Recipe, levels: readonly LevelContract[] = LEVELS): Key {
  const contract = levelNumbered(recipe.level, levels);
  return keyFor(recipe, analysed(source, introductionOf(source, recipe)), contract).key;
}

/** The key that was chosen, in the source's mode; else the one that the level reads. */
function keyFor(recipe: Recipe, { score, key }: Analysed, contract: LevelContract): LevelKey {
  const chosen = recipe.key === null ? undefined : parseKey(recipe.key);
  return chosen ? { key: inMode(chosen, key.mode) } : levelKey(score, key, contract);
}

/** A key that both hands strike at once is one key: the hand keeps it that holds it longer, the right one of equals. */
function withoutDoubledKeys(notes: readonly Note[]): Note[] {
  const struck = new Map<string, SoundingNote[]>();
  for (const note of soundingNotes(notes)) {
    const name = `${note.onset} ${note.midi}`;
    struck.set(name, [...(struck.get(name) ?? []), note]);
  }
  const left = new Set<string>();
  for (const keys of struck.values()) {
    if (new Set(keys.map((k) => k.staff)).size < 2) continue;
    const kept = [...keys].sort((a, b) => b.duration - a.duration || a.staff - b.staff)[0]!;
    for (const key of keys) if (key.staff !== kept.staff) for (const id of key.written) left.add(id);
  }
  return left.size === 0 ? [...notes] : notes.filter((n) => !left.has(n.id));
}

function asPianoPart(frame: Score, arranged: Arranged, notes: readonly Note[], feel: Feel): Score {
  const swing: readonly Mark[] =
    feel === 'swing' && !arranged.marks.some((m) => m.kind === 'words' && /swing/i.test(m.text))
      ? [{ kind: 'words', onset: 0, staff: 1, above: true, text: 'Swing' }]
      : [];
  const clefs = arranged.clefs ?? readableClefs(frame.measures, notes);
  const marks = [
    ...swing,
    ...arranged.marks,
    ...octaveSigns(frame.measures, notes, clefs, underSigns(arranged.marks)),
  ].sort((a, b) => a.onset - b.onset);
  const inOrder = [...notes].sort((a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice);
  return {
    ...frame,
    measures: frame.measures.map((m, i) =>
      i === frame.measures.length - 1 ? { ...m, barline: 'final' } : m,
    ),
    parts: [
      {
        id: 'P1',
        name: 'Piano',
        staves: 2,
        notes: inOrder,
        clefs,
        ...(marks.length > 0 ? { marks } : {}),
      },
    ],
    chordSymbols: arranged.chordSymbols,
    pedals: [],
  };
}
