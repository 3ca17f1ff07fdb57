import { z } from 'zod';
import type { Mark } from '../../score/score';
import { defineKind } from '../kind';

type HairpinValue = { readonly type: 'crescendo' | 'diminuendo'; readonly to: string } | 'none';

/** Told apart from the source's own. */
const NUMBER = 6;

/** Louder or softer from a note to a later one, or no hairpin from here. */
export const hairpin = defineKind({
  id: 'hairpin',
  name: 'Hairpin',
  words: 'crescendo diminuendo louder softer',
  value: z.union([
    z.literal('none'),
    z.strictObject({ type: z.enum(['crescendo', 'diminuendo']), to: z.string().min(1).max(80) }),
  ]),
  scopes: ['note'],
  says: (value) => (value === 'none' ? 'no hairpin from here' : value.type),
  choices: () => [
    [{ type: 'crescendo', to: '' }, 'crescendo over the selection'] as const,
    [{ type: 'diminuendo', to: '' }, 'diminuendo over the selection'] as const,
    ['none', 'none from here'] as const,
  ],
  spans: (value: HairpinValue, to) => (value === 'none' ? value : { ...value, to }),
  mark(part, held, { refuse }) {
    return [...held.notes].reduce((marked, [id, value]) => {
      const from = part.notes.find((n) => n.id === id);
      if (!from) return marked;
      const marks = withoutHairpin(marked.marks ?? [], from.onset);
      if (value === 'none') return { ...marked, marks };
      const to = part.notes.find((n) => n.id === value.to);
      if (!to || to.onset <= from.onset) {
        refuse(id, 'its last note isn’t in this version');
        return { ...marked, marks };
      }
      const made: Mark[] = [
        { kind: 'hairpin', onset: from.onset, staff: from.staff, type: value.type, number: NUMBER },
        { kind: 'hairpin', onset: to.onset, staff: from.staff, type: 'stop', number: NUMBER },
      ];
      return { ...marked, marks: [...marks, ...made].sort((a, b) => a.onset - b.onset) };
    }, part);
  },
});

/** Without hairpins that begin at a tick. */
function withoutHairpin(marks: readonly Mark[], onset: number): Mark[] {
  const begun = marks.filter((m) => m.kind === 'hairpin' && m.onset === onset && m.type !== 'stop');
  const ends = begun.flatMap(
    (b) =>
      marks.find(
        (m) =>
          m.kind === 'hairpin' &&
          m.type === 'stop' &&
          m.onset > onset &&
          b.kind === 'hairpin' &&
          m.number === b.number,
      ) ?? [],
  );
  return marks.filter((m) => !begun.includes(m) && !ends.includes(m));
}
