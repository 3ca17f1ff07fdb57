import { lineText } from '../../plainText';
import type { Mark } from '../../score/score';
import { defineKind } from '../kind';

/** Words at a note that tell the hand what to do: "cross over", "thumb under". */
export const technique = defineKind({
  id: 'technique',
  name: 'Instruction at the note',
  isOfOneNote: true,
  words: 'text words instruction',
  value: lineText().min(1).max(60),
  scopes: ['note'],
  says: (value) => `“${value}”`,
  written: { hint: 'cross over', read: (text) => text.trim() || undefined, show: (value) => value },
  mark(part, held) {
    const made = part.notes.flatMap((n): Mark[] => {
      const text = held.notes.get(n.id);
      return text === undefined
        ? []
        : [{ kind: 'words', onset: n.onset, staff: n.staff, above: n.staff === 1, text }];
    });
    return { ...part, marks: [...(part.marks ?? []), ...made].sort((a, b) => a.onset - b.onset) };
  },
});
