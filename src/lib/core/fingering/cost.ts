/**
 * What a fingering costs, rule by rule. The rules for single lines follow Parncutt, Sloboda, Clarke, Raekallio and
 * Desain (1997); chords and held notes extend them: between two events every finger of the one is weighed against
 * every finger of the other, and the mean counts.
 */
import { isBlackKey } from '../score/pitch';
import type { Event, Finger, Grip, HeldKey } from './grips';
import type { Span } from './spans';

export const RULES = [
  'stretch',
  'cramped',
  'wide',
  'move',
  'far-move',
  'weak',
  'three-four',
  'three-four-five',
  'black-thumb',
  'black-fifth',
  'four-on-black',
  'pass',
  'cross',
  'same-finger',
  'change-on-repeat',
  'chord-shape',
  'let-go',
  'same-figure',
] as const;

export type Rule = (typeof RULES)[number];

/** Costs by rule, in the order of RULES. */
export type Costs = Float64Array;

const AT: Readonly<Record<Rule, number>> = Object.fromEntries(RULES.map((r, i) => [r, i])) as Record<
  Rule,
  number
>;

export const newCosts = (): Costs => new Float64Array(RULES.length);

export interface CostModel {
  readonly spans: (low: number, high: number) => Span;
  /** Weight of moving the hand: above 1 where the level wants the hand to stay. */
  readonly steadiness: number;
  /** Fingers that the same figure has elsewhere, by note id. */
  readonly usual?: ReadonlyMap<string, Finger>;
}

/** A finger that departs from how the same figure is fingered elsewhere. */
const OTHER_THAN_FIGURE = 4;

/** What an event costs by itself. */
export function addEventCost(costs: Costs, event: Event, grip: Grip, model: CostModel): void {
  const { keys } = event;
  if (model.usual)
    for (let i = 0; i < keys.length; i++) {
      const usual = keys[i]!.struck ? model.usual.get(keys[i]!.id) : undefined;
      if (usual && usual !== grip[i]) costs[AT['same-figure']]! += OTHER_THAN_FIGURE / struckCount(event);
    }
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    if (!key.struck) continue;
    if (grip[i]! >= 4) costs[AT.weak]! += (grip[i] === 4 ? 0.9 : 0.5) / struckCount(event);
    if (isBlackKey(key.midi)) {
      if (grip[i] === 1) costs[AT['black-thumb']]! += 1;
      if (grip[i] === 5) costs[AT['black-fifth']]! += 0.8;
    }
  }
  if (keys.length < 2) return;
  // The usual shape has a finger to each letter: a third 1-3, a fifth 1-5, anything wider 1-5 as well.
  const letters = Math.min(4, Math.round(((keys.at(-1)!.out - keys[0]!.out) * 7) / 12));
  costs[AT['chord-shape']]! += 0.6 * Math.abs(grip.at(-1)! - grip[0]! - letters);
  // A chord is held in one shape: neighbours and the whole hand must lie within reach.
  for (let i = 0; i < keys.length; i++)
    for (let j = i + 1; j < keys.length; j++) {
      const distance = keys[j]!.out - keys[i]!.out;
      const [low, high] = [grip[i]!, grip[j]!];
      if (low >= high) {
        costs[AT['chord-shape']]! += 30;
        continue;
      }
      const span = model.spans(low, high);
      const neighbour = j === i + 1;
      const weight = neighbour ? 1 : 0.5;
      if (distance > span.maxPractical) costs[AT.stretch]! += 12 + 6 * (distance - span.maxPractical);
      if (distance > span.maxComfortable) costs[AT.stretch]! += 2 * weight * (distance - span.maxComfortable);
      if (distance > span.maxRelaxed) costs[AT.wide]! += 0.8 * weight * (distance - span.maxRelaxed);
      if (distance < span.minRelaxed) costs[AT.cramped]! += 0.9 * weight * (span.minRelaxed - distance);
    }
}

const struckCount = (event: Event): number => event.keys.reduce((n, k) => n + (k.struck ? 1 : 0), 0);

