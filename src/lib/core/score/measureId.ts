/** Names of measures that stay when an introduction is put before them, another level or key is chosen, a section moves. */
import type { Measure } from './score';
import type { Ticks } from './ticks';

/** The measure at a place of the source, from 0: "m4". Its notes are named after it. */
export const measureId = (index: number): string => `m${index}`;

/** A measure of an introduction that was put before the source, from 0: "i1". */
export const introductionId = (index: number): string => `i${index}`;

/** Where the source begins, behind an introduction. */
export const sourceStart = (measures: readonly Pick<Measure, 'id' | 'start'>[]): Ticks =>
  measures.find((m) => !m.id.startsWith('i'))?.start ?? 0;
