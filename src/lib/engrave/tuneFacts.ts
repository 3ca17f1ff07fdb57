/** Who has the tune, phrase by phrase, as it is shown and heard before a piece is kept. */
import { clockOf } from '$core/performance/tempo';
import { perform } from '$core/performance/perform';
import { tunePhrases, withParts, type PartChoices } from '$core/players/parts';
import { endOf } from '$core/score/metre';
import type { Score } from '$core/score/score';

/** A note of the tune: seconds from the beginning of its phrase, seconds that it lasts, MIDI key. */
export type HeardTune = readonly (readonly [at: number, length: number, midi: number])[];

export interface TuneFacts {
  /** Indexes of its first and last measure, and their printed numbers. */
  readonly from: number;
  readonly to: number;
  readonly numbers: readonly [string, string];
  /** The part's id. */
  readonly part: string;
  readonly heard: HeardTune;
}

/** Seconds of a phrase that are enough to know it by. */
const ENOUGH = 30;
const rounded = (seconds: number): number => Math.round(seconds * 1000) / 1000;

/** The phrases of a tune that several may have; none where one part, or a pianist, has it. */
export function tuneFacts(source: Score, choices: PartChoices): TuneFacts[] {
  const leading = Object.values(choices.parts).filter((c) => c === 'melody').length;
  if (source.parts.length < 2 || (leading < 2 && choices.tune.length === 0)) return [];
  const { measures, parts, ...rest } = withParts(source, choices);
  const tune = parts.find((p) => p.role === 'melody');
  if (!tune) return [];
  // As it is written, once through: a phrase is heard, not the way through the piece.
  const plain = measures.map(
    ({
      repeatStart: _start,
      repeatEnd: _end,
      repeatTimes: _times,
      ending: _ending,
      endingEnd: _close,
      route: _route,
      ...m
    }) => m,
  );
  const performance = perform({ ...rest, measures: plain, parts: [tune], pedals: [] });
  const { seconds } = clockOf(performance);
  return tunePhrases(source, choices).map(({ from, to, part, start }, i, all) => {
    const end = all[i + 1]?.start ?? endOf(measures[to]!);
    const begin = seconds(start);
    return {
      from,
      to,
      numbers: [measures[from]!.number, measures[to]!.number] as const,
      part,
      heard: performance.notes
        .filter((n) => n.onset >= start && n.onset < end && seconds(n.onset) - begin < ENOUGH)
        .map(
          (n) =>
            [
              rounded(seconds(n.onset) - begin),
              rounded(seconds(n.onset + n.duration) - seconds(n.onset)),
              n.midi,
            ] as const,
        ),
    };
  });
}
