/**
 * Two players at keyboards as one: the outer lines, and under and above them as much of everybody's harmony as two hands hold. At each
 * onset the highest key is the right hand's and the lowest the left hand's; a key that two players strike at once is one key. What lies
 * between fills the hands from the outside, chord tones that are not doubled first, as far as an octave reaches and never thicker than a
 * pianist's own chords.
 */
import { byOnset, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Note, Part } from '../../score/score';
import { notate } from '../../score/notate';
import type { Ticks } from '../../score/ticks';

/** Semitones that a hand holds without strain, and keys that it strikes at once. */
const OCTAVE = 12;
const MOST_KEYS = 4;

interface Held {
  readonly until: Ticks;
  readonly midi: number;
}

/** One part of two staves. Ids stay; notes that are not taken are not in it. Parts with their players' staves, the upper player first or last. */
export function reducedToTwoHands(parts: readonly Part[], measures: readonly Measure[]): Part {
  const written = new Map(parts.flatMap((p) => p.notes).map((n) => [n.id, n]));
  const all = parts
    .flatMap((p) => soundingNotes(p.notes))
    .sort((a, b) => a.onset - b.onset || a.midi - b.midi);
  const taken: { readonly note: SoundingNote; readonly staff: 1 | 2 }[] = [];
  let right: Held[] = [];
  let left: Held[] = [];
  for (const { onset, notes } of byOnset(all)) {
    right = right.filter((h) => h.until > onset);
    left = left.filter((h) => h.until > onset);
    const keys = once(notes);
    const hands = shared(keys, right, left);
    for (const [staff, own] of [
      [1, hands.right],
      [2, hands.left],
    ] as const)
      for (const note of own) {
        taken.push({ note, staff });
        (staff === 1 ? right : left).push({ until: note.onset + note.duration, midi: note.midi });
      }
  }
  const [first] = parts;
  return {
    id: first!.id,
    name: 'Piano',
    staves: 2,
    role: 'keyboard',
    notes: notate(
      measures,
      taken.map(({ note, staff }): Note => {
        const own = written.get(note.id);
        return {
          id: note.id,
          onset: note.onset,
          duration: note.duration,
          pitch: note.pitch,
          staff,
          voice: staff === 1 ? 1 : 5,
          ...(note.articulations.length > 0 ? { articulations: note.articulations } : {}),
          ...(own?.lyrics ? { lyrics: own.lyrics } : {}),
          ...(own?.fermata ? { fermata: true } : {}),
        };
      }),
    ).sort((a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice),
    marks: (first!.marks ?? []).map((m) => ({ ...m, staff: Math.min(2, m.staff) })),
  };
}

/** Each key once, the longest of those that strike it; rising. */
function once(notes: readonly SoundingNote[]): SoundingNote[] {
  const byKey = new Map<number, SoundingNote>();
  for (const note of notes) {
    const known = byKey.get(note.midi);
    if (!known || note.duration > known.duration) byKey.set(note.midi, note);
  }
  return [...byKey.values()].sort((a, b) => a.midi - b.midi);
}

/** What each hand strikes of the keys of one onset, besides what it holds. */
function shared(
  keys: readonly SoundingNote[],
  holdsRight: readonly Held[],
  holdsLeft: readonly Held[],
): { right: SoundingNote[]; left: SoundingNote[] } {
  const top = keys.at(-1)!;
  const bottom = keys[0]!;
  const lowestRight = Math.min(...holdsRight.map((h) => h.midi));
  const highestLeft = Math.max(...holdsLeft.map((h) => h.midi));
  // A single key goes to the hand that is nearer to it.
  const isRight =
    keys.length > 1 ||
    Math.abs(top.midi - middleOf(holdsRight, 72)) <= Math.abs(top.midi - middleOf(holdsLeft, 48));
  const right: SoundingNote[] = isRight ? [top] : [];
  const left: SoundingNote[] = isRight && keys.length === 1 ? [] : [bottom];
  const inner = keys.filter((k) => k !== top && k !== bottom);
  const classes = new Set([...right, ...left].map((n) => n.midi % 12));
  const fits = (own: readonly SoundingNote[], held: readonly Held[], midi: number): boolean => {
    const all = [...own.map((n) => n.midi), ...held.map((h) => h.midi), midi];
    return all.length <= MOST_KEYS && Math.max(...all) - Math.min(...all) <= OCTAVE;
  };
  const give = (note: SoundingNote): void => {
    // From the outside: each key to the outer line that it lies nearer to.
    const toRight = top.midi - note.midi <= note.midi - bottom.midi;
    for (const hand of toRight ? ['right', 'left'] : ['left', 'right']) {
      if (
        hand === 'right' &&
        right.length > 0 &&
        note.midi > highestLeft &&
        fits(right, holdsRight, note.midi)
      ) {
        right.push(note);
        break;
      }
      if (hand === 'left' && left.length > 0 && note.midi < lowestRight && fits(left, holdsLeft, note.midi)) {
        left.push(note);
        break;
      }
    }
    classes.add(note.midi % 12);
  };
  // What no other key says first; then what makes it fuller.
  const isNew = (n: SoundingNote): boolean => !classes.has(n.midi % 12);
  for (const note of [...inner].reverse()) if (isNew(note)) give(note);
  return { right: right.sort((a, b) => a.midi - b.midi), left: left.sort((a, b) => a.midi - b.midi) };
}

const middleOf = (held: readonly Held[], usual: number): number =>
  held.length === 0 ? usual : held.reduce((sum, h) => sum + h.midi, 0) / held.length;
