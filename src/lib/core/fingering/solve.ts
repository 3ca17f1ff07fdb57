/**
 * The least-cost fingering of one hand over a whole line: a best path whose states are pairs of neighbouring grips,
 * so that rules about three events in a row are exact.
 */
import type { SoundingNote } from '../score/query';
import type { Ticks } from '../score/ticks';
import { addEventCost, addStepCost, addTripleCost, newCosts, type CostModel, type Costs } from './cost';
import { eventsOf, gripsFor, type Event, type Finger, type Grip, type Hand } from './grips';
import { spansFor } from './spans';

export interface FingeringSettings {
  readonly hand: Hand;
  /** Semitones the hand holds. */
  readonly reach: number;
  /** Fingers that are decided, by note id. */
  readonly locks: ReadonlyMap<string, Finger>;
  /** Ticks at which a new phrase begins. */
  readonly resets: ReadonlySet<Ticks>;
  /** Length of a beat, for judging rests. */
  readonly beat: Ticks;
  /** 1, or more at levels where the hand should stay in its position. */
  readonly steadiness: number;
  /** Fingers that the same figure has elsewhere, by note id: departing from them costs. */
  readonly usual?: ReadonlyMap<string, Finger>;
}

export interface Fingering {
  /** A finger for every note, by its id. */
  readonly fingers: ReadonlyMap<string, Finger>;
  readonly cost: number;
  /** The same cost by rule, for explaining it. */
  readonly costs: Costs;
}

/** Fingers a line: every note of `notes` gets one. */
export function fingerLine(notes: readonly SoundingNote[], settings: FingeringSettings): Fingering {
  const events = eventsOf(notes, settings.hand, settings.resets, settings.beat);
  const { steadiness, usual } = settings;
  const model: CostModel = { spans: spansFor(settings.reach), steadiness, ...(usual ? { usual } : {}) };
  const grips = events.map((event) => gripsFor(event, settings.locks));
  const path = bestPath(events, grips, model);
  const fingers = new Map<string, Finger>();
  events.forEach((event, i) =>
    event.keys.forEach((key, k) => {
      if (key.struck) fingers.set(key.id, path[i]![k]!);
    }),
  );
  const costs = costsOf(events, path, model);
  return { fingers, cost: sum(costs), costs };
}

const sum = (costs: Costs): number => costs.reduce((a, b) => a + b, 0);

/** The cost by rule of a given path; the solver's result costs exactly this. */
export function costsOf(events: readonly Event[], path: readonly Grip[], model: CostModel): Costs {
  const costs = newCosts();
  events.forEach((event, i) => {
    addEventCost(costs, event, path[i]!, model);
    if (i > 0) addStepCost(costs, events[i - 1]!, path[i - 1]!, event, path[i]!, model);
    if (i > 1)
      addTripleCost(
        costs,
        [events[i - 2]!, events[i - 1]!, event],
        [path[i - 2]!, path[i - 1]!, path[i]!],
        model,
      );
  });
  return costs;
}

/** The cheapest choice of one grip per event. */
export function bestPath(events: readonly Event[], grips: readonly Grip[][], model: CostModel): Grip[] {
  if (events.length === 0) return [];
  const scratch = newCosts(); // one buffer for all: this is the innermost loop
  const total = (fill: (costs: Costs) => void): number => {
    scratch.fill(0);
    fill(scratch);
    let result = 0;
    for (let i = 0; i < scratch.length; i++) result += scratch[i]!;
    return result;
  };
  const own = (i: number, grip: Grip): number => total((c) => addEventCost(c, events[i]!, grip, model));
  if (events.length === 1) {
    const costs = grips[0]!.map((g) => own(0, g));
    return [grips[0]![argMin(costs)]!];
  }
  const step = (i: number, from: Grip, to: Grip): number =>
    total((c) => addStepCost(c, events[i - 1]!, from, events[i]!, to, model)) + own(i, to);

  // best[a][b]: least cost up to event i with grip a at i−1 and b at i.
  let best = grips[0]!.map((a) => {
    const start = own(0, a);
    return grips[1]!.map((b) => start + step(1, a, b));
  });
  const cameFrom: number[][][] = [];
  for (let i = 2; i < events.length; i++) {
    const [first, second, third] = [grips[i - 2]!, grips[i - 1]!, grips[i]!];
    const triple =
      events[i]!.keys.length === 1 && events[i - 1]!.keys.length === 1 && events[i - 2]!.keys.length === 1;
    const back: number[][] = [];
    best = second.map((b, bi) => {
      back[bi] = [];
      return third.map((c, ci) => {
        let least = Infinity;
        let from = 0;
        for (let ai = 0; ai < first.length; ai++) {
          const three = triple
            ? total((costs) =>
                addTripleCost(costs, [events[i - 2]!, events[i - 1]!, events[i]!], [first[ai]!, b, c], model),
              )
            : 0;
          const cost = best[ai]![bi]! + three;
          if (cost < least) {
            least = cost;
            from = ai;
          }
        }
        back[bi]![ci] = from;
        return least + step(i, b, c);
      });
    });
    cameFrom.push(back);
  }
  let [bi, ci] = [0, 0];
  best.forEach((row, b) =>
    row.forEach((cost, c) => {
      if (cost < best[bi]![ci]!) [bi, ci] = [b, c];
    }),
  );
  const indices = new Array<number>(events.length);
  indices[events.length - 1] = ci;
  indices[events.length - 2] = bi;
  for (let i = events.length - 1; i >= 2; i--) {
    indices[i - 2] = cameFrom[i - 2]![indices[i - 1]!]![indices[i]!]!;
  }
  return indices.map((index, i) => grips[i]![index]!);
}

const argMin = (values: readonly number[]): number =>
  values.reduce((best, value, i) => (value < values[best]! ? i : best), 0);
