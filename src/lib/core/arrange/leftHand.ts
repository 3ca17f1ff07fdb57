/**
 * The left hand of a version: the chords of each measure in the chosen texture, voiced by register, reach, keyboard
 * and the melody above. Note ids name the place and the role in the chord, so that a decision about "the bass on
 * beat one of measure 3" survives a change of level or key.
 */
import type { ChordSpan } from '../analysis/harmony';
import { beatLength, endOf, metricalStrength, placeInMeasure } from '../score/metre';
import { pitchClassName, type Pitch } from '../score/pitch';
import type { SoundingNote } from '../score/query';
import type { Measure, Note } from '../score/score';
import type { Ticks } from '../score/ticks';
import { bassOf, chordSymbol, chordTones, type Chord } from '../theory/chord';
import { fromFifths, pitchClass, spellMidi, type Fifths } from '../theory/fifths';
import type { LevelContract } from './levels';
import { isClear } from './register';
import type { TextureId } from './textures';
import { closeVoicings, nearestVoicing, type Voicing } from './voicing';

export interface LeftHandSettings {
  readonly contract: LevelContract;
  readonly texture: TextureId;
  /** Measures (by index) at which a section begins: the hand starts afresh there, so that what comes again is alike. */
  readonly freshStarts: ReadonlySet<number>;
  /** Semitones the left hand holds. */
  readonly reach: number;
  readonly keyboard: { readonly low: number; readonly high: number };
}

export interface LeftHandReason {
  readonly measure: number;
  readonly notes: readonly string[];
  readonly reason: string;
}

export interface LeftHand {
  readonly notes: readonly Note[];
  readonly reasons: readonly LeftHandReason[];
}

/** Where the left hand is at home: roots are taken near here, D3, close to the body and clear. */
const HOME = 50;
/** Root-position triads start here, around C3, clear but below most melodies. */
const TRIAD_HOME = 48;
const LOWEST_ROOT = 36;
const HIGHEST = 62;

/** Builds the left hand under a melody. */
export function leftHand(
  measures: readonly Measure[],
  chords: readonly ChordSpan[],
  melody: readonly SoundingNote[],
  settings: LeftHandSettings,
): LeftHand {
  const notes: Note[] = [];
  const reasons: LeftHandReason[] = [];
  let before: Voicing | undefined;
  for (const measure of measures) {
    if (settings.freshStarts.has(measure.index)) before = undefined;
    for (const stretch of stretchesOf(measure, chords, settings.contract, reasons)) {
      const ceiling = lowestAbove(melody, stretch) - 1;
      const made = voice(stretch.chord, before, Math.min(HIGHEST, ceiling), settings);
      if (!made) {
        reasons.push({
          measure: measure.index,
          notes: [],
          reason: `no room for ${chordSymbol(stretch.chord)} under the melody within the hand and the keyboard`,
        });
        continue;
      }
      const written = pattern(made.voicing, stretch, measure, settings.texture);
      notes.push(...written);
      reasons.push({
        measure: measure.index,
        notes: written.map((n) => n.id),
        reason: describe(made, before, stretch.chord, settings.texture),
      });
      before = made.voicing;
    }
  }
  return { notes, reasons };
}

export interface Stretch {
  readonly onset: Ticks;
  readonly end: Ticks;
  readonly chord: Chord;
}

