/**
 * From a source, a recipe and the teacher's decisions to the version: the stages of the pipeline by name, each run only for
 * what it has not seen. Deterministic; a version is never stored, only made again.
 *
 *     analyse → (introduce) → transpose → arrange → hands → fingers → counts → pedal → write → check, difficulty, account
 *
 * Transposing comes before arranging, since register, reach and keyboard can only be judged in the key that sounds.
 *
 * @example
 * const version = realise(source, { ...DEFAULT_RECIPE, level: 3 }, [
 *   { kind: 'finger', at: { note: 'm4n2' }, value: 3 },
 *   { kind: 'texture', at: { measure: 'm5' }, value: 'block-chord' },
 * ]);
 * version.fingers['m4n2']; // { finger: 3, decided: true }
 */
import { difficultyOf, type MeasureDifficulty } from '../difficulty/difficulty';
import type { Form } from '../analysis/form';
import type { ChordSpan } from '../analysis/harmony';
import type { MelodyLine } from '../analysis/melody';
import { accountOf, accountText, type Account } from '../arrange/account';
import { hasLeftHand } from '../arrange/arrange';
import type { Arranged } from '../arrange/arranged';
import type { Reason } from '../arrange/reason';
import { LEVELS, type LevelContract } from '../arrange/levels';
import { countMeasures, withOtherWords, type MeasureCounts } from '../counting/count';
import type { Idiom } from '../analysis/idioms';
import type { Feel } from '../counting/feel';
import type { SchoolId } from '../counting/schools';
import { byNote, decisionsOf } from '../decisions/decide';
import { valuesIn, type Layout } from '../decisions/holds';
import { parkedIn, type Parked } from '../decisions/parked';
import type { Decision } from '../decisions/registry';
import type { Hand } from '../fingering/events';
import { fingerHand, phraseStarts, playedBy, struckBy, type FingeredHand } from '../fingering/fingerHand';
import type { Taste } from '../fingering/taste';
import type { Finger } from '../fingering/grips';
import { positionsOf, type HandPosition } from '../fingering/positions';
import { wideChords, type WideChord } from '../hands/wide';
import { blursUnder, type Blur } from '../pedal/blur';
import { withFoot } from '../pedal/foot';
import { dryMeasures } from '../pedal/dry';
import { pedalMarks, type PedalStyle, type ReasonedMark } from '../pedal/pedal';
import { sameData, stage } from '../pipeline/memo';
import { measureAt, soundingNotes } from '../score/query';
import type { Part, PedalMark, Score } from '../score/score';
import type { Key } from '../theory/key';
import { arrangement, goalTempoOf, marked, type Arrangement } from './arrangement';
import { adviceOf, withHard, type Advice } from './private/advice';
import { checkVersion, type CheckLimits, type Violation } from './check';
import { limitsText } from './limits';
import type { Recipe } from './recipe';
import { withMarks } from './writeMarks';

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
  readonly idiom: Idiom;
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
  /** Decisions that have no place in this version, with the reason. They come back when it does. */
  readonly parked: readonly Parked[];
  /** What was left out, changed and kept, to be said honestly. */
  readonly account: Account;
  /** The same in one sentence. */
  readonly accountText: string;
  /** No melody is played: chords carry a singer. */
  readonly isSingAlong: boolean;
  /** Measures (by index) in which they carry one. */
  readonly sungMeasures: ReadonlySet<number>;
  /** Measures before the source begins. */
  readonly introduction: number;
  /** The lines of the source that can have the melody, and the one that has it in each measure. */
  readonly melody: { readonly has: readonly MelodyLine[]; readonly lines: readonly MelodyLine[] };
  /** What the teacher says to the learner, by the index of the last measure that it is about. */
  readonly advice: readonly Advice[];
  /** The source has repeat signs or jumps. */
  readonly hasRepeats: boolean;
  /** The source has an accompaniment of its own. */
  readonly hasOwnAccompaniment: boolean;
  /** Goal tempo in quarter notes per minute. */
  readonly goalTempo: number;
}

/** What stands on the page: enough to draw a version, before it is checked and judged. */
export type WrittenVersion = Pick<Version, 'score' | 'form' | 'counts' | 'fingers' | 'key'> &
  Partial<Pick<Version, 'positions'>>;

