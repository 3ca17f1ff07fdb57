/**
 * The chords of a piece: from its symbols where it has them, otherwise the best path of chords over the beats of the
 * whole piece. Changing chord costs more the weaker the beat, so that passing notes do not make chords of their own.
 */
import { beatLength, endOf, metricalStrength, placeInMeasure } from '../score/metre';
import { endOfScore, soundingNotes, type SoundingNote } from '../score/query';
import type { Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordTones, isDiatonic, sameChord, type Chord } from '../theory/chord';
import type { ChordKindId } from '../theory/chordKinds';
import { pitchClass } from '../theory/fifths';
import { spellInKey, type Key } from '../theory/key';

export interface ChordSpan {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly chord: Chord | null;
  readonly from: 'symbol' | 'notes';
}

/** Chords in order of time, without gaps: each lasts to the next. */
export function chordsOf(score: Score): ChordSpan[] {
  const spans = score.chordSymbols.length > 0 ? fromSymbols(score) : fromNotes(score);
  return mergeSame(spans);
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

const INFERRED_KINDS: readonly ChordKindId[] = [
  'major',
  'minor',
  'dominant7',
  'minor7',
  'diminished',
  'major7',
];

/** Costs in shares of a beat fully against the chord. Found by ear on the demo pieces; issue 4 calibrates them. */
const CHANGE_COST = { 4: 0.25, 3: 0.9, 2: 1.3, 1: 1.6, 0: 2 } as const;
const NOT_ROOT_IN_BASS = 0.45;
const THIRD_IN_BASS = 0.2;
const MISSING_THIRD = 0.12;
const MISSING_SEVENTH = 0.18;
const SEVENTH_KIND = 0.08;
const OUTSIDE_KEY = 0.25;
/** Three notes of a seventh chord without its root look like a diminished triad; the seventh chord is far more usual. */
const DIMINISHED_KIND = 0.2;

/** Semitones above the measure's bass from which on a lowest note belongs to a pattern over it. */
const BROKEN_CHORD = 3;

interface Slot {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly key: Key;
  readonly strength: 0 | 1 | 2 | 3 | 4;
  readonly weights: readonly number[];
  readonly total: number;
  readonly bass: number | undefined;
  readonly isPickup: boolean;
}

function fromNotes(score: Score): ChordSpan[] {
  // Of all parts together, in order of time: beatSlots walks through them once.
  const notes = score.parts.flatMap((part) => soundingNotes(part.notes)).sort((a, b) => a.onset - b.onset);
  const slots = beatSlots(score, notes);
  const candidates = Array.from({ length: 12 }, (_, pc) =>
    INFERRED_KINDS.map((kind) => ({ pc, kind })),
  ).flat();
  // best[i][c]: least cost of a path that ends in candidate c at slot i.
  let before = candidates.map(() => 0);
  const cameFrom: number[][] = [];
  slots.forEach((slot, i) => {
    const cheapest = before.reduce((best, cost, c) => (cost < before[best]! ? c : best), 0);
    const change = CHANGE_COST[slot.strength];
    const back: number[] = [];
    before = candidates.map((candidate, c) => {
      const stay = before[c]!;
      const move = before[cheapest]! + change;
      back[c] = i === 0 || stay <= move ? c : cheapest;
      return (i === 0 ? 0 : Math.min(stay, move)) + mismatch(candidate.pc, candidate.kind, slot);
    });
    cameFrom.push(back);
  });
  let current = before.reduce((best, cost, c) => (cost < before[best]! ? c : best), 0);
  const path: number[] = [];
  for (let i = slots.length - 1; i >= 0; i--) {
    path[i] = current;
    current = cameFrom[i]![current]!;
  }
  return slots.map((slot, i): ChordSpan => {
    // An unaccompanied pickup leads to a chord and has none of its own.
    if (slot.isPickup && slot.weights.filter((w) => w > 0).length < 2)
      return { onset: slot.onset, duration: slot.duration, chord: null, from: 'notes' };
    const { pc, kind } = candidates[path[i]!]!;
    const { onset, duration } = slot;
    return { onset, duration, chord: { root: spellInKey(pc, slot.key), kind }, from: 'notes' };
  });
}

function beatSlots(score: Score, notes: readonly SoundingNote[]): Slot[] {
  const slots: Slot[] = [];
  let first = 0;
  for (const measure of score.measures) {
    const beat = beatLength(measure.time);
    let carried: number | undefined;
    for (let onset = measure.start; onset < endOf(measure);) {
      const place = placeInMeasure(measure, onset);
      const next = Math.min(endOf(measure), onset + beat - (place % beat));
      while (first < notes.length && notes[first]!.onset + notes[first]!.duration <= measure.start - 8 * beat)
        first++;
      const weights = new Array<number>(12).fill(0);
      let bass: SoundingNote | undefined;
      for (let i = first; i < notes.length && notes[i]!.onset < next; i++) {
        const note = notes[i]!;
        const sounding = Math.min(next, note.onset + note.duration) - Math.max(onset, note.onset);
        if (sounding <= 0) continue;
        // A note struck on the beat speaks for the chord more than one that passes by.
        weights[note.midi % 12]! += (sounding / beat) * (note.onset <= onset ? 1 : 0.5);
        if (!bass || note.midi < bass.midi) bass = note;
      }
      // In a broken chord the low note goes on ruling while the pattern above it turns; a step is a bass that moves.
      const lowest = bass?.midi;
      if (lowest === undefined || carried === undefined || lowest - carried < BROKEN_CHORD)
        carried = lowest ?? carried;
      const total = weights.reduce((a, b) => a + b, 0);
      const strength = metricalStrength(measure.time, place);
      slots.push({
        onset,
        duration: next - onset,
        key: measure.key,
        strength,
        weights,
        total,
        bass: carried === undefined ? undefined : carried % 12,
        isPickup: measure.index === 0 && measure.beginsAt > 0,
      });
      onset = next;
    }
  }
  return slots;
}

function mismatch(pc: number, kind: ChordKindId, slot: Slot): number {
  const chord: Chord = { root: spellInKey(pc, slot.key), kind };
  const tones = chordTones(chord).map(pitchClass);
  const outside = isDiatonic(chord, slot.key) ? 0 : OUTSIDE_KEY;
  const extra = tones.length > 3 ? SEVENTH_KIND : kind === 'diminished' ? DIMINISHED_KIND : 0;
  if (slot.total === 0) return 0; // a rest keeps the chord before it
  const inside = tones.reduce((sum, tone) => sum + slot.weights[tone]!, 0);
  const against = (slot.total - inside) / slot.total;
  const bassCost =
    slot.bass === undefined || slot.bass === tones[0]
      ? 0
      : slot.bass === tones[1]
        ? THIRD_IN_BASS
        : NOT_ROOT_IN_BASS;
  const missing =
    (slot.weights[tones[1]!] === 0 ? MISSING_THIRD : 0) +
    (tones.length > 3 && slot.weights[tones[3]!] === 0 ? MISSING_SEVENTH : 0);
  return against + bassCost + missing + outside + extra;
}

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
