/**
 * The least-cost fingering of one hand over a whole line: a best path whose states are pairs of neighbouring grips, so
 * that rules about three events in a row are exact. Where the hand is free to begin anew the line falls into pieces
 * that know nothing of each other; each is solved by itself and kept, so that an edit solves its own phrase again and
 * no other.
 */
import { LRUCache } from 'lru-cache';
import type { SoundingNote } from '../score/query';
import type { Convention } from './private/convention';
import { conventionsOf } from './private/conventions';
import { eventCost, isTriple, newCosts, stepCost, tripleCost, type CostModel, type Costs } from './cost';
import { eventsOf, idsOf, type Event, type HandLine } from './events';
import { gripsFor, type Finger, type Grip } from './grips';
import { spansFor } from './private/spans';
import { tablesFor } from './private/tables';
import { factorsOf, type Taste } from './taste';

export interface FingeringSettings extends HandLine {
  /** Fingers that are decided, by note id. */
  readonly locks: ReadonlyMap<string, Finger>;
  /** 1, or more at levels where the hand should stay in its position. */
  readonly steadiness: number;
  /** Fingers that the same figure has elsewhere, by note id: departing from them costs. */
  readonly usual?: ReadonlyMap<string, Finger>;
  /** The house's hand. */
  readonly taste?: Taste;
  /** Fingers of positions that are kept over whole phrases, by note id. */
  readonly positions?: ReadonlyMap<string, Convention>;
}

/** A piece of a line that is solved by itself. */
export interface Passage {
  readonly events: readonly Event[];
  readonly grips: readonly (readonly Grip[])[];
  readonly model: CostModel;
  readonly path: readonly Grip[];
  readonly cost: number;
}

export interface Fingering {
  /** A finger for every note, by its id. */
  readonly fingers: ReadonlyMap<string, Finger>;
  readonly cost: number;
  readonly phrases: readonly Passage[];
}

/** Fingers a line: every note of `notes` gets one. */
export const fingerLine = (notes: readonly SoundingNote[], settings: FingeringSettings): Fingering =>
  fingerEvents(eventsOf(notes, settings), settings);

/** The same from events that are known already. */
export function fingerEvents(all: readonly Event[], settings: FingeringSettings): Fingering {
  const phrases = phrasesOf(all).map((events) => solvePhrase(events, settings));
  const fingers = new Map<string, Finger>();
  let cost = 0;
  for (const phrase of phrases) {
    cost += phrase.cost;
    phrase.events.forEach((event, i) =>
      event.keys.forEach((key, k) => {
        if (!key.struck) return;
        for (const id of idsOf(key)) fingers.set(id, phrase.path[i]![k]!);
      }),
    );
  }
  return { fingers, cost, phrases };
}

/** Cut where the hand begins anew and holds nothing. */
function phrasesOf(events: readonly Event[]): Event[][] {
  const phrases: Event[][] = [];
  for (const event of events) {
    if (phrases.length === 0 || (event.legato === 0 && event.keys.every((k) => k.struck))) phrases.push([]);
    phrases.at(-1)!.push(event);
  }
  return phrases;
}

/** Best paths of phrases, by what they depend on: a verse that comes again is solved once. */
const MOST_KEPT = 4000;
const kept = new LRUCache<string, Pick<Passage, 'path' | 'cost'>>({ max: MOST_KEPT });

/** Forgets what is known, for measuring. */
export const forgetPhrases = (): void => kept.clear();

function solvePhrase(events: readonly Event[], settings: FingeringSettings): Passage {
  const key = keyOf(events, settings);
  let solved = kept.get(key);
  const setup = setUp(events, settings);
  if (!solved) {
    // What suits without regard to like figures, and keeps to them all the same, is still the best.
    const { usual, ...plain } = settings;
    const free = usual && kept.get(keyOf(events, plain));
    if (free && keepsTo(events, free.path, usual)) solved = free;
    else {
      const path = bestPath(events, setup.grips, setup.model);
      solved = { path, cost: total(costsOf(events, path, setup.model)) };
    }
    kept.set(key, solved);
  }
  const { path, cost } = solved;
  return {
    events,
    path,
    cost,
    get model() {
      return setup.model;
    },
    get grips() {
      return setup.grips;
    },
  };
}

/** A phrase to be solved: its events, their grips and what they cost. */
export const passageOf = (
  events: readonly Event[],
  settings: FingeringSettings,
): Pick<Passage, 'events' | 'grips' | 'model'> => {
  const { grips, model } = setUp(events, settings);
  return { events, grips, model };
};

/** Grips and cost model of a phrase, made when they are needed. */
function setUp(events: readonly Event[], settings: FingeringSettings): Pick<Passage, 'grips' | 'model'> {
  let grips: Passage['grips'] | undefined;
  let model: CostModel | undefined;
  return {
    get grips() {
      return (grips ??= events.map((event) => gripsFor(event, settings.locks)));
    },
    get model() {
      return (model ??= {
        spans: spansFor(settings.reach),
        reach: settings.reach,
        steadiness: settings.steadiness,
        conventions: withPositions(conventionsOf(events, settings.hand), settings.positions),
        ...(settings.usual ? { usual: settings.usual } : {}),
        ...(settings.taste
          ? { taste: { factors: factorsOf(settings.taste), touch: settings.taste.touch } }
          : {}),
      });
    },
  };
}

/** A position that is kept says more than what a run would have. */
const withPositions = (
  conventions: ReadonlyMap<string, Convention>,
  positions: FingeringSettings['positions'],
): ReadonlyMap<string, Convention> => (positions ? new Map([...conventions, ...positions]) : conventions);

