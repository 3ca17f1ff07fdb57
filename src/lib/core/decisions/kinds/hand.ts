import { z } from 'zod';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { byPiece } from '../private/notes';
import { STAFF_VOICES } from '../private/voices';

/** The hand that plays a note. */
export const hand = defineKind({
  id: 'hand',
  name: 'Hand',
  stands: { note: 'button' },
  words: 'hands left right swap take over',
  value: z.enum(['right', 'left']),
  scopes: ['note'],
  says: (value) => `${value} hand`,
  keys: [
    {
      press: 'x',
      does: 'the other hand plays this note',
      next: (_current, { note }) => (note?.staff === 1 ? 'left' : 'right'),
    },
  ],
  apply(notes, held, { tied }) {
    const hands = byPiece(held, tied);
    return notes.map((note): Note => {
      const to = hands.get(note.id);
      const staff = to === 'right' ? 1 : 2;
      if (!to || staff === note.staff) return note;
      const host = notes.find(
        (n) =>
          n.staff === staff && n.onset === note.onset && n.duration === note.duration && !hands.has(n.id),
      );
      // One that finds none there that moves with it is a voice by itself.
      return { ...note, staff, voice: host?.voice ?? STAFF_VOICES[staff][1] };
    });
  },
});
