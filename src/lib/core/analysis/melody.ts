/** The tune of a source: a voice with words first, else the upper line of the keyboard's upper staff. */
import { keyboardPart, soundingNotes, type SoundingNote } from '../score/query';
import type { Part, Score } from '../score/score';

/** The part that carries the melody. */
export const melodyPart = (score: Score): Part =>
  score.parts.find((p) => p.role === 'melody') ??
  score.parts.find((p) => p.role === undefined && p.staves === 1 && p.notes.some((n) => n.lyrics?.length)) ??
  keyboardPart(score);

/**
 * One line of notes, none overlapping the next: at each onset the highest note struck, unless a higher one of the line
 * is still held. A note that goes on below the next one of the line is let go there.
 */
export function melodyOf(score: Score): SoundingNote[] {
  const upper = soundingNotes(melodyPart(score).notes.filter((n) => n.staff === 1));
  const line: SoundingNote[] = [];
  for (const note of upper) {
    const last = line.at(-1);
    if (!last || last.onset + last.duration <= note.onset) line.push(note);
    else if (note.midi > last.midi) {
      line.pop();
      if (last.onset < note.onset) line.push({ ...last, duration: note.onset - last.onset });
      line.push(note);
    }
  }
  return line;
}
