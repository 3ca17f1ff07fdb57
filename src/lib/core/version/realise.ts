/**
 * From a source, a recipe and the teacher's decisions to the version: analyse → transpose → arrange → finger → count
 * → pedal → check. Deterministic; a version is never stored, only made again.
 *
 * Transposing comes before arranging, since register, reach and keyboard can only be judged in the key that sounds.
 */
import { difficultyOf, type MeasureDifficulty } from '../difficulty/difficulty';
import { scoreOfWhole } from '../difficulty/level';
import type { Form } from '../analysis/form';
import type { ChordSpan } from '../analysis/harmony';
import type { TuneLine } from '../analysis/melody';
import { accountOf, accountText, type Account } from '../arrange/account';
import { arrange, CALMEST, hasLeftHand, type Arranged, type ArrangeSettings } from '../arrange/arrange';
import type { Reason } from '../arrange/reason';
import { LEVELS, levelNumbered, type LevelContract } from '../arrange/levels';
import { KEYBOARDS, REACH_SEMITONES } from '../arrange/register';
import { countMeasures, withOtherWords, type MeasureCounts } from '../counting/count';
import { feelOf, type Feel } from '../counting/feel';
import type { Hand } from '../fingering/events';
import { fingerHand, phraseStarts, playedBy, struckBy, type FingeredHand } from '../fingering/fingerHand';
import type { Finger } from '../fingering/grips';
import { positionsOf, type HandPosition } from '../fingering/positions';
import { wideChords, type WideChord } from '../hands/wide';
import { levelKey, type LevelKey } from '../keys/levelKey';
import { blursUnder, type Blur } from '../pedal/blur';
import { pedalMarks, type PedalStyle, type ReasonedMark } from '../pedal/pedal';
import { keyboardPart, measureAt, soundingNotes } from '../score/query';
import type { Mark, Note, PedalMark, Score } from '../score/score';
import { parseKey, type Key } from '../theory/key';
import { analysed, inKey } from './analysed';
import { checkVersion, type Violation } from './check';
import { introductionOf } from './introduction';
import { decisionsOf, type Decision, type Recipe } from './recipe';
import { countingIn, pedalIn, textureIn, tuneIn } from './ways';
import { withCounts, withFingers } from './writeMarks';

export type { Reason } from '../arrange/reason';

export interface NoteFinger {
  readonly finger: Finger;
  readonly decided: boolean;
}

export interface Version {
  /** Two staves, fingers, counts and pedal in place: ready to engrave or to write. */
  readonly score: Score;
  readonly contract: LevelContract;
  readonly sourceKey: Key;
  readonly key: Key;
  readonly form: Form;
  readonly chords: readonly ChordSpan[];
  /** By the id of the struck note. */
  readonly fingers: Readonly<Record<string, NoteFinger>>;
  readonly counts: readonly MeasureCounts[];
  readonly feel: Feel;
  /** Where each hand lies, in order of time. */
  readonly positions: readonly HandPosition[];
  readonly pedals: readonly ReasonedMark[];
  /** What blurs under the pedal as it is. */
  readonly blurs: readonly Blur[];
  /** Chords that their hand cannot hold, and what can be done about them. */
  readonly wide: readonly WideChord[];
  readonly difficulty: readonly MeasureDifficulty[];
  readonly reasons: readonly Reason[];
  readonly violations: readonly Violation[];
  /** Decisions whose note is not in this version. They come back when it does. */
  readonly parked: readonly Decision[];
  /** What was left out, changed and kept, to be said honestly. */
  readonly account: Account;
  /** The same in one sentence. */
  readonly accountText: string;
  /** No tune is played: chords carry a singer. */
  readonly isSingAlong: boolean;
  /** Measures before the source begins. */
  readonly introduction: number;
  /** The lines of the source that can have the tune, and the one that has it in each measure. */
  readonly tune: { readonly has: readonly TuneLine[]; readonly lines: readonly TuneLine[] };
  /** The source has an accompaniment of its own. */
  readonly hasOwnAccompaniment: boolean;
  /** Goal tempo in quarter notes per minute. */
  readonly goalTempo: number;
}

