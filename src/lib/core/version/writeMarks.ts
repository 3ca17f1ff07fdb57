/** Puts fingers and counts onto the notes of a part. */
import { countText, type MeasureCounts } from '../counting/count';
import type { Finger } from '../fingering/grips';
import { isStruck } from '../score/query';
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

/**
 * The part with its fingers, in place of any it had, and what is counted as lyrics, on the notes of the upper staff where they
 * are. A count that no note of its own carries (a held beat, an onset of the other hand) stands with the note before it: "1 (2)".
 * A note that gets the same marks again is the same object again, so that a page can tell what has changed.
 */
export function withMarks(
  part: Part,
  measures: readonly Measure[],
  fingers: ReadonlyMap<string, Finger>,
  counts: readonly MeasureCounts[],
): Part {
  const says = countsByNote(part, measures, counts);
  return { ...part, notes: part.notes.map((note) => marked(note, fingers.get(note.id), says.get(note.id))) };
}

const known = new WeakMap<Note, Map<string, Note>>();

function marked(note: Note, finger: Finger | undefined, says: string | undefined): Note {
  const variants = known.get(note) ?? new Map<string, Note>();
  known.set(note, variants);
  const key = `${finger ?? ''} ${says ?? ''}`;
  const before = variants.get(key);
  if (before) return before;
  const { finger: _finger, lyrics, ...rest } = note;
  const words = (lyrics ?? []).filter((l) => l.line !== 'counts');
  const count: Lyric[] = says ? [{ line: 'counts', verse: 1, text: says, syllabic: 'single' }] : [];
  const made: Note = {
    ...rest,
    ...(finger ? { finger } : {}),
    ...(count.length + words.length > 0 ? { lyrics: [...count, ...words] } : {}),
  };
  variants.set(key, made);
  return made;
}

/** What is said at each note that carries a count, by its id. */
function countsByNote(
  part: Part,
  measures: readonly Measure[],
  counts: readonly MeasureCounts[],
): Map<string, string> {
  const carriers = new Map<Ticks, Note>();
  for (const note of part.notes) {
    if (!isStruck(note)) continue;
    const other = carriers.get(note.onset);
    if (!other || note.staff < other.staff) carriers.set(note.onset, note);
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
  return says;
}
