/** Beams within one voice of one measure: short notes that share a beat are joined, so that the beats can be seen. */
import { beatLength, innerGroups, isCompound, measureLength, placeInMeasure } from '../../../score/metre';
import { writtenValue } from '../../../score/notate';
import type { Measure } from '../../../score/score';
import type { WrittenEvent } from './events';

/** Number of beams of an event: 1 for an eighth, 2 for a sixteenth, 0 for longer values and rests. */
function beamCount(event: WrittenEvent): number {
  if (event.notes.length === 0 || event.duration === 0) return 0;
  const value = writtenValue(event.duration, event.notes[0]?.tuplet);
  return value && value.type >= 8 ? Math.log2(value.type) - 2 : 0;
}

/** `<beam>` elements per event. */
export function beams(measure: Measure, events: readonly WrittenEvent[]): Map<WrittenEvent, string> {
  const beat =
    !isCompound(measure.time) && measure.time.beatType === 8
      ? measureLength(measure.time)
      : beatLength(measure.time);
  const odd = innerGroups(measure.time);
  const groups = measure.time.beatType >= 8 && odd.length > 0 ? [0, ...odd] : [];
  const joined: WrittenEvent[][] = [];
  let current: WrittenEvent[] = [];
  let currentBeat = -1;
  for (const event of events) {
    if (event.duration === 0) continue; // grace notes stand between beamed ones
    const place = placeInMeasure(measure, event.onset);
    const inBeat = groups.length > 0 ? groups.findLastIndex((at) => at <= place) : Math.floor(place / beat);
    if (beamCount(event) === 0 || inBeat !== currentBeat) {
      if (current.length > 1) joined.push(current);
      current = [];
    }
    if (beamCount(event) > 0) current.push(event);
    currentBeat = inBeat;
  }
  if (current.length > 1) joined.push(current);

  const result = new Map<WrittenEvent, string>();
  for (const group of joined) {
    group.forEach((event, i) => {
      const own = beamCount(event);
      const left = i > 0 ? beamCount(group[i - 1]!) : 0;
      const right = i < group.length - 1 ? beamCount(group[i + 1]!) : 0;
      const marks = Array.from({ length: own }, (_, level) => {
        const [toLeft, toRight] = [left > level, right > level];
        const kind =
          toLeft && toRight
            ? 'continue'
            : toRight
              ? 'begin'
              : toLeft
                ? 'end'
                : left > 0
                  ? 'backward hook'
                  : 'forward hook';
        return `<beam number="${level + 1}">${kind}</beam>`;
      });
      result.set(event, marks.join(''));
    });
  }
  return result;
}