/** What it costs to come from one event to the next. */
export function addStepCost(
  costs: Costs,
  from: Event,
  fromGrip: Grip,
  to: Event,
  toGrip: Grip,
  model: CostModel,
): void {
  // A held key keeps its finger; changing it silently is an art for later levels.
  for (let j = 0; j < to.keys.length; j++) {
    const key = to.keys[j]!;
    if (key.struck) continue;
    const i = from.keys.findIndex((k) => k.id === key.id);
    if (i >= 0 && fromGrip[i] !== toGrip[j]) costs[AT['let-go']]! += 25;
  }
  if (from.keys.length > 1 && struckCount(to) > 1) {
    // From chord to chord the hand lifts and takes its next shape: how far it goes is what counts, and a chord that
    // comes again keeps its fingers.
    costs[AT['far-move']]! += 0.15 * Math.abs(centre(to.keys) - centre(from.keys)) * to.bond;
    if (sameKeys(from.keys, to.keys))
      costs[AT['change-on-repeat']]! += repeatedKeyCost(from, fromGrip, to, toGrip) * to.bond;
    return;
  }
  const weight = to.bond / (from.keys.length * struckCount(to));
  for (let i = 0; i < from.keys.length; i++)
    for (let j = 0; j < to.keys.length; j++)
      if (to.keys[j]!.struck)
        addPairCost(costs, from.keys[i]!, fromGrip[i]!, to.keys[j]!, toGrip[j]!, weight, model);
  costs[AT['change-on-repeat']]! += repeatedKeyCost(from, fromGrip, to, toGrip) * to.bond;
}

const centre = (keys: readonly HeldKey[]): number => keys.reduce((sum, k) => sum + k.out, 0) / keys.length;

const sameKeys = (a: readonly HeldKey[], b: readonly HeldKey[]): boolean =>
  a.length === b.length && a.every((key, i) => key.midi === b[i]!.midi);

/** A key struck again keeps its finger, unless the rest of the hand must move. */
function repeatedKeyCost(from: Event, fromGrip: Grip, to: Event, toGrip: Grip): number {
  let cost = 0;
  for (let j = 0; j < to.keys.length; j++) {
    if (!to.keys[j]!.struck) continue;
    const i = from.keys.findIndex((k) => k.midi === to.keys[j]!.midi);
    if (i >= 0 && fromGrip[i] !== toGrip[j]) cost += 3;
  }
  return cost;
}

