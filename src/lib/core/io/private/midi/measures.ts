/** Measures from a metre map, with the pickup that the music begins with. */
import { measureId } from '../../../score/measureId';
import { measureLength } from '../../../score/metre';
import type { Measure, TimeSignature } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';
import type { Key } from '../../../theory/key';
import { InputError } from '../../inputError';
import { MOST_MEASURES } from '../../limits';
import { likelyMetre, unmarkedPickup, type Placed } from './pickup';

interface Maps {
  readonly times: readonly { readonly at: Ticks; readonly time: TimeSignature }[];
  /** At least one. */
  readonly keys: readonly { readonly at: Ticks; readonly key: Key }[];
}

/**
 * `notes` in order of time. The measures of the music, and by how much its onsets lie later in the file. Whole measures of silence before the
 * music are dropped. A pickup is what follows a silence of at least half a measure, what a first short metre holds, or what
 * the accents say (pickup.ts).
 */
export function measuresFor(
  notes: readonly Placed[],
  maps: Maps,
  drums: ReadonlyMap<Ticks, number> = new Map(),
): { measures: Measure[]; shift: Ticks } {
  const end = notes.reduce((latest, n) => Math.max(latest, n.onset + n.duration), 0);
  const firstOnset = notes[0]!.onset;
  if (end / (TICKS_PER_QUARTER / 4) > MOST_MEASURES * 16)
    throw new InputError('The MIDI file lasts for many hours: it is damaged or isn’t a piece.');
  const usual = maps.times.length > 0 ? maps.times[0]!.time : likelyMetre(notes, drums);
  const times = withoutShortStart(maps.times);
  const timeAt = (tick: Ticks): TimeSignature => times.list.filter((t) => t.at <= tick).at(-1)?.time ?? usual;
  const keyAt = (tick: Ticks): Key => maps.keys.filter((k) => k.at <= tick).at(-1)?.key ?? maps.keys[0]!.key;
  const first = measureLength(timeAt(0));
  const silent = times.pickup > 0 ? 0 : Math.floor(firstOnset / first) * first;
  const late = firstOnset - silent;
  const eighth = TICKS_PER_QUARTER / 2;
  const unmarked =
    times.pickup === 0 && late < eighth && times.list.length <= 1
      ? unmarkedPickup(notes, timeAt(0), silent, drums)
      : 0;
  const afterSilence = late >= first / 2 ? Math.floor(late / eighth) * eighth : 0;
  const pickup = times.pickup || unmarked;
  // Without silence before it the pickup stands where the file has its first measure.
  const beginsAt = pickup > 0 ? first - pickup : afterSilence;
  const shift = silent + (pickup > 0 ? 0 : beginsAt);
  const measures: Measure[] = [];
  for (let at = silent; at < end;) {
    if (measures.length >= MOST_MEASURES)
      throw new InputError(
        `The MIDI file lasts for more than ${MOST_MEASURES} measures: it is damaged or isn’t a piece.`,
      );
    const isFirst = measures.length === 0;
    const time = timeAt(at);
    const full = measureLength(time);
    // A change of metre inside a measure cuts it short.
    const change = times.list.find((t) => t.at > at && t.at < at + full)?.at;
    const length = isFirst && pickup > 0 ? pickup : (change ?? at + full) - at - (isFirst ? beginsAt : 0);
    const start = isFirst && pickup === 0 ? at + beginsAt : at;
    const index = measures.length;
    measures.push({
      id: measureId(index),
      index,
      number: String(beginsAt > 0 ? index : index + 1),
      start: start - shift,
      length,
      time,
      key: keyAt(at),
      beginsAt: isFirst ? beginsAt : 0,
    });
    at = start + length;
  }
  return { measures, shift };
}

/** A first measure of a shorter metre than what follows, as 1/4 before 4/4, is how some programs write a pickup. */
function withoutShortStart(times: Maps['times']): { list: Maps['times']; pickup: Ticks } {
  const [first, second] = times;
  if (!first || !second || first.at > 0) return { list: times, pickup: 0 };
  const [short, full] = [measureLength(first.time), measureLength(second.time)];
  const isPickup = second.at === short && short < full;
  return isPickup
    ? { list: [{ at: 0, time: second.time }, ...times.slice(2)], pickup: short }
    : { list: times, pickup: 0 };
}
