/** Within a pass: which keystroke is which note, which is another key in its place, what was missed, what is too much. */
import { TICKS_PER_QUARTER } from '../../score/ticks';
import type { Expectation, ExpectedNote } from '../expectation';
import type { Keystroke } from '../keystroke';
import type { PaceAt } from './follow';
import { dueIn, type Pass } from './passes';

export interface Matched {
  readonly note: ExpectedNote;
  /** Index of the onset. */
  readonly onset: number;
  /** The keystroke that is this note, or stands in its place. */
  readonly stroke?: number;
}

export interface MatchedPass {
  readonly matches: readonly Matched[];
  /** Keystrokes that are no note, nor in the place of one. */
  readonly extra: readonly number[];
}

/** Seconds on either side of when a note is due in which its key is sought: at least, as a share of the step to the next onset, at most. */
const [LEAST, SHARE, MOST] = [0.32, 0.6, 0.9];
/** The same for another key in its place, which must lie nearer. */
const [LEAST_OTHER, SHARE_OTHER] = [0.18, 0.45];
/** Semitones up to which a key is another one in the place of a note. */
const NEAR = 12;

export function matchPass(
  expectation: Expectation,
  keystrokes: readonly Keystroke[],
  pass: Pass,
  paceAt: PaceAt,
): MatchedPass {
  const { onsets } = expectation;
  const due = dueIn(expectation, pass, paceAt);
  const awaited = onsets.slice(pass.from, pass.to + 1).flatMap(({ notes }, i) => {
    const onset = pass.from + i;
    const at = due(onset);
    return notes.map((note) => ({ note, onset, at, step: stepAt(expectation, onset, paceAt(at)) }));
  });
  type Awaited = (typeof awaited)[number];
  const strokeOf = new Map<ExpectedNote, number>();
  const used = new Set<number>();
  const take = (note: ExpectedNote, stroke: number): void => {
    strokeOf.set(note, stroke);
    used.add(stroke);
  };
  const byMidi = new Map<number, Awaited[]>();
  for (const a of awaited) byMidi.set(a.note.midi, [...(byMidi.get(a.note.midi) ?? []), a]);
  const strokesOf = new Map<number, number[]>();
  for (const n of pass.strokes) {
    const { midi } = keystrokes[n]!;
    strokesOf.set(midi, [...(strokesOf.get(midi) ?? []), n]);
  }
  for (const [midi, own] of byMidi) {
    const heard = strokesOf.get(midi) ?? [];
    const pairs = pairInOrder(
      own.map(({ at, step }) => ({ at, within: Math.min(MOST, Math.max(LEAST, SHARE * step)) })),
      heard.map((n) => keystrokes[n]!.onset),
    );
    for (const [i, j] of pairs) take(own[i]!.note, heard[j]!);
  }
  // Other keys in the place of notes: the nearest in time and on the keyboard first.
  const candidates = awaited
    .filter(({ note }) => !strokeOf.has(note) && !note.isOrnament)
    .flatMap(({ note, at, step }) => {
      const within = Math.max(LEAST_OTHER, SHARE_OTHER * step);
      return pass.strokes.flatMap((n) => {
        const [late, far] = [Math.abs(keystrokes[n]!.onset - at), Math.abs(keystrokes[n]!.midi - note.midi)];
        return !used.has(n) && late <= within && far <= NEAR
          ? [{ note, stroke: n, price: late / within + far / NEAR }]
          : [];
      });
    })
    .sort((a, b) => a.price - b.price);
  for (const { note, stroke } of candidates) if (!strokeOf.has(note) && !used.has(stroke)) take(note, stroke);
  // A key that was heard as a later note may be another one in the place of this, and the later note come after it: one slip, not two.
  for (const missed of awaited.filter(({ note }) => !strokeOf.has(note) && !note.isOrnament))
    for (const later of awaited) {
      const stroke = strokeOf.get(later.note);
      if (stroke === undefined || keystrokes[stroke]!.midi !== later.note.midi) continue;
      const instead = (strokesOf.get(later.note.midi) ?? []).find(
        (n) =>
          !used.has(n) && Math.abs(keystrokes[n]!.onset - later.at) <= Math.max(LEAST, SHARE * later.step),
      );
      const isNear =
        Math.abs(keystrokes[stroke]!.onset - missed.at) <= Math.max(LEAST_OTHER, SHARE_OTHER * missed.step) &&
        Math.abs(keystrokes[stroke]!.midi - missed.note.midi) <= NEAR;
      if (instead === undefined || !isNear) continue;
      take(later.note, instead);
      take(missed.note, stroke);
      break;
    }
  return {
    matches: awaited.map(({ note, onset }): Matched => {
      const stroke = strokeOf.get(note);
      return { note, onset, ...(stroke === undefined ? {} : { stroke }) };
    }),
    extra: pass.strokes.filter((n) => !used.has(n)),
  };
}

/** Seconds from an onset to its nearer neighbour. */
function stepAt({ onsets }: Expectation, onset: number, pace: number): number {
  const here = onsets[onset]!.time;
  const steps = [onsets[onset - 1], onsets[onset + 1]].flatMap((o) => (o ? [Math.abs(o.time - here)] : []));
  return steps.length === 0 ? MOST : (Math.min(...steps) / TICKS_PER_QUARTER) * pace;
}

/** Pairs of times in the same order on both sides: as many as lie within reach, and as near as can be. */
function pairInOrder(
  awaited: readonly { readonly at: number; readonly within: number }[],
  heard: readonly number[],
): readonly (readonly [number, number])[] {
  const [rows, columns] = [awaited.length + 1, heard.length + 1];
  /** What it comes to up to so many of both; a pair is worth up to two. */
  const best = new Float64Array(rows * columns);
  for (let i = 1; i < rows; i++)
    for (let j = 1; j < columns; j++) {
      const worth = worthOf(awaited[i - 1]!, heard[j - 1]!);
      best[i * columns + j] = Math.max(
        best[(i - 1) * columns + j]!,
        best[i * columns + j - 1]!,
        worth > 0 ? best[(i - 1) * columns + j - 1]! + worth : 0,
      );
    }
  const pairs: [number, number][] = [];
  for (let i = rows - 1, j = columns - 1; i > 0 && j > 0;) {
    const here = best[i * columns + j]!;
    if (here === best[(i - 1) * columns + j]) i -= 1;
    else if (here === best[i * columns + j - 1]) j -= 1;
    else {
      pairs.push([i - 1, j - 1]);
      i -= 1;
      j -= 1;
    }
  }
  return pairs.reverse();
}

const worthOf = ({ at, within }: { readonly at: number; readonly within: number }, time: number): number => {
  const late = Math.abs(time - at);
  return late > within ? 0 : 2 - late / within;
};
