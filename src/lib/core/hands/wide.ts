/**
 * Chords that are wider than the hand, and what a teacher does about them, in this order: voice them anew within the hand,
 * give a note to the other hand, break them (the low note first, the pedal holding it), roll them, or thin them. What the
 * melody and the bass have is never touched.
 */
import type { Hand } from '../fingering/events';
import { beatLength } from '../score/metre';
import { isClear } from './register';
import { pitchName, toMidi, type Pitch } from '../theory/pitch';
import { byOnset, measureAt, type SoundingNote } from '../score/query';
import type { Measure } from '../score/score';
import type { Ticks } from '../score/ticks';

export type WideWay =
  | { readonly kind: 're-voiced'; readonly moved: ReadonlyMap<string, Pitch>; readonly text: string }
  | { readonly kind: 'given over'; readonly notes: readonly string[]; readonly text: string }
  | { readonly kind: 'broken'; readonly text: string }
  | { readonly kind: 'rolled'; readonly text: string }
  | { readonly kind: 'thinned'; readonly left: readonly string[]; readonly text: string };

export interface WideChord {
  readonly measure: number;
  readonly onset: Ticks;
  readonly hand: Hand;
  readonly notes: readonly string[];
  /** Semitones from its lowest to its highest key, and what the hand holds. */
  readonly span: number;
  readonly reach: number;
  /** What can be done, the preferred first; never empty. */
  readonly remedies: readonly WideWay[];
}

interface WideSettings {
  readonly measures: readonly Measure[];
  readonly reach: Readonly<Record<Hand, number>>;
  readonly hasPedal: boolean;
}

/** Every chord that its hand cannot hold. `handOf` says who strikes a note. */
export function wideChords(
  notes: readonly SoundingNote[],
  handOf: (note: SoundingNote) => Hand,
  settings: WideSettings,
): WideChord[] {
  return byOnset(notes).flatMap(({ onset, notes: struck }) =>
    (['right', 'left'] as const).flatMap((hand): WideChord[] => {
      const own = struck.filter((n) => handOf(n) === hand).sort((a, b) => a.midi - b.midi);
      const span = own.length > 1 ? own.at(-1)!.midi - own[0]!.midi : 0;
      const reach = settings.reach[hand];
      if (span <= reach) return [];
      const others = notes.filter(
        (n) => handOf(n) !== hand && n.onset < onset + own[0]!.duration && n.onset + n.duration > onset,
      );
      return [
        {
          measure: measureAt(settings.measures, onset).index,
          onset,
          hand,
          notes: own.map((n) => n.id),
          span,
          reach,
          remedies: waysFor(own, others, hand, onset, settings),
        },
      ];
    }),
  );
}

function waysFor(
  chord: readonly SoundingNote[],
  others: readonly SoundingNote[],
  hand: Hand,
  onset: Ticks,
  { measures, reach, hasPedal }: WideSettings,
): WideWay[] {
  const remedies: WideWay[] = [];
  const voiced = voicedAnew(chord, hand, reach[hand]);
  if (voiced) remedies.push(voiced);
  const given = givenOver(chord, others, hand, reach);
  if (given) remedies.push(given);
  const shortest = Math.min(...chord.map((n) => n.duration));
  if (hasPedal && shortest >= beatLength(measureAt(measures, onset).time) && hand === 'left')
    remedies.push({
      kind: 'broken',
      text: `play ${nameOf(chord[0]!)} first, held by the pedal, then the rest`,
    });
  // A roll carries the hand over twice its reach at most.
  if (chord.at(-1)!.midi - chord[0]!.midi <= 2 * reach[hand])
    remedies.push({ kind: 'rolled', text: 'roll it from the lowest note up' });
  remedies.push(thinned(chord, hand, reach[hand]));
  return remedies;
}

const nameOf = (note: SoundingNote): string => pitchName(note.pitch);

/** The note that must stay: the melody above, the bass below. */
const anchorOf = (chord: readonly SoundingNote[], hand: Hand): SoundingNote =>
  hand === 'right' ? chord.at(-1)! : chord[0]!;

/** The notes on the far side come an octave nearer to the one that stays, where that is clear and free. */
function voicedAnew(chord: readonly SoundingNote[], hand: Hand, reach: number): WideWay | undefined {
  const anchor = anchorOf(chord, hand);
  const moved = new Map<string, Pitch>();
  const keys = new Set([anchor.midi]);
  for (const note of chord) {
    if (note === anchor) continue;
    let pitch = note.pitch;
    while (Math.abs(toMidi(pitch) - anchor.midi) > reach)
      pitch = { ...pitch, octave: pitch.octave + (toMidi(pitch) > anchor.midi ? -1 : 1) };
    const midi = toMidi(pitch);
    const outside = hand === 'right' ? midi >= anchor.midi : midi <= anchor.midi;
    if (outside || keys.has(midi)) return undefined;
    keys.add(midi);
    if (midi !== note.midi) moved.set(note.id, pitch);
  }
  const sorted = [...keys].sort((a, b) => a - b);
  if (!isClear(sorted) || sorted.at(-1)! - sorted[0]! > reach) return undefined;
  const names = chord
    .map((n) => moved.get(n.id) ?? n.pitch)
    .sort((a, b) => toMidi(a) - toMidi(b))
    .map(pitchName);
  return { kind: 're-voiced', moved, text: `voice it as ${names.join(' ')}` };
}

/** The notes on the other hand's side, if that hand is free to take them. */
function givenOver(
  chord: readonly SoundingNote[],
  others: readonly SoundingNote[],
  hand: Hand,
  reach: Readonly<Record<Hand, number>>,
): WideWay | undefined {
  const other: Hand = hand === 'right' ? 'left' : 'right';
  const inner = hand === 'right' ? [...chord] : [...chord].reverse();
  for (let count = 1; count < chord.length; count++) {
    const [given, kept] = [inner.slice(0, count), inner.slice(count)];
    const width = (list: readonly { midi: number }[]): number =>
      Math.max(...list.map((n) => n.midi)) - Math.min(...list.map((n) => n.midi));
    if (width(kept) > reach[hand]) continue;
    const taken = [...given, ...others];
    if (width(taken) > reach[other] || taken.length > 5) return undefined;
    return {
      kind: 'given over',
      notes: given.map((n) => n.id),
      text: `the ${other} hand takes ${given.map(nameOf).join(' ')}`,
    };
  }
  return undefined;
}

/** Octave doublings go first, then the fifth, then what lies furthest; never the bass or the melody. */
function thinned(chord: readonly SoundingNote[], hand: Hand, reach: number): WideWay {
  const anchor = anchorOf(chord, hand);
  let kept = [...chord];
  const left: SoundingNote[] = [];
  const isTooWide = (): boolean => kept.at(-1)!.midi - kept[0]!.midi > reach;
  const drop = (note: SoundingNote): void => {
    kept = kept.filter((n) => n !== note);
    left.push(note);
  };
  const isFar = (n: SoundingNote): boolean => n !== anchor && Math.abs(n.midi - anchor.midi) > reach;
  const bass = chord[0]!.midi;
  const isDoubling = (n: SoundingNote): boolean => kept.some((m) => m !== n && (m.midi - n.midi) % 12 === 0);
  const isFifth = (n: SoundingNote): boolean => (n.midi - bass) % 12 === 7;
  for (const wanted of [isDoubling, isFifth, () => true])
    for (const note of [...kept]) if (isTooWide() && isFar(note) && wanted(note)) drop(note);
  return { kind: 'thinned', left: left.map((n) => n.id), text: `leave out ${left.map(nameOf).join(' ')}` };
}
