/**
 * Where the right hand would have to leap wider than the level allows, the left hand takes the low notes of the melody, if
 * it is free to: its own note is let go for them.
 */
import { intervalOf } from '../../theory/intervalWord';
import { beatLength, endOf } from '../../score/metre';
import { pitchName, toMidi } from '../../theory/pitch';
import { measureAt } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import { leftOnsetsIn, levelText, type LevelContract } from '../levels';
import type { ArrangeReason } from '../reason';
import { writableEnd } from './writable';

/** Highest note that the left hand takes over, E4. */
const HIGHEST = 64;
/** Longest run of low notes that changes hands. */
const LONGEST_RUN = 4;

/** Melody and left hand with the low notes of wide leaps in the left hand. Both are lists of single strokes in order. */
export function shareMelody(
  melody: readonly Note[],
  left: readonly Note[],
  measures: readonly Measure[],
  contract: LevelContract,
): { melody: Note[]; left: Note[]; reasons: ArrangeReason[] } {
  const reasons: ArrangeReason[] = [];
  const limit = contract.leap;
  let lower = [...left];
  const taken = new Map<string, Note>();
  if (limit !== null && contract.rightNotes === 1)
    for (let i = 1; i < melody.length; i++) {
      const [before, note] = [melody[i - 1]!, melody[i]!];
      if (taken.has(before.id) || !isWide(before, note, measures, limit)) continue;
      const isDown = toMidi(note.pitch) < toMidi(before.pitch);
      // Up from a low note the left hand has struck it already.
      const run = isDown
        ? lowRun(melody, i, measures, limit)
        : toMidi(before.pitch) <= HIGHEST
          ? [before]
          : [];
      if (run.length === 0) continue;
      const given = give(run, lower, measures, contract);
      if (!given) continue;
      lower = given;
      for (const n of run) taken.set(n.id, n);
      reasons.push({
        measure: measureAt(measures, run[0]!.onset).index,
        notes: run.map((n) => n.id),
        reason: `${run.map((n) => pitchName(n.pitch)).join(' ')} of the melody in the left hand: ${intervalOf(toMidi(note.pitch) - toMidi(before.pitch))} is wider than level ${levelText(contract.level)} allows`,
      });
    }
  return { melody: melody.filter((n) => !taken.has(n.id)), left: lower, reasons };
}

const isWide = (a: Note, b: Note, measures: readonly Measure[], limit: number): boolean =>
  Math.abs(toMidi(a.pitch) - toMidi(b.pitch)) > limit &&
  b.onset - a.onset <= beatLength(measureAt(measures, b.onset).time) &&
  a.onset + a.duration >= b.onset;

/** The notes from `i` on that stay low, until the melody leaps back or has time to move. */
function lowRun(melody: readonly Note[], i: number, measures: readonly Measure[], limit: number): Note[] {
  const from = toMidi(melody[i - 1]!.pitch);
  const run: Note[] = [];
  for (let k = i; k < melody.length && run.length <= LONGEST_RUN; k++) {
    const note = melody[k]!;
    const midi = toMidi(note.pitch);
    if (midi > HIGHEST) return from - midi > limit ? [] : run;
    if (from - midi <= limit && run.length > 0) return run;
    run.push(note);
  }
  return run.length > LONGEST_RUN ? [] : run;
}

/** The left hand with a run of melody notes in it, or undefined where it has no room for them. */
function give(
  run: readonly Note[],
  left: readonly Note[],
  measures: readonly Measure[],
  contract: LevelContract,
): Note[] | undefined {
  const from = run[0]!.onset;
  const to = run.at(-1)!.onset + run.at(-1)!.duration;
  // The bass of a new chord is never given up for it.
  if (left.some((n) => n.onset >= from && n.onset < to)) return undefined;
  for (const measure of measures.filter((m) => m.start < to && endOf(m) > from)) {
    const inside = (n: Note): boolean => n.onset >= measure.start && n.onset < endOf(measure);
    const onsets = new Set([...left, ...run].filter(inside).map((n) => n.onset)).size;
    if (onsets > leftOnsetsIn(contract, measure)) return undefined;
  }
  const before = left.filter((n) => n.onset < from).at(-1);
  const quick = before && from - before.onset <= beatLength(measureAt(measures, from).time);
  if (
    quick &&
    contract.leap !== null &&
    Math.abs(toMidi(before.pitch) - toMidi(run[0]!.pitch)) > contract.leap
  )
    return undefined;
  const after = left.find((n) => n.onset >= to);
  const last = run.at(-1)!;
  if (after && contract.leap !== null && isWide(last, after, measures, contract.leap)) return undefined;
  return [
    ...left.map((n) =>
      n.onset < from && n.onset + n.duration > from
        ? { ...n, duration: writableEnd(n.onset, from, measures, contract) - n.onset }
        : n,
    ),
    ...run.map((n) => ({ ...n, staff: 2, voice: 5 })),
  ].sort((a, b) => a.onset - b.onset || toMidi(a.pitch) - toMidi(b.pitch));
}
