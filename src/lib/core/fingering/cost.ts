/**
 * What a fingering costs, rule by rule. The rules for single lines follow Parncutt, Sloboda, Clarke, Raekallio and
 * Desain, "An Ergonomic Model of Keyboard Fingering for Melodic Fragments" (Music Perception 14, 1997); chords and held
 * notes extend them: between two events every finger that is set free is weighed against every finger that strikes.
 *
 * Every function returns the total and, where `into` is given, adds each rule's share to it: the solver needs the first,
 * reasons the second, and there is one truth.
 */
import type { Convention } from './private/convention';
import type { Event, HeldKey } from './private/event';
import type { Finger, Grip } from './grips';
import { lettersBetween, struckShape } from './shapes';
import type { Span } from './private/spans';

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
  'quick-repeat',
  'chord-shape',
  'let-go',
  'convention',
  'same-figure',
  'touch',
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
  /** Semitones that the hand holds. */
  readonly reach: number;
  /** Weight of moving the hand: above 1 where the level wants the hand to stay. */
  readonly steadiness: number;
  /** Fingers that method books give a run, by note id. */
  readonly conventions?: ReadonlyMap<string, Convention>;
  /** Fingers that the same figure has elsewhere, by note id. */
  readonly usual?: ReadonlyMap<string, Finger>;
  /** The house's hand: factors in the order of RULES, and what each finger costs on white and black keys. */
  readonly taste?: { readonly factors: Float64Array; readonly touch: readonly number[] };
}

/** A finger that departs from how the same figure is fingered elsewhere. */
const OTHER_THAN_FIGURE = 4;

/** What has been charged so far, and by which rules where anyone asks. */
interface Bill {
  total: number;
  readonly byRule: Costs | undefined;
  readonly factors: Float64Array | undefined;
}

/** A bill for up to three events that follow one another; taste has no say where all of them have fingers from method books. */
const newBill = (model: CostModel, byRule: Costs | undefined, a: Event, b = a, c = b): Bill => ({
  total: 0,
  byRule,
  factors: model.taste && !isOfBooks(model, a, b, c) ? model.taste.factors : undefined,
});

/** Whether everything that is struck has fingers from method books. */
export const isOfBooks = ({ conventions }: CostModel, ...events: readonly Event[]): boolean =>
  events.every(({ keys }) => keys.every((k) => k.struck && conventions?.has(k.id)));

/** Place of a finger on a colour in `taste.touch`. */
export const touchAt = (finger: Finger, isBlack: boolean): number => finger - 1 + (isBlack ? 5 : 0);

function charge(bill: Bill, rule: Rule, plain: number): void {
  const cost = bill.factors ? plain * bill.factors[AT[rule]]! : plain;
  bill.total += cost;
  if (bill.byRule) bill.byRule[AT[rule]]! += cost;
}

/** What an event costs by itself. */
export function eventCost(event: Event, grip: Grip, model: CostModel, into?: Costs): number {
  const { keys } = event;
  const bill = newBill(model, into, event);
  const struck = struckCount(event);
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    if (!key.struck) continue;
    const finger = grip[i]!;
    const usual = model.usual?.get(key.id);
    if (usual && usual !== finger) charge(bill, 'same-figure', OTHER_THAN_FIGURE / struck);
    const convention = model.conventions?.get(key.id);
    if (convention && !convention.fingers.includes(finger))
      charge(bill, 'convention', convention.weight * model.steadiness);
    // What books have, and how chords lie, is no matter of liking.
    const liking = convention || keys.length > 1 ? 0 : model.taste?.touch[touchAt(finger, key.isBlack)];
    if (liking) charge(bill, 'touch', liking);
    // In a quick repetition each finger strikes but once.
    if (finger >= 4 && !event.quickRepeat) charge(bill, 'weak', (finger === 4 ? 0.9 : 0.5) / struck);
    // Where books put the thumb on a black key, the hand lies there already.
    if (key.isBlack && !convention?.fingers.includes(finger)) {
      if (finger === 1) charge(bill, 'black-thumb', keys.length > 1 ? 0.4 : 1);
      if (finger === 5) charge(bill, 'black-fifth', keys.length > 1 ? 0.3 : 0.8);
    }
  }
  if (keys.length > 1) holdCost(event, grip, model, bill);
  return bill.total;
}