/** Played when a source gives no tempo. */
const USUAL_TEMPO = 96;

/** Notes of a version without fingers, counts and pedal: what the ranking of keys needs. */
export interface Arrangement {
  readonly score: Score;
  readonly contract: LevelContract;
  readonly sourceKey: Key;
  readonly key: Key;
  readonly form: Form;
  readonly chords: readonly ChordSpan[];
  readonly arranged: Arranged;
  readonly introduction: number;
  readonly reasons: readonly Reason[];
  /** Pedal marks of the source. */
  readonly ownPedals: readonly PedalMark[];
  readonly feel: Feel;
}

/** Arranges without fingers, counts and pedal. `levels` are those of the studio. */
export function arrangement(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Arrangement {
  const contract = levelNumbered(recipe.level, levels);
  const introduction = introductionOf(source, recipe);
  const { score: heard, key: sourceKey, form } = analysed(source, introduction);
  const { key, because } = keyFor(recipe, heard, sourceKey, contract);
  const { score: moved, chords } = inKey(source, key, introduction);
  const feel = recipe.feel ?? feelOf(source);
  const settings: ArrangeSettings = {
    contract,
    style: recipe.style,
    textureIn: textureIn(recipe, decisions, form),
    tuneIn: tuneIn(recipe, form),
    rhythm: recipe.rhythm,
    reach: { right: REACH_SEMITONES[recipe.reach.right], left: REACH_SEMITONES[recipe.reach.left] },
    keyboard: KEYBOARDS[recipe.keyboard],
    form,
    swings: feel === 'swing',
  };
  const next = levels.find((l) => l.level > contract.level);
  const arranged = noHarderThanSource(moved, chords, settings, source.tempo || USUAL_TEMPO, next);
  const keyReason: Reason[] = because ? [{ measure: 0, about: 'register', notes: [], text: because }] : [];
  return {
    score: asPianoPart(moved, arranged, inDecidedHands(arranged.notes, decisions), feel),
    contract,
    sourceKey,
    key,
    form,
    chords,
    arranged,
    introduction,
    reasons: [...keyReason, ...arranged.reasons],
    ownPedals: moved.pedals,
    feel,
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
): Arranged {
  const { contract } = settings;
  const first = arrange(score, chords, settings);
  const own = score.parts.length > 0 ? keyboardPart(score) : undefined;
  if (contract.accompaniment === 'kept' || !hasLeftHand(first) || first.isSingAlong || !own) return first;
  const hard = (notes: readonly Note[], { tempoShare }: LevelContract = contract): number =>
    scoreOfWhole(
      difficultyOf({
        ...score,
        tempo: tempo * tempoShare,
        parts: [{ id: 'P1', name: '', staves: 2, notes }],
      }),
    );
  // The next level may itself have thinned the source: then that is the measure.
  const isLastReplaced = contract.accompaniment === 'replaced' && next?.accompaniment === 'thinned';
  const most = Math.min(
    hard(own.notes),
    isLastReplaced ? hard(arrange(score, chords, { ...settings, contract: next }).notes, next) : Infinity,
  );
  let arranged = first;
  for (let calm = 1; calm <= CALMEST && hard(arranged.notes) > most; calm++)
    arranged = arrange(score, chords, { ...settings, calm });
  return arranged;
}

/** The key of a version, without making it. */
export function versionKey(source: Score, recipe: Recipe, levels: readonly LevelContract[] = LEVELS): Key {
  const { score, key } = analysed(source, introductionOf(source, recipe));
  return keyFor(recipe, score, key, levelNumbered(recipe.level, levels)).key;
}

/** The key that was chosen, in the source's mode; else the one that the level reads. */
function keyFor(recipe: Recipe, score: Score, sourceKey: Key, contract: LevelContract): LevelKey {
  const chosen = recipe.key === null ? undefined : parseKey(recipe.key);
  return chosen ? { key: { ...chosen, mode: sourceKey.mode } } : levelKey(score, sourceKey, contract);
}

/** Makes the version. Throws when the source holds no part; every other shortcoming is a violation or a reason. */
export function realise(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Version {
  const made = arrangement(source, recipe, decisions, levels);
  const { score: written, contract, form, chords, arranged, reasons } = made;
  const keyboard = KEYBOARDS[recipe.keyboard];
  const fingers = fingerHands(written, form, recipe, decisions, contract);
  const byId = new Map(Object.entries(fingers).map(([id, { finger }]) => [id, finger]));
  const { counts, unmatched } = countsOf(written, form, recipe, decisions);
  const pedals = pedalsOf(
    written,
    made.ownPedals,
    chords,
    form,
    pedalIn(withOwnPedal(recipe, made), decisions, form, contract.pedal !== 'none'),
  );
  const score: Score = {
    ...written,
    parts: [withCounts(withFingers(written.parts[0]!, byId), written.measures, counts)],
    pedals,
  };
  const sounding = soundingNotes(score.parts[0]!.notes);
  const reach = { right: REACH_SEMITONES[recipe.reach.right], left: REACH_SEMITONES[recipe.reach.left] };
  const goalTempo = 2 * Math.round(((source.tempo || USUAL_TEMPO) * contract.tempoShare) / 2); // as metronomes go
  const timed: Score = {
    ...score,
    tempo: goalTempo,
    ...(score.tempoChanges
      ? { tempoChanges: score.tempoChanges.map((t) => ({ ...t, tempo: t.tempo * contract.tempoShare })) }
      : {}),
  };
  const violations = checkVersion(score, { contract, reach, keyboard });
  const account = accountOf(arranged, written.parts[0]!.notes, score.measures, chords);
  return {
    score: timed,
    contract,
    sourceKey: made.sourceKey,
    key: made.key,
    form,
    chords,
    fingers,
    counts,
    difficulty: difficultyOf(timed),
    reasons,
    violations,
    parked: decisions.filter((d) =>
      'note' in d ? !(d.note in fingers) : d.measure >= score.measures.length || unmatched.has(d),
    ),
    feel: made.feel,
    positions: (['right', 'left'] as const).flatMap((hand) =>
      positionsOf(struckBy(score.parts[0]!, hand), byId, hand),
    ),
    pedals,
    blurs: blursUnder(sounding, chords, pedals),
    wide: wideChords(sounding, (n) => (n.staff === 1 ? 'right' : 'left'), {
      measures: score.measures,
      reach,
      hasPedal: pedals.length > 0,
    }),
    account,
    accountText: accountText(account, violations, arranged.isSingAlong),
    isSingAlong: arranged.isSingAlong,
    introduction: made.introduction,
    tune: { has: arranged.tune.has, lines: arranged.tune.lines },
    hasOwnAccompaniment: hasLeftHand(arranged),
    goalTempo,
  };
}

/** Source pedal marks are kept where the piece is played as written, unless another style than the usual is asked for. */
const withOwnPedal = (recipe: Recipe, { contract, ownPedals }: Arrangement): Recipe =>
  contract.accompaniment === 'kept' && ownPedals.length > 0 && recipe.pedal === 'harmony'
    ? { ...recipe, pedal: 'source' }
    : recipe;

function asPianoPart(frame: Score, arranged: Arranged, notes: readonly Note[], feel: Feel): Score {
  const swing: readonly Mark[] =
    feel === 'swing' && !arranged.marks.some((m) => m.kind === 'words' && /swing/i.test(m.text))
      ? [{ kind: 'words', onset: 0, staff: 1, above: true, text: 'Swing' }]
      : [];
  const marks = [...swing, ...arranged.marks];
  const inOrder = [...notes].sort((a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice);
  return {
    ...frame,
    measures: frame.measures.map((m, i) =>
      i === frame.measures.length - 1 ? { ...m, barline: 'final' } : m,
    ),
    parts: [{ id: 'P1', name: 'Piano', staves: 2, notes: inOrder, ...(marks.length > 0 ? { marks } : {}) }],
    chordSymbols: arranged.chordSymbols,
    pedals: [],
  };
}

/** What is said in each measure, the teacher's own words over it; and the decisions whose words do not fit their measure. */
function countsOf(
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
): { counts: MeasureCounts[]; unmatched: ReadonlySet<Decision> } {
  const part = score.parts[0]!;
  const notes = recipe.countFor === 'both' ? soundingNotes(part.notes) : playedBy(part, recipe.countFor);
  const words = new Map(decisionsOf(decisions, 'count').map((d) => [d.measure, d]));
  const unmatched = new Set<Decision>();
  const counts = countMeasures(score.measures, notes, countingIn(recipe, form));
  return {
    unmatched,
    counts: counts.map((entry) => {
      const decided = words.get(entry.measure);
      if (!decided) return entry;
      const other = withOtherWords(entry.counts, decided.words);
      if (!other) unmatched.add(decided);
      return other ? { ...entry, counts: other } : entry;
    }),
  };
}

/** Pedal for both hands. Where a measure keeps the source's own marks, those that fall into it. */
function pedalsOf(
  score: Score,
  ownMarks: readonly PedalMark[],
  chords: readonly ChordSpan[],
  form: Form,
  styleIn: (measure: number) => PedalStyle | 'source',
): ReasonedMark[] {
  const marks = pedalMarks(soundingNotes(score.parts[0]!.notes), {
    measures: score.measures,
    chords,
    phraseStarts: phraseStarts(score, form),
    styleIn: (measure) => {
      const style = styleIn(measure);
      return style === 'source' ? 'none' : style;
    },
  });
  const kept = ownMarks
    .filter((m) => styleIn(measureAt(score.measures, m.onset).index) === 'source')
    .map((m): ReasonedMark => ({ ...m, because: 'as in the source' }));
  return [...marks, ...kept].sort((a, b) => a.onset - b.onset);
}

/** Voice of a note that came to the other hand and found none there that moves with it. */
const VISITING_VOICE = { right: 2, left: 6 } as const;

/** Notes in the hands that the teacher has given them to. */
function inDecidedHands(notes: readonly Note[], decisions: readonly Decision[]): readonly Note[] {
  const hands = new Map(decisionsOf(decisions, 'hand').map((d) => [d.note, d.hand]));
  if (hands.size === 0) return notes;
  return notes.map((note) => {
    const hand = hands.get(note.id);
    const staff = hand === 'right' ? 1 : 2;
    if (!hand || staff === note.staff) return note;
    const host = notes.find(
      (n) => n.staff === staff && n.onset === note.onset && n.duration === note.duration && !hands.has(n.id),
    );
    return { ...note, staff, voice: host?.voice ?? VISITING_VOICE[hand] };
  });
}

/** One hand of an arranged score, fingered as recipe and decisions have it. */
export const fingered = (
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
  hand: Hand,
  contract: LevelContract = levelNumbered(recipe.level),
): FingeredHand =>
  fingerHand(score, score.parts[0]!, hand, form, {
    reach: REACH_SEMITONES[recipe.reach[hand]],
    locks: new Map(decisionsOf(decisions, 'finger').map((d) => [d.note, d.finger])),
    steadiness: contract.steadiness,
  });

function fingerHands(
  score: Score,
  form: Form,
  recipe: Recipe,
  decisions: readonly Decision[],
  contract: LevelContract,
): Record<string, NoteFinger> {
  const decided = new Set(decisionsOf(decisions, 'finger').map((d) => d.note));
  const result: Record<string, NoteFinger> = {};
  for (const hand of ['right', 'left'] as const) {
    const { fingering } = fingered(score, form, recipe, decisions, hand, contract);
    for (const [id, finger] of fingering.fingers) result[id] = { finger, decided: decided.has(id) };
  }
  return result;
}
