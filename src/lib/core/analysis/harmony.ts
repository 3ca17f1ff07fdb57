/** The chords of a piece: from its symbols where it has them, proposed where it is a bare tune, otherwise heard from its notes. */
import { endOf } from '../score/metre';
import { endOfScore } from '../score/query';
import type { Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { sameChord, type Chord } from '../theory/chord';
import { contradictedKey } from './home';
import { instrumentals } from './instrumentals';
import { withHeardMode } from './key';
import { harmonise, isBareTune } from './private/harmonise';
import { hearChords } from './private/hearChords';

export interface ChordSpan {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly chord: Chord | null;
  /** `harmonised`: proposed for a bare tune. */
  readonly from: 'symbol' | 'notes' | 'harmonised';
  /** What would do as well where a chord is proposed, the better one first. */
  readonly alternatives?: readonly Chord[];
}

/** Chords in order of time, without gaps: each lasts to the next. */
export function chordsOf(score: Score): ChordSpan[] {
  return mergeSame(spansOf(score));
}

function spansOf(score: Score): readonly ChordSpan[] {
  if (score.chordSymbols.length > 0) return withHeardInstrumentals(fromSymbols(score), score);
  // What key the notes are in is heard from them, not from a signature that they contradict.
  const heard = contradictedKey(score) ? withHeardMode(score) : score;
  if (isBareTune(heard))
    return harmonise(heard).map((proposed): ChordSpan => ({ ...proposed, from: 'harmonised' }));
  return hearChords(heard).map((heard): ChordSpan => ({ ...heard, from: 'notes' }));
}

function fromSymbols(score: Score): ChordSpan[] {
  const end = endOfScore(score);
  const symbols = [...score.chordSymbols].sort((a, b) => a.onset - b.onset);
  const starts = symbols[0]!.onset > 0 ? [{ onset: 0, chord: null }, ...symbols] : symbols;
  return starts
    .map((symbol, i): ChordSpan => ({
      onset: symbol.onset,
      duration: (starts[i + 1]?.onset ?? end) - symbol.onset,
      chord: symbol.chord,
      from: 'symbol',
    }))
    .filter((span) => span.duration > 0);
}

/**
 * Symbols that stand over the verses alone say nothing of what the players do before and between them: in an instrumental without a
 * symbol of its own, and in what comes before the first symbol, the chords are those that are heard.
 */
function withHeardInstrumentals(spans: readonly ChordSpan[], score: Score): readonly ChordSpan[] {
  const struck = score.parts.some((p) => p.notes.length > 0);
  if (!struck || isBareTune({ ...score, chordSymbols: [] })) return spans;
  const { measures } = score;
  const isNamed = (from: Ticks, to: Ticks): boolean =>
    score.chordSymbols.some((s) => from <= s.onset && s.onset < to);
  const runs = instrumentals(score)
    .map(({ from, to }) => ({ from: measures[from]!.start, to: endOf(measures[to]!) }))
    .filter(({ from, to }) => !isNamed(from, to));
  const unnamed = measures.filter((m) => endOf(m) <= score.chordSymbols[0]!.onset);
  if (runs[0]?.from !== 0 && unnamed.some((m) => m.beginsAt === 0))
    runs.unshift({ from: 0, to: endOf(unnamed.at(-1)!) });
  if (runs.length === 0) return spans;
  const heard = hearChords({ ...score, chordSymbols: [] }).map((h): ChordSpan => ({ ...h, from: 'notes' }));
  return runs.reduce<readonly ChordSpan[]>(
    (all, { from, to }) =>
      [...within(all, 0, from), ...within(heard, from, to), ...within(all, to, Infinity)].sort(
        (a, b) => a.onset - b.onset,
      ),
    spans,
  );
}

/** What of some spans lies between two ticks. */
const within = (spans: readonly ChordSpan[], from: Ticks, to: Ticks): readonly ChordSpan[] =>
  spans.flatMap((span): ChordSpan[] => {
    const onset = Math.max(span.onset, from);
    const end = Math.min(span.onset + span.duration, to);
    return end > onset ? [{ ...span, onset, duration: end - onset }] : [];
  });

function mergeSame(spans: readonly ChordSpan[]): ChordSpan[] {
  const merged: ChordSpan[] = [];
  for (const span of spans) {
    const last = merged.at(-1);
    if (last && sameChord(last.chord, span.chord))
      merged[merged.length - 1] = { ...last, duration: last.duration + span.duration };
    else merged.push(span);
  }
  return merged;
}

/** The chord that sounds at a tick. */
export const chordAt = (spans: readonly ChordSpan[], tick: Ticks): Chord | null =>
  spans.find((s) => s.onset <= tick && tick < s.onset + s.duration)?.chord ?? null;