/** A chord is held in one shape: neighbours and the whole hand must lie within reach. */
function holdCost({ keys }: Event, grip: Grip, model: CostModel, bill: Bill): void {
  charge(bill, 'chord-shape', shapeCost(keys, grip));
  for (let i = 0; i < keys.length; i++)
    for (let j = i + 1; j < keys.length; j++) {
      const distance = keys[j]!.out - keys[i]!.out;
      const [low, high] = [grip[i]!, grip[j]!];
      if (low >= high) {
        charge(bill, 'chord-shape', 30);
        continue;
      }
      const span = model.spans(low, high);
      const weight = j === i + 1 ? 1 : 0.5;
      if (distance > span.maxPractical) charge(bill, 'stretch', 12 + 6 * (distance - span.maxPractical));
      if (distance > span.maxComfortable)
        charge(bill, 'stretch', 2 * weight * (distance - span.maxComfortable));
      if (distance > span.maxRelaxed) charge(bill, 'wide', 0.8 * weight * (distance - span.maxRelaxed));
      if (distance < span.minRelaxed) charge(bill, 'cramped', 0.9 * weight * (span.minRelaxed - distance));
    }
}

/** For a finger that lies beside the usual one; twice for one further off. */
const OTHER_SHAPE = 1.6;

/** For two keys, a fourth or more apart, without the thumb. */
const NO_THUMB = 0.3;

const sumOf = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

function shapeCost(keys: readonly HeldKey[], grip: Grip): number {
  const usual = struckShape(keys.map((k) => k.out));
  if (usual) return OTHER_SHAPE * sumOf(grip.map((finger, i) => Math.min(2, Math.abs(finger - usual[i]!))));
  // Otherwise a finger to each letter: a third 1-3, a fifth 1-5, anything wider 1-5 as well; from a fourth on with the thumb.
  const letters = Math.min(4, lettersBetween(keys[0]!.out, keys.at(-1)!.out));
  return 0.6 * Math.abs(grip.at(-1)! - grip[0]! - letters) + (letters > 2 && grip[0] !== 1 ? NO_THUMB : 0);
}

const struckCount = (event: Event): number => {
  let count = 0;
  for (const key of event.keys) if (key.struck) count += 1;
  return count;
};

/** A semitone's way of a hand that lifts. */
const FAR = 0.15;

/** Semitones, a major sixth: from there on another finger of a lifted hand lies nearer to a single key than the one just used. */
const LEAP = 9;
/** More than the fingers of a figure are worth, where there is no time to carry one finger so far. */
const LEAP_COST = 7;

const leapsOnOneFinger = (from: Event, fromGrip: Grip, to: Event, toGrip: Grip): boolean =>
  from.keys.length === 1 &&
  to.keys.length === 1 &&
  fromGrip[0] === toGrip[0] &&
  Math.abs(to.keys[0]!.midi - from.keys[0]!.midi) >= LEAP;

