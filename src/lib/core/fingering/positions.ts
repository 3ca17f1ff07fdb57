/**
 * Where the hand lies, as teachers name it: a five-finger position by the key under its thumb and little finger, an
 * extended one where it opens wider, a crossing where the thumb passes under or a finger over it; and where it changes.
 */
import { isBlackKey, STEPS, staffPosition, pitchClassName, type Pitch } from '../theory/pitch';
import { byOnset, type SoundingNote } from '../score/query';
import type { Ticks } from '../score/ticks';
import type { Hand } from './events';
import type { Finger } from './grips';

export interface HandPosition {
  readonly hand: Hand;
  readonly onset: Ticks;
  /** Struck notes that lie in it. */
  readonly notes: readonly string[];
  readonly kind: 'five fingers' | 'extended';
  /** The letter under the outer finger of five-finger positions, as teachers call them: both hands' C position has C as its lowest. */
  readonly name: string;
  /** Fingers that play black keys in it, in order. */
  readonly onBlack: readonly Finger[];
  /** How the hand gets here from the position before. */
  readonly by: 'start' | 'shift' | 'thumb under' | 'over the thumb';
}

interface Placed {
  readonly note: SoundingNote;
  readonly finger: Finger;
  /** Letter, counted outwards from the thumb's side, of the key that would lie under the thumb. */
  readonly thumb: number;
  readonly letter: number;
}

/** The positions that a fingered line goes through. Notes in order of time; without a finger they are left out. */
export function positionsOf(
  notes: readonly SoundingNote[],
  fingers: ReadonlyMap<string, Finger>,
  hand: Hand,
): HandPosition[] {
  const placed = notes.flatMap((note): Placed[] => {
    const finger = fingers.get(note.id);
    if (!finger) return [];
    const letter = (hand === 'right' ? 1 : -1) * staffPosition(note.pitch);
    return [{ note, finger, letter, thumb: letter - (finger - 1) }];
  });
  const groups: Placed[][] = [];
  // A chord moves as a whole.
  for (const { notes: stroke } of byOnset(placed.map((p) => ({ ...p, onset: p.note.onset })))) {
    const open = groups.at(-1);
    if (open && stroke.every((next) => lieTogether(open, next))) open.push(...stroke);
    else groups.push([...stroke]);
  }
  return groups.map((group, i) => positionOf(group, hand, howFrom(groups[i - 1], group)));
}

/** Extra letters that a hand opens to without moving: an octave under five fingers. */
const OPENING = 3;

/** Whether a note can be played without moving the hand: fingers in order, no wider than an open hand. */
function lieTogether(group: readonly Placed[], next: Placed): boolean {
  return group.every((other) => {
    const fingers = next.finger - other.finger;
    const letters = next.letter - other.letter;
    if (fingers === 0) return letters === 0;
    // Outer fingers on outer keys, and not many more keys than fingers.
    if (Math.sign(fingers) !== Math.sign(letters)) return false;
    return Math.abs(letters) - Math.abs(fingers) <= OPENING && Math.abs(letters) >= Math.abs(fingers) - 1;
  });
}

function howFrom(before: readonly Placed[] | undefined, group: readonly Placed[]): HandPosition['by'] {
  const last = before?.at(-1);
  const first = group[0]!;
  if (!last) return 'start';
  // Only single notes are joined by a thumb that passes under; a chord is a new hold.
  const isSingle = (placed: readonly Placed[], onset: Ticks): boolean =>
    placed.filter((p) => p.note.onset === onset).length === 1;
  if (!isSingle(before!, last.note.onset) || !isSingle(group, first.note.onset)) return 'shift';
  const outwards = first.letter - last.letter;
  if (first.finger === 1 && last.finger > 1 && outwards > 0 && outwards <= 4) return 'thumb under';
  if (last.finger === 1 && first.finger > 1 && outwards < 0 && outwards >= -4) return 'over the thumb';
  return 'shift';
}

function positionOf(group: readonly Placed[], hand: Hand, by: HandPosition['by']): HandPosition {
  const thumbs = group.map((p) => p.thumb);
  const isFive = thumbs.every((t) => t === thumbs[0]);
  // The lowest key: under the right thumb, or the left little finger; where that finger plays, the key it plays.
  const outer = group.find((p) => p.finger === (hand === 'right' ? 1 : 5));
  const thumb = mostCommon(thumbs);
  const lowest = outer ? Math.abs(outer.letter) : hand === 'right' ? thumb : -(thumb + 4);
  return {
    hand,
    onset: group[0]!.note.onset,
    notes: group.map((p) => p.note.id),
    kind: isFive ? 'five fingers' : 'extended',
    name: nameAt(lowest, group),
    onBlack: [...new Set(group.filter((p) => isBlackKey(p.note.midi)).map((p) => p.finger))].sort(),
    by,
  };
}

/** The letter of a key, with the accidental that it has where it is played. */
function nameAt(position: number, group: readonly Placed[]): string {
  const played = group.find((p) => staffPosition(p.note.pitch) === position);
  const step = STEPS[((position % 7) + 7) % 7]!;
  return pitchClassName(played?.note.pitch ?? ({ step, alter: 0 } satisfies Pick<Pitch, 'step' | 'alter'>));
}

function mostCommon(numbers: readonly number[]): number {
  const count = new Map<number, number>();
  for (const n of numbers) count.set(n, (count.get(n) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]![0];
}

/** Of so many black keys on, a position has a shape that a hand remembers: three of B major's five are black, none of C's. */
const SHAPE = 2;

/** "D position", "D position, extended", "B position, 2 3 4 on black keys", "thumb under to A" */
export function positionText({ kind, name, by, onBlack }: HandPosition): string {
  const shape = onBlack.length < SHAPE ? '' : `, ${onBlack.join(' ')} on black keys`;
  const where = `${name} position${kind === 'extended' ? ', extended' : ''}${shape}`;
  if (by === 'thumb under') return `thumb under, ${where}`;
  if (by === 'over the thumb') return `over the thumb, ${where}`;
  return where;
}
