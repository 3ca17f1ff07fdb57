/**
 * Where two windows change one plan: a chunk is known by its measures, so what one does to a chunk does not touch what the other does to
 * another. Where both change the same thing of a chunk, or both its place, the later change conflicts.
 */
import { merged, mergedSet } from '../edits/merge';
import { chunkId } from './chunkId';
import type { Plan, PlannedChunk } from './plan';

/** A plan of both changes; or the chunks (or "method", "order") that both changed, each otherwise. */
type MergedPlan = { readonly plan: Plan } | { readonly conflicts: readonly string[] };

const idOf = ({ from, to }: PlannedChunk): string => chunkId(from, to);
const byId = ({ chunks }: Plan): ReadonlyMap<string, PlannedChunk> =>
  new Map(chunks.map((c) => [idOf(c), c]));
const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * @param was the plan that `wanted` was made from
 * @param now the plan that is there
 */
export function mergePlans(was: Plan, now: Plan, wanted: Plan): MergedPlan {
  if (isSame(was, now)) return { plan: wanted };
  const [before, there, mine] = [byId(was), byId(now), byId(wanted)];
  const method = merged({ method: was.method }, { method: now.method }, { method: wanted.method });
  const conflicts: string[] = [...method.conflicts];
  const chunks = new Map<string, PlannedChunk>();
  for (const id of mergedSet([...before.keys()], [...there.keys()], [...mine.keys()])) {
    const [old, other, own] = [before.get(id), there.get(id), mine.get(id)];
    if (!other || !own) chunks.set(id, (other ?? own)!);
    else {
      // A chunk that both have added was not there to be changed: only equal ones are one.
      const both = merged(old ?? { ...own, name: null, steps: [] }, other, own);
      if (both.conflicts.length > 0) conflicts.push(id);
      chunks.set(id, both.value);
    }
  }
  // Dropped here and changed there, or the other way round.
  for (const [id, old] of before) {
    const [other, own] = [there.get(id), mine.get(id)];
    const left = other ?? own;
    if ((!other || !own) && left && !isSame(old, left)) conflicts.push(id);
  }
  const order = mergedOrder([...before.keys()], [...there.keys()], [...mine.keys()]);
  if (!order) conflicts.push('order');
  if (conflicts.length > 0) return { conflicts: [...new Set(conflicts)] };
  return {
    plan: { ...now, method: method.value.method, chunks: order!.flatMap((id) => chunks.get(id) ?? []) },
  };
}

/** The order of all names: that of the one who changed it, with what the other added behind what it followed there. */
function mergedOrder(
  was: readonly string[],
  now: readonly string[],
  wanted: readonly string[],
): readonly string[] | undefined {
  const common = was.filter((id) => now.includes(id) && wanted.includes(id));
  const orderIn = (list: readonly string[]): string => list.filter((id) => common.includes(id)).join();
  const [isMine, isTheirs] = [orderIn(wanted) !== orderIn(was), orderIn(now) !== orderIn(was)];
  if (isMine && isTheirs && orderIn(wanted) !== orderIn(now)) return undefined;
  const [base, other] = isMine ? [wanted, now] : [now, wanted];
  const order = [...base];
  for (const [i, id] of other.entries())
    if (!order.includes(id)) order.splice(i === 0 ? 0 : order.indexOf(other[i - 1]!) + 1, 0, id);
  return order;
}
