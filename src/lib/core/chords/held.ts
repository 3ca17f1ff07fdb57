/**
 * The chords of a version as its hands hold them: the keys under each hand while a chord lasts, with their fingers, what stays from the
 * chord before and where the others go, and how often it is struck.
 */
import type { ChordSpan } from '../analysis/harmony';
import { stepsBetween, pitchClass } from '../theory/fifths';
import { chordSymbol, chordTones, sameChord, type Chord } from '../theory/chord';
import { pitchClassName, type Pitch } from '../theory/pitch';
import { sourceStart } from '../score/measureId';
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Version } from '../version/realise';
import { plural } from '../plural';

export interface HeldKey {
  readonly midi: number;
  readonly pitch: Pitch;
  readonly hand: 'right' | 'left';
  /** Missing where the version has none. */
  readonly finger?: number;
  /** The hand has it from the chord before. */
  readonly stays: boolean;
}

export interface HeldChord {
  readonly chord: Chord;
  readonly symbol: string;
  /** Where it begins: measure by index, and tick. */
  readonly measure: number;
  readonly onset: number;
  readonly keys: readonly HeldKey[];
  /** Strokes of each hand while it lasts. */
  readonly strokes: { readonly right: number; readonly left: number };
}

/** What a version needs to have its chords read. */
export type Chorded = Pick<Version, 'score' | 'chords' | 'fingers'>;

type HandName = HeldKey['hand'];
const STAVES: Readonly<Record<HandName, number>> = { right: 1, left: 2 };

/** What the hand strikes while the chord lasts, the held first: its chord tones; where it has none of them, whatever it plays. */
function keysOf(
  notes: readonly SoundingNote[],
  { onset, duration, chord }: ChordSpan,
): readonly SoundingNote[] {
  const own = notes.filter((n) => n.onset < onset + duration && n.onset + n.duration > onset);
  const tones = new Set(chordTones(chord!).map(pitchClass));
  const inside = own.filter((n) => tones.has(n.midi % 12));
  const chosen = inside.length > 0 ? inside : own;
  const byKey = new Map<number, SoundingNote>();
  for (const note of chosen) if (!byKey.has(note.midi)) byKey.set(note.midi, note);
  return [...byKey.values()].sort((a, b) => a.midi - b.midi);
}

const strokesIn = (notes: readonly SoundingNote[], { onset, duration }: ChordSpan): number =>
  byOnset(notes.filter((n) => n.onset >= onset && n.onset < onset + duration)).length;

/** Notes of a hand with ties joined, in order. */
const playedOn = ({ score }: Chorded, hand: HandName): readonly SoundingNote[] =>
  soundingNotes(score.parts[0]!.notes.filter((n) => n.staff === STAVES[hand]));

/** Of the right hand only what strikes whole chords is one; a tune is none. */
const CHORDAL = 3;

/** Whether the right hand carries the harmony: most of what it strikes are chords. */
export function isChordal(version: Chorded): boolean {
  const strokes = byOnset(playedOn(version, 'right'));
  return strokes.filter(({ notes }) => notes.length >= CHORDAL).length * 2 > strokes.length;
}

/**
 * The chords of a stretch of measures, one after another, each once for as long as it is held in the same way. `right` may be another
 * version of the same measures, whose right hand holds chords where this one's plays the tune.
 */
