/** So many full measures of one metre, one after another. */
import { measureId } from '../score/measureId';
import { measureLength } from '../score/metre';
import type { Measure, TimeSignature } from '../score/score';
import type { Key } from '../theory/key';

export function evenMeasures(
  count: number,
  time: TimeSignature,
  keyIn: (index: number) => Key = () => ({ fifths: 0, mode: 'major' }),
): Measure[] {
  const length = measureLength(time);
  return Array.from({ length: count }, (_, index) => ({
    id: measureId(index),
    index,
    number: String(index + 1),
    start: index * length,
    length,
    time,
    key: keyIn(index),
    beginsAt: 0,
  }));
}
