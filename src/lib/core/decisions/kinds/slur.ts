import { z } from 'zod';
import type { Note, Slur } from '../../score/score';
import { defineKind } from '../kind';

type SlurValue = { readonly to: string } | 'none';

/** A slur from a note to a later one of its hand, or no slur from here. */
export const slur = defineKind({
  id: 'slur',
  name: 'Slur',
  words: 'legato phrase bow',
  value: z.union([z.literal('none'), z.strictObject({ to: z.string().min(1).max(80) })]),
  scopes: ['note'],
  says: (value) => (value === 'none' ? 'no slur from here' : 'slur'),
  choices: () => [[{ to: '' }, 'over the selection'] as const, ['none', 'none from here'] as const],
  spans: (value: SlurValue, to) => (value === 'none' ? value : { to }),
  apply(notes, held, { refuse }) {
    return [...held.notes].reduce((changed, [id, value]) => {
      const from = changed.find((n) => n.id === id);
      if (!from) return changed;
      const without = withoutSlur(changed, from);
      if (value === 'none') return without;
      const to = without.find((n) => n.id === value.to);
      if (!to || to.staff !== from.staff || to.onset <= from.onset) {
        refuse(id, 'its last note isn’t in this version');
        return without;
      }
      const number = freeNumber(without, from, to);
      const mark =
        (type: Slur['type']) =>
        (note: Note): Note => ({
          ...note,
          slurs: [...(note.slurs ?? []), { type, number }],
        });
      return without.map((n) => (n.id === id ? mark('start')(n) : n.id === value.to ? mark('stop')(n) : n));
    }, notes);
  },
});

/** Without the slurs that begin at a note. */
function withoutSlur(notes: readonly Note[], from: Note): readonly Note[] {
  const numbers = (from.slurs ?? []).filter((s) => s.type === 'start').map((s) => s.number);
  if (numbers.length === 0) return notes;
  const gone = new Map<string, number[]>([[from.id, numbers]]);
  for (const number of numbers) {
    const stop = [...notes]
      .sort((a, b) => a.onset - b.onset)
      .find((n) => n.onset > from.onset && n.slurs?.some((s) => s.type === 'stop' && s.number === number));
    if (stop) gone.set(stop.id, [...(gone.get(stop.id) ?? []), number]);
  }
  return notes.map((note): Note => {
    const own = gone.get(note.id);
    if (!own) return note;
    const { slurs, ...rest } = note;
    const type = note.id === from.id ? 'start' : 'stop';
    const left = slurs!.filter((s) => !(s.type === type && own.includes(s.number)));
    return left.length > 0 ? { ...rest, slurs: left } : rest;
  });
}

/** MusicXML tells slurs apart by numbers up to six. */
const MOST_SLURS = 6;

function freeNumber(notes: readonly Note[], from: Note, to: Note): number {
  const taken = new Set(
    notes
      .filter((n) => n.onset >= from.onset && n.onset <= to.onset)
      .flatMap((n) => (n.slurs ?? []).map((s) => s.number)),
  );
  for (let number = 1; number <= MOST_SLURS; number++) if (!taken.has(number)) return number;
  return MOST_SLURS;
}
