/** Puts fingers and counts onto the notes of a part. */
import { countText, type MeasureCounts } from '../counting/count';
import type { Finger } from '../fingering/grips';
import type { Lyric, Measure, Note, Part } from '../score/score';
import type { Ticks } from '../score/ticks';

/** The part with its fingers written onto the notes, in place of any it had. */
export const withFingers = (part: Part, fingers: ReadonlyMap<string, Finger>): Part => ({
  ...part,
  notes: part.notes.map((note) => {
    const { finger: _before, ...rest } = note;
    const finger = fingers.get(note.id);
    return finger ? { ...rest, finger } : rest;
  }),
});

const isStruck = (note: Note): boolean =>
  note.tie !== 'stop' && note.tie !== 'both' && !note.grace && !note.cue;

/**
 * The part with what is counted as lyrics, on the notes of the upper staff where they are. A count that no note of its own
 * carries (a held beat, an onset of the other hand) stands with the note before it: "1 (2)".
 */
export function withCounts(part: Part, measures: readonly Measure[], counts: readonly MeasureCounts[]): Part {
  const carriers = new Map<Ticks, Note>();
  for (const note of part.notes) {
    if (!isStruck(note)) continue;
    const known = carriers.get(note.onset);
    if (!known || note.staff < known.staff) carriers.set(note.onset, note);
  }
  const says = new Map<string, string>();
  for (const { measure, counts: list } of counts) {
    const start = measures[measure]!.start;
    let before: Note | undefined;
    const waiting: string[] = [];
    for (const count of list) {
      const own = carriers.get(start + count.at);
      const carrier = own && (own.staff === 1 || !before) ? own : before;
      const text = countText(count);
      if (!carrier) waiting.push(text);
      else {
        says.set(carrier.id, [...waiting.splice(0), says.get(carrier.id), text].filter(Boolean).join(' '));
        before = carrier;
      }
    }
  }
  return {
    ...part,
    notes: part.notes.map((note) => {
      const text = says.get(note.id);
      const words = (note.lyrics ?? []).filter((l) => l.line !== 'counts');
      const count: Lyric[] = text ? [{ line: 'counts', verse: 1, text, syllabic: 'single' }] : [];
      const { lyrics: _before, ...rest } = note;
      return count.length + words.length > 0 ? { ...rest, lyrics: [...count, ...words] } : rest;
    }),
  };
}
