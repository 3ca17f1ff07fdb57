/** From ticks of a performance to seconds and back. */
import { TICKS_PER_QUARTER, type Ticks } from '../score/ticks';
import type { Performance, TempoPoint } from './played';

const secondsPerTick = (tempo: number): number => 60 / tempo / TICKS_PER_QUARTER;

interface Anchor extends TempoPoint {
  readonly seconds: number;
}

/** A clock for a performance: both directions by binary search, so a cursor may ask as often as it likes. */
interface Clock {
  /** Seconds from the beginning at a tick. */
  readonly seconds: (tick: Ticks) => number;
  /** The tick at a second. */
  readonly tick: (seconds: number) => Ticks;
}

/** `share` slows down or hurries the whole: 0.5 is half as fast. */
export function clockOf({ tempi }: Pick<Performance, 'tempi'>, share = 1): Clock {
  const anchors: Anchor[] = [];
  for (const { onset, tempo } of tempi) {
    const last = anchors.at(-1);
    anchors.push({
      onset,
      tempo: tempo * share,
      seconds: last ? last.seconds + (onset - last.onset) * secondsPerTick(last.tempo) : 0,
    });
  }
  /** The last anchor that is not beyond. */
  const find = (is: (anchor: Anchor) => boolean): Anchor => {
    let [low, high] = [0, anchors.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (is(anchors[middle]!)) low = middle;
      else high = middle - 1;
    }
    return anchors[low]!;
  };
  return {
    seconds(tick) {
      const from = find((a) => a.onset <= tick);
      return from.seconds + (tick - from.onset) * secondsPerTick(from.tempo);
    },
    tick(seconds) {
      const from = find((a) => a.seconds <= seconds);
      return from.onset + (seconds - from.seconds) / secondsPerTick(from.tempo);
    },
  };
}
