import { z } from 'zod';
import { DYNAMICS } from '../../performance/dynamics';
import type { Mark } from '../../score/score';
import { defineKind } from '../kind';

const LOUDNESS = ['pp', 'p', 'mp', 'mf', 'f', 'ff'].filter((sign) => sign in DYNAMICS) as [
  string,
  ...string[],
];

/** How loud it is from a note on. */
export const dynamic = defineKind({
  id: 'dynamic',
  name: 'Dynamics',
  isOfOneNote: true,
  words: 'loud soft forte piano volume',
  value: z.enum(['none', ...LOUDNESS]),
  scopes: ['note'],
  says: (value) => (value === 'none' ? 'no dynamics here' : `dynamics: ${value}`),
  choices: () => [...LOUDNESS.map((sign) => [sign, sign] as const), ['none', 'None here'] as const],
  mark(part, held) {
    const at = new Map(
      part.notes.flatMap((n) => {
        const value = held.notes.get(n.id);
        return value === undefined ? [] : [[n.onset, { value, staff: n.staff }] as const];
      }),
    );
    const kept = (part.marks ?? []).filter((m) => !(m.kind === 'dynamic' && at.has(m.onset)));
    const made = [...at].flatMap(([onset, { value, staff }]): Mark[] =>
      value === 'none' ? [] : [{ kind: 'dynamic', onset, staff, value }],
    );
    return { ...part, marks: [...kept, ...made].sort((a, b) => a.onset - b.onset) };
  },
});
