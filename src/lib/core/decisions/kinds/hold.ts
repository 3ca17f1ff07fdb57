import { z } from 'zod';
import { endOf } from '../../score/metre';
import { measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { replaced, retimed } from '../private/notes';

const HOLDS = {
  tied: 'tied to the same key after it',
  through: 'held until the next note of its hand',
  barline: 'let go at the barline',
  half: 'let go after half its length',
} as const;
type Hold = keyof typeof HOLDS;
const HOLD_IDS = Object.keys(HOLDS) as [Hold, ...Hold[]];

/** How long a key is held. */
export const hold = defineKind({
  id: 'hold',
  name: 'Held',
  isOfOneNote: true,
  words: 'fermata pause tie long',
  value: z.enum(HOLD_IDS),
  scopes: ['note'],
  says: (value) => HOLDS[value],
  choices: () => HOLD_IDS.map((id) => [id, HOLDS[id]] as const),
  apply(notes, held, { measures, refuse }) {
    return [...held.notes].reduce((changed, [id, value]) => {
      const all = soundingNotes(changed);
      const note = all.find((n) => n.id === id);
      if (!note) return changed;
      const end = note.onset + note.duration;
      if (value === 'tied') {
        const next = all.find((n) => n.onset === end && n.midi === note.midi && n.staff === note.staff);
        if (!next) {
          refuse(id, 'the same key is not played after it');
          return changed;
        }
        return tied(changed, note, next);
      }
      const until =
        value === 'half'
          ? note.onset + note.duration / 2
          : value === 'barline'
            ? Math.min(end, endOf(measureAt(measures, note.onset)))
            : (all.find((n) => n.staff === note.staff && n.onset > note.onset)?.onset ??
              endOf(measureAt(measures, note.onset)));
      if (until === end || until <= note.onset || !Number.isInteger(until)) return changed;
      return replaced(changed, [note], retimed(changed, note, note.onset, until - note.onset, measures));
    }, notes);
  },
});

/** The second of two notes is no longer struck. */
function tied(notes: readonly Note[], first: SoundingNote, second: SoundingNote): readonly Note[] {
  const [from, to] = [first.written.at(-1)!, second.id];
  return notes.map((note): Note => {
    if (note.id === from) return { ...note, tie: note.tie === 'stop' ? 'both' : 'start' };
    if (note.id === to) return { ...note, tie: note.tie === 'start' ? 'both' : 'stop' };
    return note;
  });
}
