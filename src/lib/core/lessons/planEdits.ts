/**
 * What a teacher does to a plan: each takes a plan and gives another, or says why it cannot be. Chunks are named by their measures; places
 * are those in the plan, from 0.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import { compareEdges, covers, follows, type Places } from '../score/places';
import { chunkId, chunkSchema, edgeId, edgesOf, placesBetween } from './chunkId';
import {
  METHOD_IDS,
  plannedStepSchema,
  proposedPlan,
  type Plan,
  type PlannedChunk,
  type ToLearn,
} from './plan';

const place = z.number().int().min(0).max(500);
const measure = z.string().regex(/^[mi]\d{1,5}$/);
/** A beat as it is counted, from a form: nothing where it is the measure's first, or its last. */
const beat = z.preprocess(
  (value) => (value === '' || value === undefined ? undefined : Number(value)),
  z.number().int().min(1).max(99).optional(),
);
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
  /** From a measure, or a beat of it, to another with its last beat or up to and with the one that is named. */
  z.object({
    do: z.literal('add'),
    at: place,
    from: measure,
    fromBeat: beat,
    to: measure,
    toBeat: beat,
  }),
  /** `before`, and of it `beat`, begins the second part. */
  z.object({ do: z.literal('split'), chunk: chunkSchema, before: measure, beat }),
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
const NO_BEAT = 'This measure doesn’t have that beat.';

/** The ends of a stretch by their ids, without beats that say nothing; a sentence where a measure does not have the beat. */
function endsIn(
  { ids, beats }: Pick<ToLearn, 'ids' | 'beats'>,
  { from, to, fromBeat, toBeat }: Places,
): { readonly from: string; readonly to: string } | { readonly refused: string } {
  const isMissing = (at: number, wanted: number | undefined): boolean =>
    wanted !== undefined && (wanted < beats[at]![0] || wanted > beats[at]![1]);
  if (isMissing(from, fromBeat) || isMissing(to, toBeat)) return { refused: NO_BEAT };
  return {
    from: edgeId(ids[from]!, fromBeat === beats[from]![0] ? undefined : fromBeat),
    to: edgeId(ids[to]!, toBeat === beats[to]![1] ? undefined : toBeat),
  };
}

/** Applies an edit to a plan of some music. */
export function edited(plan: Plan, edit: PlanEdit, music: ToLearn): PlanChange {
  const { chunks } = plan;
  const as = (next: readonly PlannedChunk[]): PlanChange => ({ plan: { ...plan, chunks: [...next] } });
  if (edit.do === 'method') return { plan: proposedPlan(music, edit.method) };
  if (edit.do === 'template') return { plan: proposedPlan(music, edit.method, edit.steps) };
  if (edit.do === 'add') {
    const places = placesBetween(music.ids, edgeId(edit.from, edit.fromBeat), edgeId(edit.to, edit.toBeat));
    if (!places)
      return { refused: 'These measures aren’t in the version, or the last comes before the first.' };
    const ends = endsIn(music, places);
    if ('refused' in ends) return ends;
    if (chunks.some((c) => c.from === ends.from && c.to === ends.to)) return { refused: THERE };
    const steps = chunks.find((c) => c.steps.some((s) => s.id === 'join'))?.steps ?? chunks[0]?.steps ?? [];
    return as(withAt(chunks, Math.min(edit.at, chunks.length), { ...ends, name: null, steps }));
  }
  // A chunk that was split or joined since is still the one that begins there.
  const [begins] = edgesOf(edit.chunk);
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
      const whole = placesBetween(music.ids, chunk.from, chunk.to);
      const cut = music.ids.indexOf(edit.before);
      if (!whole || cut < 0) return { refused: SPLIT };
      const isInside = edit.beat !== undefined && edit.beat !== music.beats[cut]![0];
      const before: Places = isInside
        ? { from: whole.from, fromBeat: whole.fromBeat, to: cut, toBeat: edit.beat! - 1 }
        : { from: whole.from, fromBeat: whole.fromBeat, to: cut - 1 };
      const after: Places = { ...whole, from: cut, fromBeat: isInside ? edit.beat : undefined };
      if (!isBehind(before) || !isBehind(after) || !covers(whole, before) || !covers(whole, after))
        return { refused: SPLIT };
      const [first, rest] = [endsIn(music, before), endsIn(music, after)];
      if ('refused' in first) return first;
      if ('refused' in rest) return rest;
      if (isThere(first.from, first.to) || isThere(rest.from, rest.to)) return { refused: THERE };
      const second = chunk.steps.some((s) => s.id === 'join') ? chunk.steps : joining(chunk.steps);
      return as([
        ...chunks.slice(0, at),
        { ...chunk, ...first },
        { ...chunk, ...rest, name: null, steps: second },
        ...chunks.slice(at + 1),
      ]);
    }
    case 'join': {
      const places = chunks.map((c) => placesBetween(music.ids, c.from, c.to));
      const own = places[at];
      const next = places.findIndex((p) => own && p && follows(own, p));
      if (next < 0) return { refused: 'No chunk follows this one in the music.' };
      if (isThere(chunk.from, chunks[next]!.to)) return { refused: THERE };
      const whole = { ...chunk, to: chunks[next]!.to };
      return as(chunks.flatMap((c, i) => (i === at ? [whole] : i === next ? [] : [c])));
    }
  }
}

const SPLIT = 'Split a chunk between two of its measures or beats.';

/** Whether some places end behind where they begin. */
const isBehind = ({ from, fromBeat, to, toBeat }: Places): boolean =>
  compareEdges([from, fromBeat ?? 0], [to, toBeat ?? Infinity]) <= 0;

/** The second part of a chunk that had nothing to be joined to has: it goes before polishing, or at the end. */
function joining(steps: PlannedChunk['steps']): PlannedChunk['steps'] {
  const at = steps.findIndex((s) => s.id === 'ladder' || s.id === 'memory');
  return withAt(steps, at < 0 ? steps.length : at, { id: 'join', name: null });
}