function addPairCost(
  costs: Costs,
  a: HeldKey,
  fa: Finger,
  b: HeldKey,
  fb: Finger,
  weight: number,
  model: CostModel,
): void {
  if (a.midi === b.midi) return;
  if (fa === fb) {
    // One finger on two keys in a row cannot join them.
    const distance = Math.abs(b.out - a.out);
    costs[AT['same-finger']]! += weight * (9 + Math.min(6, 0.5 * distance));
    return;
  }
  const rising = fa < fb;
  const [low, high] = rising ? [fa, fb] : [fb, fa];
  const distance = rising ? b.out - a.out : a.out - b.out;
  const span = model.spans(low, high);
  const thumb = low === 1;
  if (distance > span.maxPractical) costs[AT.stretch]! += weight * (8 + 2 * (distance - span.maxPractical));
  if (distance > span.maxComfortable) costs[AT.stretch]! += weight * (2 * (distance - span.maxComfortable));
  if (distance > span.maxRelaxed)
    costs[AT.wide]! += weight * ((thumb ? 1 : 2) * (distance - span.maxRelaxed));
  if (!thumb && distance < 1) {
    costs[AT.cross]! += weight * (12 + 2 * (1 - distance));
    return;
  }
  if (thumb && distance < 0) {
    // The thumb passes under, or a finger over it.
    const thumbKey = rising ? a : b;
    const fingerKey = rising ? b : a;
    const thumbOnBlack = isBlackKey(thumbKey.midi);
    const fingerOnBlack = isBlackKey(fingerKey.midi);
    costs[AT.pass]! += weight * (high === 5 ? 10 : high === 2 ? 4.2 : 3.5);
    if (thumbOnBlack) costs[AT.pass]! += weight * (fingerOnBlack ? 2 : 4);
    else if (fingerOnBlack) costs[AT.pass]! -= weight * 0.8; // the easiest way: from a black key to a white one
    costs[AT.pass]! +=
      weight * (1.2 * Math.max(0, -distance - 2) + 4 * Math.max(0, span.minPractical - distance));
    costs[AT.move]! += weight * 2.5 * (model.steadiness - 1);
    return;
  }
  if (distance < span.minRelaxed)
    costs[AT.cramped]! += weight * ((thumb ? 1 : 2) * (span.minRelaxed - distance));
  if (low === 3 && high === 4) {
    costs[AT['three-four']]! += weight * 0.4;
    const [three, four] = rising ? [a, b] : [b, a];
    if (!isBlackKey(three.midi) && isBlackKey(four.midi)) costs[AT['four-on-black']]! += weight * 1;
  }
  // The thumb or little finger on a black key next to a white one turns the hand in.
  if (fb === 1 && isBlackKey(b.midi) && !isBlackKey(a.midi)) costs[AT['black-thumb']]! += weight * 2;
  if (fa === 1 && isBlackKey(a.midi) && !isBlackKey(b.midi)) costs[AT['black-thumb']]! += weight * 2;
  if (fb === 5 && isBlackKey(b.midi) && !isBlackKey(a.midi)) costs[AT['black-fifth']]! += weight * 1.5;
  if (fa === 5 && isBlackKey(a.midi) && !isBlackKey(b.midi)) costs[AT['black-fifth']]! += weight * 1.5;
}

/** What three events in a row cost together: moves of the hand, and 3-4-5 one after another. Single notes only. */
export function addTripleCost(
  costs: Costs,
  events: readonly [Event, Event, Event],
  grips: readonly [Grip, Grip, Grip],
  model: CostModel,
): void {
  const [a, b, c] = events;
  if (a.keys.length !== 1 || b.keys.length !== 1 || c.keys.length !== 1) return;
  const [fa, fb, fc] = [grips[0][0]!, grips[1][0]!, grips[2][0]!];
  const [ka, kb, kc] = [a.keys[0]!, b.keys[0]!, c.keys[0]!];
  const bond = Math.min(b.bond, c.bond);
  if (fa >= 3 && fb >= 3 && fc >= 3 && fa !== fb && fb !== fc && fa !== fc)
    costs[AT['three-four-five']]! += 0.5 * bond;
  if (fa === fc) {
    if (ka.midi !== kc.midi) costs[AT.move]! += 1.6 * model.steadiness * bond;
    return;
  }
  const rising = fa < fc;
  const distance = rising ? kc.out - ka.out : ka.out - kc.out;
  const span = model.spans(rising ? fa : fc, rising ? fc : fa);
  const beyond =
    distance > span.maxComfortable
      ? distance - span.maxComfortable
      : distance < span.minComfortable
        ? span.minComfortable - distance
        : 0;
  if (beyond === 0) {
    // Still in one position: the better the outer two fingers fit their keys, the stiller the hand.
    const off = Math.max(0, distance - span.maxRelaxed, span.minRelaxed - distance);
    costs[AT.cramped]! += 0.3 * off * bond;
    return;
  }
  const outOfReach = distance > span.maxPractical || distance < span.minPractical;
  const between = (kb.out - ka.out) * (kc.out - kb.out) > 0;
  costs[AT.move]! += (fb === 1 && between && outOfReach ? 2 : 1) * 0.7 * model.steadiness * bond;
  costs[AT['far-move']]! += 0.35 * Math.min(beyond, 8) * model.steadiness * bond;
  // A key that comes back under another finger.
  if (ka.midi === kc.midi) costs[AT.move]! += 1.2 * model.steadiness * bond;
}