/** What it costs to come from one event to the next. */
export function stepCost(
  from: Event,
  fromGrip: Grip,
  to: Event,
  toGrip: Grip,
  model: CostModel,
  into?: Costs,
): number {
  const bill = newBill(model, into, from, to);
  // A held key keeps its finger; changing it silently is an art for later levels.
  for (let j = 0; j < to.keys.length; j++) {
    if (to.keys[j]!.struck) continue;
    const i = placeOf(from.keys, to.keys[j]!.id);
    if (i >= 0 && fromGrip[i] !== toGrip[j]) charge(bill, 'let-go', 25);
  }
  if (to.legato === 0) return bill.total;
  if (to.lifts || isOutOfReach(from, to, model)) {
    charge(bill, 'far-move', FAR * Math.abs(centre(to.keys) - centre(from.keys)) * to.legato);
    if (to.quick && leapsOnOneFinger(from, fromGrip, to, toGrip)) charge(bill, 'same-finger', LEAP_COST);
    return bill.total;
  }
  const struck = struckCount(to);
  const repeated = repeatedKeys(from, fromGrip, to, toGrip);
  if (from.keys.length > 1 && struck > 1) {
    // From chord to chord the hand lifts and takes its next shape: how far it goes is what counts, and a chord that
    // comes again keeps its fingers.
    charge(bill, 'far-move', FAR * Math.abs(centre(to.keys) - centre(from.keys)) * to.legato);
    if (sameKeys(from.keys, to.keys)) charge(bill, 'change-on-repeat', repeated * to.legato);
    else if (isDoubleLine(from, to)) joinLines(from, fromGrip, to, toGrip, model, bill);
    else if (to.slurred) joinTops(from, fromGrip, to, toGrip, bill);
    return bill.total;
  }
  if (to.quickRepeat) charge(bill, 'quick-repeat', quickRepeatCost(fromGrip[0]!, toGrip[0]!));
  else charge(bill, 'change-on-repeat', repeated * to.legato);
  // Keys that are held on have their fingers; those that are let go lead to those that are struck.
  let free = 0;
  for (const key of from.keys) if (!isHeldIn(to, key.id)) free += 1;
  if (free === 0) return bill.total;
  const nearest = nearestPair(from, to);
  const pairs = free * struck;
  for (let i = 0; i < from.keys.length; i++) {
    if (isHeldIn(to, from.keys[i]!.id)) continue;
    for (let j = 0; j < to.keys.length; j++)
      if (to.keys[j]!.struck) {
        const isNearest = nearest?.[0] === i && nearest[1] === j;
        const share = !nearest ? 1 / pairs : isNearest ? NEAREST_SHARE : (1 - NEAREST_SHARE) / (pairs - 1);
        pairCost(from.keys[i]!, fromGrip[i]!, to.keys[j]!, toGrip[j]!, to.legato * share, model, bill);
      }
  }
  return bill.total;
}

/** Of what leads from a chord to a note, or from a note to a chord, the neighbours decide: a finger there must be free. */
const NEAREST_SHARE = 0.8;

/** Indices of the two keys that lie nearest to each other, between a chord and a single key where nothing is held. */
function nearestPair(from: Event, to: Event): readonly [number, number] | undefined {
  if (!isChordAndNote(from, to)) return undefined;
  let best: readonly [number, number] = [0, 0];
  let least = Infinity;
  for (let i = 0; i < from.keys.length; i++)
    for (let j = 0; j < to.keys.length; j++) {
      const distance = Math.abs(from.keys[i]!.out - to.keys[j]!.out);
      if (distance < least) {
        least = distance;
        best = [i, j];
      }
    }
  return best;
}

/** A chord and a note too far away to lie under one hand: it lifts and goes there, and owes no legato. */
function isOutOfReach(from: Event, to: Event, model: CostModel): boolean {
  if (!isChordAndNote(from, to)) return false;
  const low = Math.min(from.keys[0]!.out, to.keys[0]!.out);
  const high = Math.max(from.keys.at(-1)!.out, to.keys.at(-1)!.out);
  return high - low > model.reach;
}

const isChordAndNote = (from: Event, to: Event): boolean =>
  (from.keys.length === 1) !== (to.keys.length === 1) &&
  from.keys.every((k) => k.struck) &&
  to.keys.every((k) => k.struck);

/** Wider than a fourth, two voices are two outer fingers. */
const WIDEST_JOINED = 5;

/** On a key that is struck again quickly fingers come one after another towards the thumb: 4 3 2 1. */
const quickRepeatCost = (before: Finger, finger: Finger): number =>
  before === finger ? 3 : finger === before - 1 ? 0 : 0.8;

