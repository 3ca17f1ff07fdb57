/** The shapes of a performance: what sounds, when, how loud; and where the written measures are in it. */
import type { Ticks } from '../score/ticks';

/** One key struck and let go. Times are ticks of the performance, which runs on through repeats. */
export interface PlayedNote {
  /** Id of the written note that is struck; a repeat plays it again under the same id. */
  readonly id: string;
  readonly midi: number;
  /** 1 upper (right hand), 2 lower. */
  readonly staff: number;
  /** Index of its part. */
  readonly part: number;
  readonly onset: Ticks;
  readonly duration: Ticks;
  /** 1 to 127. */
  readonly velocity: number;
}

/** A written measure each time that it is played. */
export interface PlayedMeasure {
  /** Index of the written measure. */
  readonly index: number;
  readonly onset: Ticks;
  readonly length: Ticks;
}

export interface PlayedPedal {
  readonly onset: Ticks;
  readonly down: boolean;
}

/** From here on so fast. */
export interface TempoPoint {
  readonly onset: Ticks;
  /** Quarter notes per minute. */
  readonly tempo: number;
}

export interface Performance {
  /** In order of time. */
  readonly notes: readonly PlayedNote[];
  readonly measures: readonly PlayedMeasure[];
  readonly pedals: readonly PlayedPedal[];
  /** In order of time, the first at 0. */
  readonly tempi: readonly TempoPoint[];
  readonly end: Ticks;
}