/** The chords of a measure, each from a beat to the next chord; the weakest give way where the level has fewer onsets. */
export function stretchesOf(
  measure: Measure,
  chords: readonly ChordSpan[],
  contract: LevelContract,
  reasons: LeftHandReason[],
): Stretch[] {
  const beat = beatLength(measure.time);
  const grid = contract.level <= 2 ? beat : beat / 2;
  const end = endOf(measure);
  // A pickup is the melody's alone: the left hand comes in with the first full measure.
  if (measure.index === 0 && measure.beginsAt > 0) return [];
  const starts = new Map<Ticks, Chord>();
  for (const span of chords) {
    if (!span.chord || span.onset >= end || span.onset + span.duration <= measure.start) continue;
    const from = Math.max(span.onset, measure.start);
    const place = placeInMeasure(measure, from);
    const snapped = from + ((grid - (place % grid)) % grid);
    if (snapped < end) starts.set(snapped, span.chord);
  }
  let onsets = [...starts.keys()].sort((a, b) => a - b);
  const beats = Math.max(1, Math.round(measure.length / beat));
  const most = contract.leftOnsets.perMeasure ?? (contract.leftOnsets.perBeat ?? 1) * beats;
  if (onsets.length > most) {
    const strongest = [...onsets]
      .sort((a, b) => strengthAt(measure, b) - strengthAt(measure, a) || a - b)
      .slice(0, most);
    const left = onsets.filter((o) => !strongest.includes(o)).map((o) => chordSymbol(starts.get(o)!));
    reasons.push({
      measure: measure.index,
      notes: [],
      reason: `${left.join(' and ')} left out: level ${contract.level} has at most ${most} left-hand notes in a measure`,
    });
    onsets = onsets.filter((o) => strongest.includes(o));
  }
  const silent = chords.filter((s) => !s.chord);
  return onsets.map((onset, i): Stretch => {
    const until = onsets[i + 1] ?? end;
    const rest = silent.find((s) => s.onset > onset && s.onset < until);
    return { onset, end: rest?.onset ?? until, chord: starts.get(onset)! };
  });
}

const strengthAt = (measure: Measure, tick: Ticks): number =>
  metricalStrength(measure.time, placeInMeasure(measure, tick));

/** Lowest melody note that sounds in a stretch. */
function lowestAbove(melody: readonly SoundingNote[], stretch: Stretch): number {
  let lowest = 128;
  for (const note of melody)
    if (note.onset < stretch.end && note.onset + note.duration > stretch.onset)
      lowest = Math.min(lowest, note.midi);
  return lowest;
}

interface Made {
  readonly voicing: Voicing;
  readonly note?: string;
}

/** The first of the texture's own shape, then thinner ones, that fits hand, keyboard and melody. */
function voice(
  chord: Chord,
  before: Voicing | undefined,
  high: number,
  settings: LeftHandSettings,
): Made | undefined {
  const { contract, texture, keyboard } = settings;
  const low = Math.max(keyboard.low, LOWEST_ROOT);
  const span = Math.min(settings.reach, contract.span ?? settings.reach);
  if (texture === 'block-chord') {
    const limits = { low, high, span, most: contract.leftNotes };
    const block = nearestVoicing(closeVoicings(chord, limits), before, TRIAD_HOME, bassOf(chord));
    if (block) return { voicing: block };
    const two = twoNotes(chord, before, high, low, span);
    if (two) return { voicing: two, note: 'thinned, for want of clear room under the melody' };
  }
  if (texture === 'root-fifth' || texture === 'root-then-fifth') {
    const together = twoNotes(chord, before, high, low, texture === 'root-fifth' ? span : Math.max(span, 7));
    if (together) return { voicing: together };
  }
  const single = oneNote(chord, before, high, low);
  if (!single) return undefined;
  return texture === 'held-root'
    ? { voicing: single }
    : { voicing: single, note: 'the bass alone, for want of room under the melody' };
}

function oneNote(chord: Chord, before: Voicing | undefined, high: number, low: number): Voicing | undefined {
  const bass = bassOf(chord);
  const candidates = octavesOf(bass, low, high).map((midi): Voicing => ({ notes: [{ midi, tone: bass }] }));
  return nearestHome(candidates, before);
}

/** Bass and fifth; over a bass that is not the root the highest chord tone within a fifth. */
function twoNotes(
  chord: Chord,
  before: Voicing | undefined,
  high: number,
  low: number,
  span: number,
): Voicing | undefined {
  const bass = bassOf(chord);
  const above = chordTones(chord)
    .map((tone) => ({ tone, up: (((pitchClass(tone) - pitchClass(bass)) % 12) + 12) % 12 }))
    .filter((t) => t.up > 2 && t.up <= Math.min(8, span))
    .sort((a, b) => b.up - a.up);
  const upper = above.find((t) => t.up === 7) ?? above[0];
  if (!upper) return undefined;
  const candidates = octavesOf(bass, low, high - upper.up)
    .map((midi): Voicing => ({
      notes: [
        { midi, tone: bass },
        { midi: midi + upper.up, tone: upper.tone },
      ],
    }))
    .filter((v) => isClear(v.notes.map((n) => n.midi)));
  return nearestHome(candidates, before);
}

