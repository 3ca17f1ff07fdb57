/**
 * A take judged: each keystroke is followed through the music (private/follow.ts), the take is cut into passes, and in each pass every
 * note is right, another key, missed or unsure, every further keystroke too much. A measure counts as it was played the last time.
 */
import type { Expectation, ExpectedNote, TakenHand } from './expectation';
import type { Keystroke } from './keystroke';
import { follow, type PaceAt } from './private/follow';
import { matchPass, type MatchedPass } from './private/match';
import { median, paceOf, passesOf, type Pass } from './private/passes';
import { timingOf, type TimedOnset } from './timing';

export type Verdict = 'right' | 'other' | 'missed' | 'unsure';

export interface JudgedNote {
  readonly note: ExpectedNote;
  readonly verdict: Verdict;
  /** The key that was struck instead, where it was another. */
  readonly played?: number;
  /** Seconds on the ear's clock, where it was struck. */
  readonly at?: number;
  /** Against the player's own tempo, where it is off by more than anybody hears. */
  readonly timing?: 'early' | 'late';
}

/** A key that stands nowhere in the music. */
export interface ExtraNote {
  readonly midi: number;
  readonly at: number;
  /** The measure in which it was struck. */
  readonly measure: number;
}

export interface JudgedPass {
  readonly notes: readonly JudgedNote[];
  readonly extra: readonly ExtraNote[];
  readonly timing: readonly TimedOnset[];
  /** First and last onset that it reached. */
  readonly from: number;
  readonly to: number;
}

/** What a measure was like when it was played last. */
export interface JudgedMeasure {
  readonly measure: number;
  readonly notes: readonly JudgedNote[];
  readonly extra: readonly ExtraNote[];
  /** Share of its notes that were right, of those that are sure; 1 is all. */
  readonly right: number;
  /** Times that it was begun. */
  readonly times: number;
  /** Quarter notes per minute that were reached; undefined where too little was struck. */
  readonly tempo?: number;
  /** How far onsets lie from the player's own tempo, as a share of a quarter: 0 is perfectly even. */
  readonly unevenness?: number;
  /** Seconds that the player stood still in it. */
  readonly stood: number;
}

export interface Take {
  readonly passes: readonly JudgedPass[];
  readonly measures: readonly JudgedMeasure[];
  /** Written measures that were played, in order. */
  readonly played: readonly number[];
  /** Every measure with something to play was played. */
  readonly isWhole: boolean;
  /** The one hand that was played where both were asked for. */
  readonly handAlone?: TakenHand;
  /** Share of the notes that were right, in the measures that were played. */
  readonly right: number;
  readonly tempo?: number;
  readonly unevenness?: number;
  /** Places where the player stood still in what counts. */
  readonly stops: number;
}

/** What an ear must be sure of to say that a key was, or was not, struck. */
const SURE = 0.5;
/** Early or late by more than so many seconds and so much of a quarter. */
const [OFF, OFF_SHARE] = [0.12, 0.2];
/** Share of its notes from which a hand took part; and share of what was struck that is right where one hand explains it all. */
const [TOOK_PART, MOSTLY] = [0.3, 0.75];
const FEWEST_OF_HAND = 3;
/** Times that the pace is learned from what was followed, and followed again. */
const ROUNDS = 2;

/**
 * Judges what was heard against what is expected. Keystrokes in any order. `isOver` is false while more may be played: then nothing is
 * missed yet where the player is.
 */
export function judge(expectation: Expectation, heard: readonly Keystroke[], isOver = true): Take {
  const keystrokes = [...heard].sort((a, b) => a.onset - b.onset);
  const take = judgeAll(expectation, keystrokes, isOver);
  const isBothAsked = (['right', 'left'] as const).every((hand) =>
    expectation.notes.some((n) => n.hand === hand),
  );
  if (!isBothAsked || keystrokes.length < FEWEST_OF_HAND || hasBothHands(take)) return take;
  const alone = (['right', 'left'] as const).map((hand): Take => ({
    ...judgeAll(ofHand(expectation, hand), keystrokes, isOver),
    handAlone: hand,
  }));
  // One hand explains what was struck, and the other has hardly anything of it.
  const best = alone.reduce((a, b) => (rightIn(b) > rightIn(a) ? b : a));
  return rightIn(best) >= MOSTLY * keystrokes.length && best.right > take.right ? best : take;
}

/** Whether each hand has right notes among those that were due to it. */
function hasBothHands({ measures }: Take): boolean {
  const notes = measures.flatMap((m) => m.notes);
  return (['right', 'left'] as const).every(
    (hand) => shareRight(notes.filter((n) => n.note.hand === hand)) >= TOOK_PART,
  );
}

/** Notes that are right in what counts. */
const rightIn = ({ measures }: Take): number =>
  measures.reduce((sum, m) => sum + m.notes.filter((n) => n.verdict === 'right').length, 0);

/** What one hand has of an expectation. */
function ofHand(expectation: Expectation, hand: TakenHand): Expectation {
  const own = expectation.onsets
    .map((onset) => ({ ...onset, notes: onset.notes.filter((n) => n.hand === hand) }))
    .filter((onset) => onset.notes.length > 0);
  const onsets = own.map((onset, i) => ({ ...onset, opensMeasure: own[i - 1]?.measure !== onset.measure }));
  return { ...expectation, onsets, notes: expectation.notes.filter((n) => n.hand === hand) };
}

