/**
 * What a teacher does to a plan: each takes a plan and gives another, or says why it cannot be. Chunks are named by their measures; places
 * are those in the plan, from 0.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import { chunkId } from './chunks';
import {
  METHOD_IDS,
  plannedStepSchema,
  proposedPlan,
  type Plan,
  type PlannedChunk,
  type ToLearn,
} from './plan';
import { chunkSchema } from './record';

const place = z.number().int().min(0).max(500);
const measure = z.string().regex(/^[mi]\d{1,5}$/);
const name = lineText().max(60, 'Keep the name under 60 letters.');

export const planEditSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('method'), method: z.enum(METHOD_IDS) }),
  z.object({
    do: z.literal('template'),
    method: z.enum(METHOD_IDS),
    steps: z.array(plannedStepSchema).min(1).max(30),
  }),
  z.object({ do: z.literal('move'), chunk: chunkSchema, to: place }),
  z.object({ do: z.literal('drop'), chunk: chunkSchema }),
  z.object({ do: z.literal('add'), at: place, from: measure, to: measure }),
  /** `before` begins the second part. */
  z.object({ do: z.literal('split'), chunk: chunkSchema, before: measure }),
  /** Joins it with the one that follows it in the music. */
  z.object({ do: z.literal('join'), chunk: chunkSchema }),
  z.object({ do: z.literal('name'), chunk: chunkSchema, name }),
  z.object({
    do: z.literal('steps'),
    chunk: chunkSchema,
    steps: z.array(plannedStepSchema).max(30, 'Keep the plan under 30 steps.'),
  }),
]);
export type PlanEdit = z.infer<typeof planEditSchema>;

const without = <T>(list: readonly T[], at: number): T[] => list.filter((_, i) => i !== at);
const withAt = <T>(list: readonly T[], at: number, ...items: readonly T[]): T[] => [
  ...list.slice(0, at),
  ...items,
  ...list.slice(at),
];

/** Moves an item of a list to another place. */
export const moved = <T>(list: readonly T[], from: number, to: number): T[] =>
  withAt(without(list, from), to, list[from]!);

/** A plan that was changed, or a sentence that says why it could not be. */
type PlanChange = { readonly plan: Plan } | { readonly refused: string };

const THERE = 'These measures are already a chunk.';

/** Applies an edit to a plan of some music. */
export function edited(plan: Plan, edit: PlanEdit, music: ToLearn): PlanChange {
  const { chunks } = plan;
  const placeOf = (id: string): number => music.ids.indexOf(id);
  const as = (next: readonly PlannedChunk[]): PlanChange => ({ plan: { ...plan, chunks: [...next] } });
  if (edit.do === 'method') return { plan: proposedPlan(music, edit.method) };
  if (edit.do === 'template') return { plan: proposedPlan(music, edit.method, edit.steps) };
  if (edit.do === 'add') {
    const [from, to] = [placeOf(edit.from), placeOf(edit.to)];
    if (from < 0 || to < from)
      return { refused: 'These measures aren’t in the version, or the last comes before the first.' };
    if (chunks.some((c) => c.from === edit.from && c.to === edit.to)) return { refused: THERE };
    const steps = chunks.find((c) => c.steps.some((s) => s.id === 'join'))?.steps ?? chunks[0]?.steps ?? [];
    return as(
      withAt(chunks, Math.min(edit.at, chunks.length), { from: edit.from, to: edit.to, name: null, steps }),
    );
  }
  // A chunk that was split or joined since is still the one that begins there.
  const [begins] = edit.chunk.split('..');
  const exact = chunks.findIndex((c) => chunkId(c.from, c.to) === edit.chunk);
  const at = exact >= 0 ? exact : chunks.findIndex((c) => c.from === begins);
  const chunk = chunks[at];
  if (!chunk) return { refused: 'This chunk isn’t in the plan any more.' };
  const isThere = (from: string, to: string): boolean => chunks.some((c) => c.from === from && c.to === to);
  switch (edit.do) {
    case 'move':
      return as(moved(chunks, at, Math.min(edit.to, chunks.length - 1)));
    case 'drop':
      return as(without(chunks, at));
    case 'name':
      return as(chunks.map((c, i) => (i === at ? { ...c, name: edit.name === '' ? null : edit.name } : c)));
    case 'steps':
      return as(chunks.map((c, i) => (i === at ? { ...c, steps: edit.steps } : c)));
    case 'split': {
      const [from, cut, to] = [placeOf(chunk.from), placeOf(edit.before), placeOf(chunk.to)];
      if (cut <= from || cut > to) return { refused: 'Split a chunk between two of its measures.' };
      const last = music.ids[cut - 1]!;
      if (isThere(chunk.from, last) || isThere(edit.before, chunk.to)) return { refused: THERE };
      const second = chunk.steps.some((s) => s.id === 'join') ? chunk.steps : joining(chunk.steps);
      return as([
        ...chunks.slice(0, at),
        { ...chunk, to: last },
        { ...chunk, from: edit.before, name: null, steps: second },
        ...chunks.slice(at + 1),
      ]);
    }
    case 'join': {
      const next = chunks.findIndex((c) => placeOf(c.from) === placeOf(chunk.to) + 1);
      if (next < 0) return { refused: 'No chunk follows this one in the music.' };
      if (isThere(chunk.from, chunks[next]!.to)) return { refused: THERE };
      const whole = { ...chunk, to: chunks[next]!.to };
      return as(chunks.flatMap((c, i) => (i === at ? [whole] : i === next ? [] : [c])));
    }
  }
}

/** The second part of a chunk that had nothing to be joined to has: it goes before polishing, or at the end. */
function joining(steps: PlannedChunk['steps']): PlannedChunk['steps'] {
  const at = steps.findIndex((s) => s.id === 'ladder' || s.id === 'memory');
  return withAt(steps, at < 0 ? steps.length : at, { id: 'join', name: null });
}
