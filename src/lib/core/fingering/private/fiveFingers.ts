/**
 * Five-finger positions that a learner keeps: whole phrases on five neighbouring letters have a finger for each, whatever comes
 * between. For levels at which the hand should stay where it is.
 */
import { staffPosition } from '../../theory/pitch';
import { byOnset, type SoundingNote } from '../../score/query';
import type { Convention } from './convention';
import type { Finger } from '../grips';
import type { FingeringSettings } from '../solve';

/** From the lowest letter to the highest. */
const FIVE = 4;
/** Fewest strokes that make a position worth the name. */
const FEWEST = 4;
/** Strong enough that only notes outside of it move the hand. */
const WEIGHT = 3;

/** Fingers of phrases that lie on five letters, by note id. */
export function keptPositions(
  notes: readonly SoundingNote[],
  { hand, resets, steadiness }: Pick<FingeringSettings, 'hand' | 'resets' | 'steadiness'>,
): ReadonlyMap<string, Convention> {
  const found = new Map<string, Convention>();
  if (steadiness <= 1) return found;
  for (const window of joined(phrasesOf(notes, resets))) {
    const places = window.map((n) => staffPosition(n.pitch));
    const [low, high] = [Math.min(...places), Math.max(...places)];
    // Chords have shapes of their own.
    const isLine = byOnset(window).every((s) => s.notes.length === 1);
    if (!isLine || high - low !== FIVE || window.length < FEWEST) continue;
    for (const note of window) {
      const up = staffPosition(note.pitch) - low;
      const finger = (hand === 'right' ? up + 1 : 5 - up) as Finger;
      found.set(note.id, { fingers: [finger], weight: WEIGHT, of: 'a five-finger position' });
    }
  }
  return found;
}

/** Cut where a phrase begins. */
function phrasesOf(notes: readonly SoundingNote[], resets: ReadonlySet<number>): SoundingNote[][] {
  const starts = [...resets].sort((a, b) => a - b);
  const phrases: SoundingNote[][] = [];
  let next = 0;
  for (const note of notes) {
    const passed = next;
    while (next < starts.length && starts[next]! <= note.onset) next += 1;
    if (phrases.length === 0 || next > passed) phrases.push([]);
    phrases.at(-1)!.push(note);
  }
  return phrases;
}

/** Phrases that follow one another and lie on five letters together, as one. */
function joined(phrases: readonly SoundingNote[][]): SoundingNote[][] {
  const windows: { notes: SoundingNote[]; low: number; high: number }[] = [];
  for (const phrase of phrases) {
    const places = phrase.map((n) => staffPosition(n.pitch));
    const [low, high] = [Math.min(...places), Math.max(...places)];
    const last = windows.at(-1);
    if (last && Math.max(high, last.high) - Math.min(low, last.low) <= FIVE) {
      last.notes.push(...phrase);
      last.low = Math.min(low, last.low);
      last.high = Math.max(high, last.high);
    } else windows.push({ notes: [...phrase], low, high });
  }
  return windows.map((w) => w.notes);
}
