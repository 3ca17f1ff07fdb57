/**
 * The cheapest way through a line of steps, of which each is in one of a few states: what a state costs in a step, and what it costs to go over
 * from one to another (Viterbi's algorithm). Of equals the way that stays is taken, then the first.
 */

/**
 * The state of each step. `own[step][state]` is what a state costs there; `change` what it costs to come into a step from another state; no
 * change costs less than `least`, so that what could not win is not weighed. Every step has the same states; empty without steps.
 */
export function cheapestPath(
  own: readonly (readonly number[])[],
  change: (from: number, to: number, step: number) => number,
  least = 0,
): number[] {
  const [first] = own;
  if (!first) return [];
  let totals = [...first];
  const back: number[][] = [];
  for (let step = 1; step < own.length; step++) {
    const before = totals;
    const from: number[] = [];
    totals = own[step]!.map((cost, to) => {
      let best = to;
      let sum = before[to]! + change(to, to, step);
      before.forEach((total, k) => {
        if (k === to || total + least >= sum) return;
        const other = total + change(k, to, step);
        if (other < sum) [best, sum] = [k, other];
      });
      from.push(best);
      return sum + cost;
    });
    back.push(from);
  }
  let at = totals.indexOf(Math.min(...totals));
  const path = [at];
  for (let i = back.length - 1; i >= 0; i--) {
    at = back[i]![at]!;
    path.unshift(at);
  }
  return path;
}