/** Two voices that go on by step, as in a passage in thirds. */
const isDoubleLine = (from: Event, to: Event): boolean =>
  from.keys.length === 2 &&
  to.keys.length === 2 &&
  to.legato === 1 &&
  [from, to].every((event) => event.keys[1]!.out - event.keys[0]!.out <= WIDEST_JOINED) &&
  [0, 1].every((i) => to.keys[i]!.struck && Math.abs(to.keys[i]!.midi - from.keys[i]!.midi) <= 2);

/** Each voice is joined as well as two voices in one hand can be. */
const DOUBLE_WEIGHT = 0.3;

function joinLines(from: Event, fromGrip: Grip, to: Event, toGrip: Grip, model: CostModel, bill: Bill): void {
  for (const i of [0, 1])
    pairCost(from.keys[i]!, fromGrip[i]!, to.keys[i]!, toGrip[i]!, DOUBLE_WEIGHT, model, bill);
}

/** Slurred chords sing in their outer voice: its finger is not the same on another key. */
function joinTops(from: Event, fromGrip: Grip, to: Event, toGrip: Grip, bill: Bill): void {
  const [a, b] = [from.keys.at(-1)!, to.keys.at(-1)!];
  if (a.midi !== b.midi && fromGrip.at(-1) === toGrip.at(-1)) charge(bill, 'same-finger', 0.8);
}

function placeOf(keys: readonly HeldKey[], id: string): number {
  for (let i = 0; i < keys.length; i++) if (keys[i]!.id === id) return i;
  return -1;
}

function isHeldIn(event: Event, id: string): boolean {
  const i = placeOf(event.keys, id);
  return i >= 0 && !event.keys[i]!.struck;
}

const centre = (keys: readonly HeldKey[]): number => {
  let sum = 0;
  for (const key of keys) sum += key.out;
  return sum / keys.length;
};

const sameKeys = (a: readonly HeldKey[], b: readonly HeldKey[]): boolean =>
  a.length === b.length && a.every((key, i) => key.midi === b[i]!.midi);

/** A key struck again keeps its finger, unless the rest of the hand must move. */
function repeatedKeys(from: Event, fromGrip: Grip, to: Event, toGrip: Grip): number {
  let cost = 0;
  for (let j = 0; j < to.keys.length; j++) {
    if (!to.keys[j]!.struck) continue;
    for (let i = 0; i < from.keys.length; i++)
      if (from.keys[i]!.midi === to.keys[j]!.midi && fromGrip[i] !== toGrip[j]) cost += 3;
  }
  return cost;
}

const isUsual = (key: HeldKey, finger: Finger, { conventions }: CostModel): boolean =>
  conventions?.get(key.id)?.fingers.includes(finger) ?? false;