const octavesOf = (tone: Fifths, low: number, high: number): number[] => {
  const result: number[] = [];
  for (let midi = low; midi <= high; midi++)
    if (((midi % 12) + 12) % 12 === pitchClass(tone)) result.push(midi);
  return result;
};

/** Small steps from the shape before, without wandering off from where the hand is at home. */
function nearestHome(candidates: readonly Voicing[], before: Voicing | undefined): Voicing | undefined {
  const cost = (v: Voicing): number => {
    const bass = v.notes[0]!.midi;
    return Math.abs(bass - HOME) + (before ? 0.6 * Math.abs(bass - before.notes[0]!.midi) : 0);
  };
  return [...candidates].sort((a, b) => cost(a) - cost(b))[0];
}

const ROLES = ['bass', 'second', 'third', 'fourth', 'fifth'] as const;

/** Role of a tone in its chord, for the note's id. */
function roleOf(chord: Chord, tone: Fifths, index: number): string {
  if (index === 0) return 'bass';
  const place = chordTones(chord).indexOf(tone);
  return ['root', 'third', 'fifth', 'seventh', 'ninth'][place] ?? ROLES[index]!;
}

function pattern(voicing: Voicing, stretch: Stretch, measure: Measure, texture: TextureId): Note[] {
  const make = (index: number, onset: Ticks, end: Ticks): Note => {
    const { midi, tone } = voicing.notes[index]!;
    return {
      id: `L${measure.index}-${onset - measure.start}-${roleOf(stretch.chord, tone, index)}`,
      onset,
      duration: end - onset,
      pitch: spellMidi(midi, tone),
      staff: 2,
      voice: 5,
    };
  };
  const beat = beatLength(measure.time);
  const beats = (stretch.end - stretch.onset) / beat;
  if (texture === 'root-then-fifth' && voicing.notes.length > 1 && beats >= 2) {
    // In an odd number of beats the root is held longer: one and a half of three would hide a beat.
    const turn = stretch.onset + Math.ceil(beats / 2) * beat;
    return [make(0, stretch.onset, turn), make(1, turn, stretch.end)];
  }
  const struck = texture === 'root-then-fifth' ? voicing.notes.slice(0, 1) : voicing.notes;
  return struck.map((_, i) => make(i, stretch.onset, stretch.end));
}

function describe(made: Made, before: Voicing | undefined, chord: Chord, texture: TextureId): string {
  const name = chordSymbol(chord);
  if (made.note) return `${name}: ${made.note}`;
  const bass = made.voicing.notes[0]!;
  const bassName = pitchClassName(fromFifths(bass.tone));
  if (texture !== 'block-chord') {
    const stays = before?.notes[0]?.midi === bass.midi;
    const what = chord.bass === undefined ? 'root' : 'named bass';
    return stays
      ? `${bassName}, the ${what} of ${name}: the hand stays`
      : `${bassName}, the ${what} of ${name}`;
  }
  const index = chordTones(chord).findIndex((t) => pitchClass(t) === pitchClass(bass.tone));
  const shape =
    ['root position', 'first inversion', 'second inversion', 'third inversion'][index] ??
    'with its named bass';
  const common = before?.notes.filter((n) => made.voicing.notes.some((m) => m.midi === n.midi)) ?? [];
  const stay = common.map((n): Pitch => spellMidi(n.midi, n.tone)).map(pitchClassName);
  return stay.length > 0
    ? `${name} in ${shape}: ${stay.join(' and ')} ${stay.length > 1 ? 'stay' : 'stays'} under the hand`
    : `${name} in ${shape}, the shape nearest to the one before`;
}
