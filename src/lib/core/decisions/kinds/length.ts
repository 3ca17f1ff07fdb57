import { z } from 'zod';
import { soundingNotes } from '../../score/query';
import { noteValue } from '../../score/ticks';
import { defineKind } from '../kind';
import { replaced, retimed } from '../private/notes';

const NAMES = { 1: 'whole note', 2: 'half note', 4: 'quarter', 8: 'eighth', 16: 'sixteenth' } as const;
type Value = keyof typeof NAMES;
const VALUES = [1, 2, 4, 8, 16] as const satisfies readonly Value[];
const nameOf = ({ value, dots }: { readonly value: Value; readonly dots: 0 | 1 }): string =>
  `${dots ? 'dotted ' : ''}${NAMES[value]}`;

/** The written length of a note, as far as the next note of its voice lets it be. */
export const length = defineKind({
  id: 'length',
  name: 'Length',
  words: 'duration longer shorter rhythm',
  value: z.strictObject({ value: z.literal(VALUES), dots: z.literal([0, 1]) }),
  scopes: ['note'],
  says: (value) => `a ${nameOf(value)}`,
  choices: () =>
    VALUES.flatMap((value) =>
      ([1, 0] as const).map((dots) => [{ value, dots }, nameOf({ value, dots })] as const),
    ),
  apply(notes, held, { measures, refuse }) {
    const end = measures.at(-1)!.start + measures.at(-1)!.length;
    return [...held.notes].reduce((changed, [id, { value, dots }]) => {
      const all = soundingNotes(changed);
      const note = all.find((n) => n.id === id);
      if (!note) return changed;
      const wanted = (noteValue(value) * (dots ? 3 : 2)) / 2;
      const next = all.find((n) => n.voice === note.voice && n.onset > note.onset)?.onset ?? end;
      const duration = Math.min(wanted, next - note.onset);
      if (duration < wanted && duration === note.duration) {
        refuse(id, 'the next note of its voice begins before');
        return changed;
      }
      return replaced(changed, [note], retimed(changed, note, note.onset, duration, measures));
    }, notes);
  },
});