function judgeAll(expectation: Expectation, keystrokes: readonly Keystroke[], isOver: boolean): Take {
  const usual = 60 / expectation.tempo;
  let paceAt: PaceAt = () => usual;
  let passes: readonly Pass[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    passes = passesOf(expectation, keystrokes, follow(expectation, keystrokes, paceAt), paceAt, isOver);
    paceAt = paceOf(expectation, passes, usual);
  }
  const judged = passes.map((pass, i) =>
    judgePass(
      expectation,
      keystrokes,
      pass,
      matchPass(expectation, keystrokes, pass, paceAt),
      usual,
      i < passes.length - 1 || !isOver,
    ),
  );
  const measures = measuresOf(expectation, judged);
  const counted = measures.flatMap((m) => m.notes);
  return {
    passes: judged,
    measures,
    played: measures.map((m) => m.measure),
    isWhole: new Set(expectation.onsets.map((o) => o.measure)).size === measures.length,
    right: shareRight(counted),
    ...middleOf('tempo', measures),
    ...middleOf('unevenness', measures),
    stops: measures.filter((m) => m.stood > 0).length,
  };
}

const middleOf = <Field extends 'tempo' | 'unevenness'>(
  field: Field,
  measures: readonly JudgedMeasure[],
): { readonly [K in Field]?: number } => {
  const known = measures.flatMap((m) => (m[field] === undefined ? [] : [m[field]]));
  return known.length > 0 ? ({ [field]: median(known) } as { [K in Field]: number }) : {};
};

function judgePass(
  { onsets }: Expectation,
  keystrokes: readonly Keystroke[],
  pass: Pass,
  { matches, extra }: MatchedPass,
  usual: number,
  isLeft: boolean,
): JudgedPass {
  const timing = timingOf({ onsets }, pass, usual);
  const timed = new Map(timing.map((t) => [t.onset, t]));
  const notes = matches.flatMap(({ note, onset, stroke }): JudgedNote[] => {
    if (stroke === undefined) {
      if (note.isOrnament) return [];
      // Where a player breaks off in the middle of a chord nothing of it was missed.
      return [{ note, verdict: isLeft && onset === pass.to ? 'unsure' : 'missed' }];
    }
    const { midi, onset: at, certainty = 1 } = keystrokes[stroke]!;
    if (certainty < SURE) return [{ note, verdict: 'unsure', at }];
    if (midi !== note.midi) return [{ note, verdict: 'other', played: midi, at }];
    const off = offTempo(timed.get(onset));
    return [{ note, verdict: 'right', at, ...(off ? { timing: off } : {}) }];
  });
  const placeOf = new Map(pass.strokes.map((n, i) => [n, pass.path[i]!]));
  return {
    notes,
    extra: extra.flatMap((n): ExtraNote[] => {
      const { midi, onset, certainty = 1 } = keystrokes[n]!;
      return certainty < SURE ? [] : [{ midi, at: onset, measure: onsets[placeOf.get(n)!]!.measure }];
    }),
    timing,
    from: pass.from,
    to: pass.to,
  };
}

function offTempo(timed: TimedOnset | undefined): 'early' | 'late' | undefined {
  if (!timed || timed.late === undefined || timed.pace === undefined || timed.stood > 0) return undefined;
  if (Math.abs(timed.late) < OFF + OFF_SHARE * timed.pace) return undefined;
  return timed.late > 0 ? 'late' : 'early';
}

/** Share of notes that were right, of those that are sure. 1 where there are none. */
function shareRight(notes: readonly JudgedNote[]): number {
  const sure = notes.filter((n) => n.verdict !== 'unsure');
  return sure.length === 0 ? 1 : sure.filter((n) => n.verdict === 'right').length / sure.length;
}

/** Every measure that was played, as it was the last time: by the last pass that reached most of it. */
function measuresOf({ onsets }: Expectation, passes: readonly JudgedPass[]): readonly JudgedMeasure[] {
  const indices = new Map<number, number[]>();
  onsets.forEach(({ measure }, i) => indices.set(measure, [...(indices.get(measure) ?? []), i]));
  return [...indices].flatMap(([measure, own]): JudgedMeasure[] => {
    const reaching = passes.filter((p) => own.some((i) => i >= p.from && i <= p.to));
    if (reaching.length === 0) return [];
    const reached = (p: JudgedPass): number => own.filter((i) => i >= p.from && i <= p.to).length;
    const whole = reaching.filter((p) => reached(p) === own.length);
    const last = whole.at(-1) ?? reaching.reduce((a, b) => (reached(b) >= reached(a) ? b : a));
    const notes = last.notes.filter(({ note }) => note.measure === measure);
    const timing = last.timing.filter((t) => onsets[t.onset]!.measure === measure);
    const paces = timing.flatMap(({ pace }) => (pace === undefined ? [] : [pace]));
    const offs = timing.flatMap(({ late, pace }) =>
      late === undefined || pace === undefined ? [] : [late / pace],
    );
    return [
      {
        measure,
        notes,
        extra: last.extra.filter((e) => e.measure === measure),
        right: shareRight(notes),
        times: passes.filter((p) => own[0]! >= p.from && own[0]! <= p.to).length,
        ...(paces.length > 0 ? { tempo: 60 / median(paces) } : {}),
        ...(offs.length > 1
          ? { unevenness: Math.sqrt(offs.reduce((s, x) => s + x * x, 0) / offs.length) }
          : {}),
        stood: timing.reduce((sum, t) => sum + t.stood, 0),
      },
    ];
  });
}
