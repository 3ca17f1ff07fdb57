import { z } from 'zod';
import { isStruck, measureAt } from '../../score/query';
import type { Articulation, Note } from '../../score/score';
import { defineKind, following } from '../kind';

const ARTICULATIONS = ['staccato', 'tenuto', 'accent', 'strong-accent', 'none'] as const;
type Touch = (typeof ARTICULATIONS)[number];
const NAMES: Readonly<Record<Touch, string>> = {
  staccato: 'staccato',
  tenuto: 'tenuto',
  accent: 'accent',
  'strong-accent': 'strong accent',
  none: 'no articulation',
};

/** How a note is touched, in place of what the source has. */
export const articulation = defineKind({
  id: 'articulation',
  name: 'Articulation',
  words: 'staccato accent tenuto short',
  value: z.enum(ARTICULATIONS),
  scopes: ['note', 'measure', 'range', 'section'],
  says: (value) => NAMES[value],
  choices: () => ARTICULATIONS.map((id) => [id, NAMES[id]] as const),
  keys: [
    {
      press: '.',
      does: 'staccato, tenuto, accent, or none of these',
      next: (current) => following(ARTICULATIONS, current),
    },
  ],
  apply(notes, held, { measures, tied }) {
    const byPiece = new Map([...held.notes].map(([id, value]) => [tied(id)[0], value] as const));
    return notes.map((note): Note => {
      const value =
        byPiece.get(note.id) ??
        (isStruck(note) ? held.measures[measureAt(measures, note.onset).index] : undefined);
      if (!value) return note;
      const { articulations, ...rest } = note;
      // What says something else than touch stays: a breath, a fall.
      const others = (articulations ?? []).filter((a) => !TOUCHES.has(a));
      const all = value === 'none' ? others : [...others, value];
      return all.length > 0 ? { ...rest, articulations: all } : rest;
    });
  },
});

const TOUCHES: ReadonlySet<Articulation> = new Set([
  'staccato',
  'staccatissimo',
  'spiccato',
  'detached-legato',
  'tenuto',
  'accent',
  'strong-accent',
  'soft-accent',
]);