/** Whether a path has the usual finger wherever there is one. */
const keepsTo = (
  events: readonly Event[],
  path: readonly Grip[],
  usual: ReadonlyMap<string, Finger>,
): boolean =>
  events.every((event, i) =>
    event.keys.every((key, k) => !key.struck || (usual.get(key.id) ?? path[i]![k]) === path[i]![k]),
  );

/** Everything that the fingering of a phrase depends on; ids only in so far as they tie a held key to its stroke. */
function keyOf(
  events: readonly Event[],
  { hand, reach, steadiness, locks, usual, positions, taste }: FingeringSettings,
): string {
  let key = `${hand} ${reach} ${steadiness}${taste ? JSON.stringify(taste) : ''}`;
  for (let i = 0; i < events.length; i++) {
    const event = events[i]!;
    key += `|${event.legato}${event.quickRepeat ? 'q' : ''}${event.slurred ? 's' : ''}${event.lifts ? 'l' : ''}${event.quick ? 'k' : ''}`;
    for (const heldKey of event.keys) {
      const { id, midi, struck } = heldKey;
      key += struck ? ` ${midi}` : `~${midi}h${events[i - 1]?.keys.findIndex((k) => k.id === id)}`;
      const like = usual?.get(id);
      for (const own of idsOf(heldKey)) {
        const lock = locks.get(own);
        if (lock) key += `=${lock}`;
      }
      if (like) key += `/${like}`;
      const kept = positions?.get(id);
      if (kept) key += `p${kept.fingers.join('')}`;
    }
  }
  return key;
}

export const total = (costs: Costs): number => costs.reduce((a, b) => a + b, 0);

/** The cost by rule of a given path; the solver's result costs exactly this. */
export function costsOf(events: readonly Event[], path: readonly Grip[], model: CostModel): Costs {
  const costs = newCosts();
  events.forEach((_, i) => addCostsAt(costs, events, path, model, i));
  return costs;
}

/** The costs that arise with each event of a path: its own, of coming to it, and of the two before. */
export const costsByEvent = (events: readonly Event[], path: readonly Grip[], model: CostModel): Costs[] =>
  events.map((_, i) => {
    const costs = newCosts();
    addCostsAt(costs, events, path, model, i);
    return costs;
  });

function addCostsAt(
  costs: Costs,
  events: readonly Event[],
  path: readonly Grip[],
  model: CostModel,
  i: number,
): void {
  const event = events[i]!;
  eventCost(event, path[i]!, model, costs);
  if (i > 0) stepCost(events[i - 1]!, path[i - 1]!, event, path[i]!, model, costs);
  if (i > 1 && isTriple(events[i - 2]!, events[i - 1]!, event))
    tripleCost(
      events[i - 2]!,
      events[i - 1]!,
      event,
      path[i - 2]![0]!,
      path[i - 1]![0]!,
      path[i]![0]!,
      model,
      costs,
    );
}

/** The cheapest choice of one grip per event. */
export function bestPath(
  events: readonly Event[],
  grips: readonly (readonly Grip[])[],
  model: CostModel,
): Grip[] {
  if (events.length === 0) return [];
  const tables = tablesFor(model);
  const own = events.map((event, i) => grips[i]!.map((grip) => eventCost(event, grip, model)));
  /** The first finger of each grip, from 0: all there is where a single key is struck. */
  const fingers = grips.map((list) => Uint8Array.from(list, (grip) => grip[0]! - 1));
  /** best[a * size + b]: least cost up to event i with grip a at i − 1 and b at i; for the first event a is 0. */
  let best = Float64Array.from(own[0]!);
  let before = 1;
  const cameFrom: Uint16Array[] = [];
  for (let i = 1; i < events.length; i++) {
    const [second, third] = [grips[i - 1]!, grips[i]!];
    const [bs, cs] = [second.length, third.length];
    const triple = i > 1 ? tables.triple(events[i - 2]!, events[i - 1]!, events[i]!, model) : undefined;
    const steps = tables.step(events[i - 1]!, second, events[i]!, third, model);
    const here = own[i]!;
    const next = new Float64Array(bs * cs);
    const back = new Uint16Array(bs * cs);
    for (let b = 0; b < bs; b++) {
      // Without rules over three events the way to b does not depend on what follows.
      let least = Infinity;
      let from = 0;
      if (!triple)
        for (let a = 0; a < before; a++)
          if (best[a * bs + b]! < least) {
            least = best[a * bs + b]!;
            from = a;
          }
      for (let c = 0; c < cs; c++) {
        if (triple) {
          const first = fingers[i - 2]!;
          const at = 5 * fingers[i - 1]![b]! + fingers[i]![c]!;
          least = Infinity;
          for (let a = 0; a < before; a++) {
            const cost = best[a * bs + b]! + triple[25 * first[a]! + at]!;
            if (cost < least) {
              least = cost;
              from = a;
            }
          }
        }
        next[b * cs + c] = least + steps[b * cs + c]! + here[c]!;
        back[b * cs + c] = from;
      }
    }
    cameFrom.push(back);
    best = next;
    before = bs;
  }
  let at = 0;
  for (let state = 1; state < best.length; state++) if (best[state]! < best[at]!) at = state;
  const path: Grip[] = new Array<Grip>(events.length);
  for (let i = events.length - 1; i >= 0; i--) {
    const size = grips[i]!.length;
    path[i] = grips[i]![at % size]!;
    if (i === 0) break;
    const b = Math.floor(at / size);
    at = cameFrom[i - 1]![at]! * grips[i - 1]!.length + b;
  }
  return path;
}
