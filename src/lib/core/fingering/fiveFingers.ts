/**
 * Five-finger positions that a learner keeps: whole phrases on five neighbouring letters have a finger for each, whatever comes
 * between. For levels at which the hand should stay where it is.
 */
import { staffPosition } from '../score/pitch';
import { byOnset, type SoundingNote } from '../score/query';
import type { Convention } from './convention';
import type { Finger } from './grips';
import type { FingeringSettings } from './solve';

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

function phrasesOf(notes: readonly SoundingNote[], resets: ReadonlySet<number>): SoundingNote[][] {
  const phrases: SoundingNote[][] = [];
  for (const note of notes) {
    const before = phrases.at(-1)?.at(-1);
    const begins = before === undefined || [...resets].some((r) => before.onset < r && r <= note.onset);
    if (begins) phrases.push([]);
    phrases.at(-1)!.push(note);
  }
  return phrases;
}

/** Phrases that follow one another and lie on five letters together, as one. */
function joined(phrases: readonly SoundingNote[][]): SoundingNote[][] {
  const windows: SoundingNote[][] = [];
  const width = (list: readonly SoundingNote[]): number => {
    const places = list.map((n) => staffPosition(n.pitch));
    return Math.max(...places) - Math.min(...places);
  };
  for (const phrase of phrases) {
    const last = windows.at(-1);
    if (last && width([...last, ...phrase]) <= FIVE) last.push(...phrase);
    else windows.push([...phrase]);
  }
  return windows;
}
