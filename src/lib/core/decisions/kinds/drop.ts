import { z } from 'zod';
import { defineKind } from '../kind';

/** A note that is not played. Its decision stays with the source's note, so it is left out at every level that has it. */
export const drop = defineKind({
  id: 'drop',
  name: 'Left out',
  stands: { note: 'button' },
  words: 'thinner easier fewer notes omit delete remove',
  value: z.literal(true),
  scopes: ['note'],
  says: () => 'left out',
  keys: [{ press: 'Delete', does: 'leave this note out', next: () => true }],
  apply(notes, { notes: values }, { tied }) {
    const gone = new Set([...values.keys()].flatMap((id) => tied(id)));
    return notes.filter((note) => !gone.has(note.id));
  },
});
