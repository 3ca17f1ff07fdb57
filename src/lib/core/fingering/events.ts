/** What one hand has to do, onset by onset: the keys it strikes, those it still holds, and how free it is to move. */
import { isBlackKey } from '../score/pitch';
import { byOnset, type SoundingNote } from '../score/query';
import { TICKS_PER_QUARTER, type Ticks } from '../score/ticks';

export type Hand = 'right' | 'left';

/** One key under a finger. `out` rises outwards from the thumb's side: MIDI upwards in the right hand, downwards in the left. */
export interface HeldKey {
  readonly id: string;
  readonly midi: number;
  readonly isBlack: boolean;
  readonly out: number;
  readonly struck: boolean;
}

/** Everything one hand has to do at one onset. Keys in order outwards. */
export interface Event {
  readonly onset: Ticks;
  readonly keys: readonly HeldKey[];
  /**
   * How strongly it is bound to the event before: 1 joined, less after a short rest or a staccato, 0 where the hand is
   * free to begin anew (after a phrase end, a rest of a beat, a long note before a leap).
   */
  readonly bond: number;
  /** A slur joins it to the event before. */
  readonly slurred: boolean;
  /** Struck again so quickly that the finger changes. */
  readonly quickRepeat: boolean;
  /** Ids of notes that had to be let go here, because the hand cannot hold them with what it strikes. */
  readonly letGo: readonly string[];
}

export interface HandLine {
  readonly hand: Hand;
  /** Semitones that the hand holds. */
  readonly reach: number;
  /** Ticks at which a new phrase begins. */
  readonly resets: ReadonlySet<Ticks>;
  /** Length of a beat, for judging rests. */
  readonly beat: Ticks;
  /** Quarter notes per minute; without it a hundred. */
  readonly tempo?: number;
}

const USUAL_TEMPO = 100;
/** Seconds between strokes of one key below which fingers change on it. */
const QUICK_REPEAT = 0.19;
/** Notes may overlap by as much without being held: what a grace note takes from the note before. */
const OVERLAP = TICKS_PER_QUARTER / 32;
const MOST_KEYS = 5;

/** The events of a hand, in order. */
export function eventsOf(notes: readonly SoundingNote[], line: HandLine): Event[] {
  const { hand, beat, resets } = line;
  const seconds = 60 / ((line.tempo || USUAL_TEMPO) * TICKS_PER_QUARTER);
  let sounding: SoundingNote[] = [];
  let before: { readonly onset: Ticks; readonly notes: readonly SoundingNote[] } | undefined;
  let silentFrom = -Infinity;
  let slurs = 0;
  const groups = byOnset(notes);
  return groups.map((group, index): Event => {
    const { onset, notes: struck } = group;
    const struckKeys = new Set(struck.map((n) => n.midi));
    const stillOn = sounding.filter((n) => n.onset + n.duration > onset + OVERLAP && !struckKeys.has(n.midi));
    const { held, letGo } = holdable(stillOn, struck, line.reach);
    sounding = held;
    const keys = [...held.map((n) => toKey(n, hand, false)), ...struck.map((n) => toKey(n, hand, true))].sort(
      (a, b) => a.out - b.out,
    );
    const rest = silentFrom === -Infinity ? Infinity : onset - silentFrom;
    const bond = before ? bondOf(before, group, { rest, beat, newPhrase: resets.has(onset) }) : 0;
    const slurred = slurs > 0;
    slurs += slurChange(struck);
    const next = groups[index + 1];
    const isRepeat = (other: typeof before): boolean =>
      other?.notes.length === 1 && struck.length === 1 && other.notes[0]!.midi === struck[0]!.midi;
    const gap = before ? (onset - before.onset) * seconds : Infinity;
    const quickRepeat =
      gap < QUICK_REPEAT && isRepeat(before) && (isRepeat(next) || wasQuick(groups, index, seconds));
    silentFrom = Math.max(...[...held, ...struck].map((n) => n.onset + n.duration));
    before = group;
    sounding = [...sounding, ...struck];
    return { onset, keys, bond, slurred, quickRepeat, letGo: letGo.map((n) => n.id) };
  });
}

/** Whether the two strokes before were already a quick repetition. */
function wasQuick(
  groups: readonly { readonly onset: Ticks; readonly notes: readonly SoundingNote[] }[],
  index: number,
  seconds: number,
): boolean {
  const [a, b] = [groups[index - 2], groups[index - 1]];
  return (
    a?.notes.length === 1 &&
    b?.notes.length === 1 &&
    a.notes[0]!.midi === b.notes[0]!.midi &&
    (b.onset - a.onset) * seconds < QUICK_REPEAT
  );
}

/** What can be held on while other keys are struck: five keys in all, within reach. The furthest is let go first. */
function holdable(
  held: readonly SoundingNote[],
  struck: readonly SoundingNote[],
  reach: number,
): { held: SoundingNote[]; letGo: SoundingNote[] } {
  const kept = [...held].sort((a, b) => b.onset - a.onset);
  const letGo: SoundingNote[] = kept.splice(Math.max(0, MOST_KEYS - struck.length));
  const low = Math.min(...struck.map((n) => n.midi));
  const high = Math.max(...struck.map((n) => n.midi));
  const reachTo = (n: SoundingNote): number => Math.max(high, n.midi) - Math.min(low, n.midi);
  while (kept.length > 0) {
    const all = [...kept.map((n) => n.midi), low, high];
    if (Math.max(...all) - Math.min(...all) <= reach) break;
    const furthest = kept.reduce((a, b) => (reachTo(b) > reachTo(a) ? b : a));
    kept.splice(kept.indexOf(furthest), 1);
    letGo.push(furthest);
  }
  return { held: kept, letGo };
}

const toKey = (note: SoundingNote, hand: Hand, struck: boolean): HeldKey => ({
  id: note.id,
  midi: note.midi,
  isBlack: isBlackKey(note.midi),
  out: hand === 'right' ? note.midi : -note.midi,
  struck,
});

const isStaccato = (notes: readonly SoundingNote[]): boolean =>
  notes.some((n) =>
    n.articulations.some((a) => a.startsWith('staccat') || a === 'breath-mark' || a === 'caesura'),
  );

const slurChange = (notes: readonly SoundingNote[]): number =>
  notes.some((n) => n.slurStop) ? -1 : notes.some((n) => n.slurStart) ? 1 : 0;

/** A leap is wider than a position. */
const LEAP = 7;

function bondOf(
  before: { readonly onset: Ticks; readonly notes: readonly SoundingNote[] },
  here: { readonly onset: Ticks; readonly notes: readonly SoundingNote[] },
  { rest, beat, newPhrase }: { rest: Ticks; beat: Ticks; newPhrase: boolean },
): number {
  const distance = Math.abs(middle(here.notes) - middle(before.notes));
  const length = here.onset - before.onset;
  const staccato = isStaccato(before.notes);
  if (rest >= beat) return 0;
  if (newPhrase && (rest > 0 || staccato || length >= 1.5 * beat || before.notes.some((n) => n.slurStop)))
    return 0;
  if (staccato && distance > LEAP) return 0;
  const phrase = newPhrase ? 0.6 : 1;
  if (rest > OVERLAP) return 0.5 * phrase;
  return (staccato ? 0.6 : 1) * phrase;
}

const middle = (notes: readonly SoundingNote[]): number =>
  notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;
