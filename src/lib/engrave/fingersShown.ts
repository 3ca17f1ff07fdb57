/** Which fingers are printed: all, only where a chord is not struck again as it was, or only where a hand takes a new position. */
import { isStruck, measureAt } from '$core/score/query';
import { toMidi } from '$core/theory/pitch';
import type { Note } from '$core/score/score';
import type { WrittenVersion } from '$core/version/realise';

type FingersWished = boolean | 'once' | 'positions';

/** Answers for each note of a stretch. A line begins with its fingers: `breaks` are measures (by index) that begin one. */
export function fingersShown(
  { fingers, positions = [], score }: WrittenVersion,
  notes: readonly Note[],
  wished: FingersWished,
  breaks: readonly number[],
): (note: Note) => boolean {
  if (typeof wished === 'boolean') return () => wished;
  const hidden =
    wished === 'once'
      ? struckAgain(notes, fingers, (note) =>
          breaks.findLast((b) => b <= measureAt(score.measures, note.onset).index),
        )
      : new Set(notes.map((n) => n.id));
  if (wished === 'positions')
    for (const position of positions) {
      const [first] = position.notes;
      // A chord that begins a position has all its fingers.
      const onset = notes.find((n) => n.id === first)?.onset;
      for (const note of notes)
        if (note.onset === onset && position.notes.includes(note.id)) hidden.delete(note.id);
    }
  return (note) => !hidden.has(note.id);
}

/** Notes of chords that are struck as their hand's last stroke was, with the same fingers, on the same line. */
function struckAgain(
  notes: readonly Note[],
  fingers: WrittenVersion['fingers'],
  lineOf: (note: Note) => number | undefined,
): Set<string> {
  const strokes = new Map<string, Note[]>();
  for (const note of notes) {
    if (!isStruck(note)) continue;
    const place = `${note.staff} ${note.onset}`;
    strokes.set(place, [...(strokes.get(place) ?? []), note]);
  }
  const again = new Set<string>();
  const last = new Map<number, string>();
  for (const struck of [...strokes.values()].sort((a, b) => a[0]!.onset - b[0]!.onset)) {
    const [{ staff }] = struck as [Note];
    const looks = struck.map((n) => `${toMidi(n.pitch)} ${fingers[n.id]?.finger ?? ''}`).sort();
    const stroke = `${lineOf(struck[0]!) ?? ''}: ${looks.join(', ')}`;
    if (struck.length > 1 && last.get(staff) === stroke) for (const note of struck) again.add(note.id);
    last.set(staff, stroke);
  }
  return again;
}
