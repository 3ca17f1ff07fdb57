/**
 * What to do after a take: one move, never a list. Rules of practising that teachers give: mend one measure rather than repeat all of it;
 * a hand that has most of the slips alone; slower before again; faster only after a clean take (music-rules.md, tempo ladders).
 */
import type { Grade } from '../lessons/events';
import type { TakenHand } from './expectation';
import type { JudgedMeasure, Take } from './judge';

/** What is being practised. Tempi are quarter notes per minute. */
interface Practised {
  readonly hand: TakenHand | 'both';
  /** First and last measure, by index. */
  readonly from: number;
  readonly to: number;
  readonly tempo: number;
  /** The rungs of a ladder in rising order, where the step climbs one; else empty. */
  readonly ladder: readonly number[];
}

export type Move =
  | { readonly do: 'again' }
  /** What was played was right; the rest of it was not played. */
  | { readonly do: 'all' }
  | {
      readonly do: 'measure';
      readonly measure: number;
      readonly hand: TakenHand | 'both';
      readonly tempo: number;
    }
  | { readonly do: 'hand'; readonly hand: TakenHand; readonly tempo: number }
  | { readonly do: 'slower' | 'faster'; readonly tempo: number }
  | { readonly do: 'next' };

/** Share of all slips that one measure has where it is mended alone, and most measures with slips. */
const [MOST_OF_THEM, FEW_MEASURES] = [0.5, 2];
/** From this share of a measure's or a take's slips on they are one hand's. */
const ONE_HANDS = 0.75;
/** Below this share of right notes hands that play together are taken apart. */
const APART = 0.75;
/** What slower is, as a share; and the slowest that is asked for. */
const [SLOWER, SLOWEST] = [0.85, 30];

const slipsIn = ({ notes, extra }: JudgedMeasure): number =>
  notes.filter((n) => n.verdict === 'other' || n.verdict === 'missed').length + extra.length;

/** The hand that has most of some slips; undefined where neither has, or where only one plays. */
function handOf(measures: readonly JudgedMeasure[], hand: Practised['hand']): TakenHand | undefined {
  if (hand !== 'both') return undefined;
  const slips = measures
    .flatMap((m) => m.notes)
    .filter((n) => n.verdict === 'other' || n.verdict === 'missed');
  const right = slips.filter((n) => n.note.hand === 'right').length;
  if (slips.length === 0) return undefined;
  if (right >= slips.length * ONE_HANDS) return 'right';
  return slips.length - right >= slips.length * ONE_HANDS ? 'left' : undefined;
}

/** Even numbers, as metronomes go. */
const slower = (tempo: number): number => Math.max(SLOWEST, 2 * Math.round((tempo * SLOWER) / 2));

/** The move after a take that was given a grade. */
export function moveAfter(take: Take, grade: Grade | undefined, practised: Practised): Move {
  const { hand, from, to, tempo, ladder } = practised;
  if (take.played.length === 0 || grade === undefined) return { do: 'again' };
  if (grade >= 3) {
    const rung = ladder.find((t) => t > tempo);
    return rung === undefined ? { do: 'next' } : { do: 'faster', tempo: rung };
  }
  const slipping = take.measures.filter((m) => slipsIn(m) > 0);
  const all = slipping.reduce((sum, m) => sum + slipsIn(m), 0);
  if (all === 0 && !take.isWhole) return { do: 'all' };
  const worst = [...slipping].sort((a, b) => slipsIn(b) - slipsIn(a))[0];
  if (worst && to > from && slipping.length <= FEW_MEASURES && slipsIn(worst) >= all * MOST_OF_THEM)
    return { do: 'measure', measure: worst.measure, hand: handOf([worst], hand) ?? hand, tempo };
  const weak = handOf(slipping, hand);
  if (weak && take.right < APART) return { do: 'hand', hand: weak, tempo };
  const below = ladder.findLast((t) => t < tempo) ?? slower(tempo);
  return below < tempo ? { do: 'slower', tempo: below } : { do: 'again' };
}

/** A move in words. `tempoText` writes a tempo as the metre counts, `measureText` a measure by its number. */
export function moveText(
  move: Move,
  words: {
    readonly measureText: (measure: number) => string;
    readonly tempoText: (tempo: number) => string;
  },
): string {
  switch (move.do) {
    case 'again':
      return 'Play it once more.';
    case 'all':
      return 'Right so far. Now play to the end.';
    case 'measure': {
      const hand = move.hand === 'both' ? '' : `, ${move.hand} hand`;
      return `Practice ${words.measureText(move.measure)} alone${hand}, at ${words.tempoText(move.tempo)}.`;
    }
    case 'hand':
      return `Play the ${move.hand} hand alone, at ${words.tempoText(move.tempo)}.`;
    case 'slower':
      return `Play it slower, at ${words.tempoText(move.tempo)}.`;
    case 'faster':
      return `Go up to ${words.tempoText(move.tempo)}.`;
    case 'next':
      return 'This step is done. Go on to the next one.';
  }
}
