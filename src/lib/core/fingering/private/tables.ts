/**
 * Costs of coming from one event to the next, for every grip of both, kept by what they depend on: where the keys lie from
 * each other, which are black, which are held. Music makes the same few steps again and again.
 */
import { LRUCache } from 'lru-cache';
import { isOfBooks, isTriple, stepCost, tripleCost, type CostModel } from '../cost';
import type { Event, HeldKey } from './event';
import { FINGERS, type Grip } from '../grips';

interface CostTables {
  /** Cost of the step, at [index of the first grip × number of second grips + index of the second]. */
  step(
    from: Event,
    fromGrips: readonly Grip[],
    to: Event,
    toGrips: readonly Grip[],
    model: CostModel,
  ): Float64Array;
  /** Cost of three single notes, at [25 × (first finger − 1) + 5 × (second − 1) + third − 1]; undefined where there is none. */
  triple(a: Event, b: Event, c: Event, model: CostModel): Float64Array | undefined;
}

/** Steps kept for one kind of hand, and kinds of hands. */
const MOST = 20_000;
const MOST_HANDS = 32;
const byHand = new LRUCache<string, CostTables>({ max: MOST_HANDS });

/** The tables of a hand, by its reach, how still it is to be, and the house's taste in steps. */
export function tablesFor({ reach, steadiness, taste }: CostModel): CostTables {
  const key = `${reach} ${steadiness} ${taste ? taste.factors.join() : ''}`;
  let tables = byHand.get(key);
  if (!tables) {
    tables = makeTables();
    byHand.set(key, tables);
  }
  return tables;
}

function makeTables(): CostTables {
  const steps = new LRUCache<string, Float64Array>({ max: MOST });
  const triples = new LRUCache<number, Float64Array>({ max: MOST });
  return {
    step(from, fromGrips, to, toGrips, model) {
      const books = model.taste && isOfBooks(model, from, to) ? 'u' : '';
      const key = `${books}${fromGrips.length}/${toGrips.length} ${stepKey(from, to, model)}`;
      const isWhole = isAllRising(fromGrips, from) && isAllRising(toGrips, to);
      const known = isWhole ? steps.get(key) : undefined;
      if (known) return known;
      const table = new Float64Array(fromGrips.length * toGrips.length);
      for (let a = 0; a < fromGrips.length; a++)
        for (let b = 0; b < toGrips.length; b++)
          table[a * toGrips.length + b] = stepCost(from, fromGrips[a]!, to, toGrips[b]!, model);
      if (isWhole) steps.set(key, table);
      return table;
    },
    triple(a, b, c, model) {
      if (!isTriple(a, b, c)) return undefined;
      const [ka, kb, kc] = [a.keys[0]!.out, b.keys[0]!.out, c.keys[0]!.out];
      const books = model.taste && isOfBooks(model, a, b, c) ? -1 : 1;
      const key =
        books *
        ((kb - ka + 128) * 100_000 + (kc - kb + 128) * 100 + Math.round(10 * Math.min(b.legato, c.legato)));
      const known = triples.get(key);
      if (known) return known;
      const table = new Float64Array(125);
      for (const fa of FINGERS)
        for (const fb of FINGERS)
          for (const fc of FINGERS)
            table[25 * (fa - 1) + 5 * (fb - 1) + fc - 1] = tripleCost(a, b, c, fa, fb, fc, model);
      triples.set(key, table);
      return table;
    },
  };
}

/** Grips by number of keys where nothing is locked: binomial(5, n). */
const ALL_RISING = [1, 5, 10, 10, 5, 1];
const isAllRising = (grips: readonly Grip[], event: Event): boolean =>
  grips.length === ALL_RISING[event.keys.length];

/** Everything that the cost of a step depends on, apart from the grips. */
function stepKey(from: Event, to: Event, model: CostModel): string {
  const origin = from.keys[0]!.out;
  let name = `${Math.round(100 * to.legato)}${to.slurred ? 's' : ''}${to.quickRepeat ? 'q' : ''}${to.lifts ? 'l' : ''}${to.quick ? 'k' : ''}`;
  for (const key of from.keys) name += keyText(key, origin, model);
  name += '>';
  for (const key of to.keys) {
    name += keyText(key, origin, model);
    if (!key.struck) name += `h${from.keys.findIndex((k) => k.id === key.id)}`;
  }
  return name;
}

function keyText(key: HeldKey, origin: number, { conventions }: CostModel): string {
  const usual = key.isBlack ? conventions?.get(key.id)?.fingers : undefined;
  const turned = usual ? `${usual.includes(1) ? 'u' : ''}${usual.includes(5) ? 'v' : ''}` : '';
  return ` ${key.out - origin}${key.isBlack ? 'b' : ''}${key.struck ? '' : '~'}${turned}`;
}