/** One key after another under two fingers. */
function pairCost(
  a: HeldKey,
  fa: Finger,
  b: HeldKey,
  fb: Finger,
  weight: number,
  model: CostModel,
  bill: Bill,
): void {
  if (a.midi === b.midi) return;
  if (fa === fb) {
    // One finger on two keys in a row cannot join them.
    const distance = Math.abs(b.out - a.out);
    charge(bill, 'same-finger', weight * (11 + Math.min(11, distance)));
    return;
  }
  const rising = fa < fb;
  const [low, high] = rising ? [fa, fb] : [fb, fa];
  const distance = rising ? b.out - a.out : a.out - b.out;
  const span = model.spans(low, high);
  const thumb = low === 1;
  // Wider than the fingers open, the hand goes along: a leap costs, but no more for being a stretch as well.
  if (distance > span.maxRelaxed)
    charge(
      bill,
      'wide',
      weight * ((thumb ? 1 : 2) * (Math.min(distance, span.maxComfortable) - span.maxRelaxed)),
    );
  if (distance > span.maxComfortable)
    charge(bill, 'stretch', weight * (2 * (Math.min(distance, span.maxPractical) - span.maxComfortable)));
  if (distance > span.maxPractical)
    charge(bill, 'stretch', weight * (4 + Math.min(8, 1.2 * (distance - span.maxPractical))));
  if (!thumb && distance < 1) {
    charge(bill, 'cross', weight * (12 + 2 * (1 - distance)));
    return;
  }
  if (thumb && distance < 0) {
    // The thumb passes under, or a finger over it.
    const [thumbKey, fingerKey] = rising ? [a, b] : [b, a];
    charge(bill, 'pass', weight * (high === 5 ? 10 : high === 2 ? 4.2 : 3.5));
    if (thumbKey.isBlack) charge(bill, 'pass', weight * (fingerKey.isBlack ? 2 : 4));
    // The easiest way: from a black key to a white one.
    else if (fingerKey.isBlack) charge(bill, 'pass', -weight * 0.8);
    charge(
      bill,
      'pass',
      weight * (1.2 * Math.max(0, -distance - 2) + 4 * Math.max(0, span.minPractical - distance)),
    );
    charge(bill, 'move', weight * 2.5 * (model.steadiness - 1));
    return;
  }
  if (distance < span.minRelaxed)
    charge(bill, 'cramped', weight * ((thumb ? 1 : 2) * (span.minRelaxed - distance)));
  if (low === 3 && high === 4) {
    charge(bill, 'three-four', weight * 0.4);
    const [three, four] = rising ? [a, b] : [b, a];
    if (!three.isBlack && four.isBlack) charge(bill, 'four-on-black', weight * 1);
  }
  // The thumb or little finger on a black key next to a white one turns the hand in.
  if (b.isBlack && !a.isBlack && !isUsual(b, fb, model)) {
    if (fb === 1) charge(bill, 'black-thumb', weight * 2);
    if (fb === 5) charge(bill, 'black-fifth', weight * 1.5);
  } else if (a.isBlack && !b.isBlack && !isUsual(a, fa, model)) {
    if (fa === 1) charge(bill, 'black-thumb', weight * 2);
    if (fa === 5) charge(bill, 'black-fifth', weight * 1.5);
  }
}

/** Whether the rules over three events have a say: single notes only, all of them joined. */
export const isTriple = (a: Event, b: Event, c: Event): boolean =>
  a.keys.length === 1 &&
  b.keys.length === 1 &&
  c.keys.length === 1 &&
  b.legato > 0 &&
  c.legato > 0 &&
  !b.lifts &&
  !c.lifts &&
  !c.quickRepeat;

/** What three single notes in a row cost together: moves of the hand, and 3-4-5 one after another. */
export function tripleCost(
  a: Event,
  b: Event,
  c: Event,
  fa: Finger,
  fb: Finger,
  fc: Finger,
  model: CostModel,
  into?: Costs,
): number {
  const bill = newBill(model, into, a, b, c);
  const [ka, kb, kc] = [a.keys[0]!, b.keys[0]!, c.keys[0]!];
  const legato = Math.min(b.legato, c.legato);
  if (fa >= 3 && fb >= 3 && fc >= 3 && fa !== fb && fb !== fc && fa !== fc)
    charge(bill, 'three-four-five', 0.5 * legato);
  if (fa === fc) {
    if (ka.midi !== kc.midi) charge(bill, 'move', 1.6 * model.steadiness * legato);
    return bill.total;
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
    charge(bill, 'cramped', 0.3 * off * legato);
    return bill.total;
  }
  const outOfReach = distance > span.maxPractical || distance < span.minPractical;
  const between = (kb.out - ka.out) * (kc.out - kb.out) > 0;
  charge(bill, 'move', (fb === 1 && between && outOfReach ? 2 : 1) * 0.7 * model.steadiness * legato);
  charge(bill, 'far-move', 0.35 * Math.min(beyond, 8) * model.steadiness * legato);
  // A key that comes back under another finger.
  if (ka.midi === kc.midi) charge(bill, 'move', 1.2 * model.steadiness * legato);
  return bill.total;
}