export function heldChords(
  version: Chorded,
  { from, to }: { readonly from: number; readonly to: number },
  right: Chorded = version,
): HeldChord[] {
  const { measures } = version.score;
  const [start, last] = [measures[from]!.start, measures[to]!];
  const end = last.start + last.length;
  const sources: Readonly<Record<HandName, { of: Chorded; notes: readonly SoundingNote[] }>> = {
    left: { of: version, notes: playedOn(version, 'left') },
    right: { of: right, notes: playedOn(right, 'right') },
  };
  const shift = sourceStart(right.score.measures) - sourceStart(measures);
  const list: HeldChord[] = [];
  for (const span of version.chords) {
    if (!span.chord || span.onset >= end || span.onset + span.duration <= start) continue;
    const held = { ...span, onset: Math.max(start, span.onset) };
    held.duration = Math.min(end, span.onset + span.duration) - held.onset;
    const before = list.at(-1);
    const keys = (['left', 'right'] as const).flatMap((hand): HeldKey[] => {
      const { of, notes } = sources[hand];
      const own = hand === 'right' ? { ...held, onset: held.onset + shift } : held;
      return keysOf(notes, own).map(({ midi, pitch, id }) => ({
        midi,
        pitch,
        hand,
        ...(of.fingers[id] ? { finger: of.fingers[id].finger } : {}),
        stays: before?.keys.some((k) => k.midi === midi && k.hand === hand) ?? false,
      }));
    });
    // A pickup has a chord that no hand plays yet.
    if (keys.length === 0) continue;
    const strokes = {
      left: strokesIn(sources.left.notes, held),
      // A tune is no stroke of the chord, and what is held in its place is not played.
      right: right === version ? strokesIn(sources.right.notes, held) : 0,
    };
    if (before && sameChord(before.chord, span.chord) && sameKeys(before.keys, keys)) {
      list[list.length - 1] = {
        ...before,
        strokes: { left: before.strokes.left + strokes.left, right: before.strokes.right + strokes.right },
      };
      continue;
    }
    list.push({
      chord: span.chord,
      symbol: chordSymbol(span.chord),
      measure: measureAt(measures, held.onset).index,
      onset: held.onset,
      keys,
      strokes,
    });
  }
  return list;
}

const sameKeys = (a: readonly HeldKey[], b: readonly HeldKey[]): boolean =>
  a.length === b.length && a.every((key, i) => key.midi === b[i]!.midi && key.hand === b[i]!.hand);

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

const STEP_NAMES = ['', 'a step', 'a third', 'a fourth', 'a fifth', 'a sixth', 'a seventh', 'an octave'];

/** How one hand gets from one chord to the next: "B and G stay, D goes up to E". Empty where it plays nothing. */
export function movesText(before: HeldChord | undefined, after: HeldChord, hand: HandName): string {
  const keys = after.keys.filter((k) => k.hand === hand);
  const old = before?.keys.filter((k) => k.hand === hand) ?? [];
  if (keys.length === 0) return '';
  if (old.length === 0) return 'begins here';
  const name = ({ pitch }: HeldKey): string => pitchClassName(pitch);
  const stay = keys.filter((k) => k.stays);
  const come = keys.filter((k) => !k.stays);
  const go = old.filter((o) => !keys.some((k) => k.midi === o.midi));
  if (come.length === 0)
    return go.length === 0 ? 'all stay' : `${listed(stay.map(name))} ${stay.length > 1 ? 'stay' : 'stays'}`;
  const pairs = come.length === go.length ? come.map((to, i) => ({ from: go[i]!, to })) : [];
  const far = pairs.map(({ from, to }) => stepsBetween(from.pitch, to.pitch));
  if (stay.length === 0 && pairs.length > 1 && far.every((f) => f === far[0] && f !== 0)) {
    const many = Math.abs(far[0]!);
    return `all go ${far[0]! > 0 ? 'up' : 'down'} ${STEP_NAMES[many] ?? `${many} letters`}`;
  }
  const moves = pairs.length
    ? pairs.map(({ from, to }) => `${name(from)} ${to.midi > from.midi ? 'up' : 'down'} to ${name(to)}`)
    : [`on to ${listed(come.map(name))}`];
  return [stay.length > 0 ? `${listed(stay.map(name))} ${stay.length > 1 ? 'stay' : 'stays'}` : '', ...moves]
    .filter(Boolean)
    .join(', ');
}

/** The notes of a chord by name, as it is built: from its root up, what does not belong to it last. */
export function namesOf({ chord, keys }: Pick<HeldChord, 'chord' | 'keys'>): string {
  const order = chordTones(chord).map(pitchClass);
  const rank = (midi: number): number => (order.indexOf(midi % 12) + order.length + 1) % (order.length + 1);
  const sorted = [...keys].sort((a, b) => rank(a.midi) - rank(b.midi));
  return [...new Set(sorted.map((k) => pitchClassName(k.pitch)))].join(' ');
}

/** "struck 4 times", by the hand that strikes more often. */
export const strokesText = ({ strokes, keys }: HeldChord): string => {
  const most = Math.max(strokes.right, strokes.left);
  if (most === 0) return keys.some((k) => k.hand === 'left') ? 'held from before' : 'not played';
  return most === 1 ? 'played once' : `played ${plural(most, 'time')}`;
};