const HANDS = ['right', 'left'] as const;

/** Makes the version. Throws when the source holds no part; every other shortcoming is a violation or a reason. */
export function realise(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Version {
  return lastOf(realising(source, recipe, decisions, levels));
}

/** The music of a version alone, for whoever writes it into a file: nothing is checked or judged. */
export function writtenScore(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Score {
  return lastOf(writing(source, recipe, decisions, levels)).score;
}

function lastOf<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

interface Written {
  readonly made: Arrangement;
  readonly hands: readonly FingeredHand[];
  readonly fingers: Version['fingers'];
  readonly counts: readonly MeasureCounts[];
  readonly refused: ReturnType<typeof countsOf>['refused'];
  readonly pedals: readonly ReasonedMark[];
  readonly goalTempo: number;
  readonly timed: Score;
  readonly score: Score;
}

/** Everything that stands in the score, which it yields at its end. */
function* writing(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[],
): Generator<WrittenVersion | undefined, Written> {
  const made = arrangement(source, recipe, decisions, levels);
  yield undefined;
  const { score: written, contract, form, layout, chords } = made;
  const hands = HANDS.map((hand) => fingered(made, decisions, hand));
  yield undefined;
  const { counts, refused } = countsOf(written, layout, recipe, decisions);
  const pedals = sameData(
    withFoot(
      pedalStage(written, sameData(made.ownPedals), chords, form, pedalStyles(made, decisions)),
      written.parts[0]!.notes,
      byNote(decisions, 'pedal mark'),
    ),
  );
  const marks = marked(made, decisions);
  yield undefined;
  const goalTempo = goalTempoOf(source, contract);
  const timed = timedStage(marks.score, pedals, goalTempo, contract.tempoShare);
  const score = writeStage(timed, hands[0]!.fingering, hands[1]!.fingering, sameData(counts));
  const fingers = noteFingers(hands, decisions);
  yield { score, form, counts, fingers, key: made.key };
  return {
    made,
    hands,
    fingers,
    counts,
    refused: new Map([...made.refused, ...refused, ...marks.refused]),
    pedals,
    goalTempo,
    timed,
    score,
  };
}

/**
 * The same step by step, so that whoever no longer wants it can stop between two stages; what can be drawn is yielded as soon as it
 * is there.
 */
export function* realising(
  source: Score,
  recipe: Recipe,
  decisions: readonly Decision[],
  levels: readonly LevelContract[] = LEVELS,
): Generator<WrittenVersion | undefined, Version> {
  const { made, hands, fingers, counts, refused, pedals, goalTempo, timed, score } = yield* writing(
    source,
    recipe,
    decisions,
    levels,
  );
  const { score: written, contract, form, layout, chords, arranged, reach, keyboard } = made;
  const violations = checkStage(timed, sameData({ contract, reach, keyboard }));
  const account = accountStage(arranged, written, chords, source.parts);
  yield undefined;
  const arrangedIds = new Set(arranged.notes.map((n) => n.id));
  const { blurs, wide } = soundStage(timed, chords, sameData(reach));
  return {
    score,
    contract,
    sourceKey: made.sourceKey,
    key: made.key,
    form,
    chords,
    fingers,
    counts,
    difficulty: withHard(difficultyStage(timed), valuesIn('hard', decisions, layout)),
    advice: adviceOf(decisions, layout),
    hasRepeats: made.hasRepeats,
    reasons: made.reasons,
    violations,
    parked: parkedIn(decisions, {
      ...layout,
      arranged: arrangedIds,
      struck: new Set(Object.keys(fingers)),
      refused,
    }),
    feel: made.feel,
    idiom: made.idiom,
    positions: hands.flatMap(({ fingering }, i) => positionStage(written, fingering, HANDS[i]!)),
    pedals,
    blurs,
    wide,
    account,
    accountText: accountText(account, limitsText(violations, contract.level), arranged.isSingAlong),
    isSingAlong: arranged.isSingAlong,
    sungMeasures: arranged.sungMeasures,
    introduction: made.introduction,
    melody: { has: arranged.melody.has, lines: arranged.melody.lines },
    hasOwnAccompaniment: hasLeftHand(arranged),
    goalTempo,
  };
}

interface FingerWishes {
  readonly reach: number;
  readonly steadiness: number;
  readonly taste?: Taste;
  /** Decided fingers of this hand, by note id. */
  readonly locks: readonly (readonly [string, Finger])[];
}

const fingerStage = stage(
  'fingers',
  (written: Score, form: Form, hand: Hand, wishes: FingerWishes): FingeredHand =>
    fingerHand(written, written.parts[0]!, hand, form, { ...wishes, locks: new Map(wishes.locks) }),
);

/** Struck notes of a hand by id: a decision about another hand's note is not read. */
const struckStage = stage(
  'struck',
  (written: Score, hand: Hand): ReadonlySet<string> =>
    new Set(struckBy(written.parts[0]!, hand).map((n) => n.id)),
);

/** One hand of an arrangement, fingered as the teacher has decided. */
export function fingered(
  {
    score,
    form,
    reach,
    contract,
    taste,
  }: Pick<Arrangement, 'score' | 'form' | 'reach' | 'contract' | 'taste'>,
  decisions: readonly Decision[],
  hand: Hand,
): FingeredHand {
  const own = struckStage(score, hand);
  return fingerStage(
    score,
    form,
    hand,
    sameData({
      reach: reach[hand],
      steadiness: contract.steadiness,
      ...(taste ? { taste } : {}),
      locks: [...byNote(decisions, 'finger')].filter(([id]) => own.has(id)),
    }),
  );
}

function noteFingers(
  hands: readonly FingeredHand[],
  decisions: readonly Decision[],
): Record<string, NoteFinger> {
  const decided = byNote(decisions, 'finger');
  const fingers: Record<string, NoteFinger> = {};
  for (const { fingering } of hands)
    for (const [id, finger] of fingering.fingers) fingers[id] = { finger, decided: decided.has(id) };
  return fingers;
}

const countStage = stage(
  'counts',
  (
    { measures, parts }: Score,
    countFor: Recipe['countFor'],
    cutTime: Recipe['cutTime'],
    schools: readonly (SchoolId | 'none' | undefined)[],
  ): MeasureCounts[] => {
    const part = parts[0]!;
    const notes = countFor === 'both' ? soundingNotes(part.notes) : playedBy(part, countFor);
    return countMeasures(measures, notes, (measure) => {
      const school = schools[measure] ?? 'numbers';
      return school === 'none' ? null : { school, cutTime };
    });
  },
);

/** What is said in each measure, the teacher's own words over it; and the decisions whose words do not fit their measure. */
function countsOf(
  written: Score,
  layout: Layout,
  recipe: Recipe,
  decisions: readonly Decision[],
): { counts: MeasureCounts[]; refused: ReadonlyMap<Decision, string> } {
  const counts = countStage(
    written,
    recipe.countFor,
    recipe.cutTime,
    valuesIn('counting', decisions, layout),
  );
  const words = new Map(
    decisionsOf(decisions, 'count').flatMap((d) => ('measure' in d.at ? [[d.at.measure, d] as const] : [])),
  );
  const refused = new Map<Decision, string>();
  return {
    refused,
    counts: counts.map((entry) => {
      const decided = words.get(written.measures[entry.measure]!.id);
      if (!decided) return entry;
      const other = withOtherWords(entry.counts, decided.value);
      if (!other)
        refused.set(decided, `its words don’t fit the ${entry.counts.length} places of its measure`);
      return other ? { ...entry, counts: other } : entry;
    }),
  };
}

/** How the pedal goes with an idiom, where nobody says otherwise. */
const PEDAL_OF: Readonly<Record<Idiom, PedalStyle>> = {
  waltz: 'low-to-chord',
  march: 'none',
  rag: 'none',
  swing: 'low-to-chord',
  walking: 'none',
  bossa: 'none',
  tango: 'none',
  hymn: 'harmony',
  voices: 'none',
  study: 'none',
  prelude: 'harmony',
  ballad: 'harmony',
  lullaby: 'harmony',
  riff: 'none',
  dance: 'none',
  plain: 'harmony',
};

/**
 * The pedal of each measure. What is decided for a section or a measure stands at every level; for the whole version, from the
 * level that has pedal. Where nothing is decided, music that is played as written keeps the marks of its source.
 */
function pedalStyles(
  { score, contract, ownPedals, layout, idiom }: Arrangement,
  decisions: readonly Decision[],
): readonly (PedalStyle | 'source')[] {
  const allowed = contract.pedal !== 'none';
  const usual = contract.accompaniment === 'kept' && ownPedals.length > 0 ? 'source' : PEDAL_OF[idiom];
  const dry = usual === 'source' || usual === 'none' ? [] : dryMeasures(score);
  const here = decisions.filter((d) => d.kind === 'pedal' && (allowed || !('version' in d.at)));
  return sameData(
    valuesIn('pedal', here, layout).map((style, i) => style ?? (allowed && !dry[i] ? usual : 'none')),
  );
}

/** Pedal for both hands. Where a measure keeps the source's own marks, those that fall into it. */
const pedalStage = stage(
  'pedal',
  (
    written: Score,
    ownMarks: readonly PedalMark[],
    chords: readonly ChordSpan[],
    form: Form,
    styles: readonly (PedalStyle | 'source')[],
  ): ReasonedMark[] => {
    const marks = pedalMarks(soundingNotes(written.parts[0]!.notes), {
      measures: written.measures,
      chords,
      phraseStarts: phraseStarts(written, form, 'right'),
      styleIn: (measure) => {
        const style = styles[measure] ?? 'none';
        return style === 'source' ? 'none' : style;
      },
    });
    const kept = ownMarks
      .filter((m) => styles[measureAt(written.measures, m.onset).index] === 'source')
      .map((m): ReasonedMark => ({ ...m, because: 'as in the source' }));
    return [...marks, ...kept].sort((a, b) => a.onset - b.onset);
  },
);

/** At the goal tempo, with its pedal. */
const timedStage = stage(
  'tempo',
  (written: Score, pedals: readonly ReasonedMark[], goalTempo: number, share: number): Score => ({
    ...written,
    tempo: goalTempo,
    ...(written.tempoChanges
      ? { tempoChanges: written.tempoChanges.map((t) => ({ ...t, tempo: t.tempo * share })) }
      : {}),
    pedals,
  }),
);

/** Fingers and counts on the notes. */
const writeStage = stage(
  'write',
  (
    timed: Score,
    right: FingeredHand['fingering'],
    left: FingeredHand['fingering'],
    counts: readonly MeasureCounts[],
  ): Score => ({
    ...timed,
    parts: [withMarks(timed.parts[0]!, timed.measures, new Map([...right.fingers, ...left.fingers]), counts)],
  }),
);

const checkStage = stage('check', (timed: Score, limits: CheckLimits): Violation[] =>
  checkVersion(timed, limits),
);

const difficultyStage = stage('difficulty', (timed: Score): MeasureDifficulty[] => difficultyOf(timed));

const accountStage = stage(
  'account',
  (arranged: Arranged, written: Score, chords: readonly ChordSpan[], parts: readonly Part[]): Account =>
    accountOf(arranged, written.parts[0]!.notes, written.measures, chords, parts),
);

const positionStage = stage(
  'positions',
  (written: Score, { fingers }: FingeredHand['fingering'], hand: Hand): HandPosition[] =>
    positionsOf(struckBy(written.parts[0]!, hand), fingers, hand),
);

/** What sounds together: what blurs under the pedal, and what is wider than a hand. */
const soundStage = stage(
  'sound',
  (
    { parts, pedals, measures }: Score,
    chords: readonly ChordSpan[],
    reach: Readonly<Record<Hand, number>>,
  ): { blurs: Blur[]; wide: WideChord[] } => {
    const sounding = soundingNotes(parts[0]!.notes);
    return {
      blurs: blursUnder(sounding, chords, pedals),
      wide: wideChords(sounding, (n) => (n.staff === 1 ? 'right' : 'left'), {
        measures,
        reach,
        hasPedal: pedals.length > 0,
      }),
    };
  },
);
