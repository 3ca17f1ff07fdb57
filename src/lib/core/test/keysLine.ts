/** A line of one hand from MIDI numbers alone, for trying fingerings. */
import type { FingeringSettings } from '../fingering/solve';
import type { Hand } from '../fingering/events';
import { spellMidi } from '../theory/fifths';
import type { SoundingNote } from '../score/query';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';

/** Five flats to six sharps: each black key by the name that most keys give it. */
const usualFifths = (midi: number): number => {
  const fifths = (midi * 7) % 12;
  return fifths > 6 ? fifths - 12 : fifths;
};

/** Keys struck one after another, each for `each` ticks; lists are struck together. Ids are "index.place". */
export function keysLine(
  keys: readonly (number | readonly number[])[],
  hand: Hand,
  change: Partial<FingeringSettings> = {},
  each = Q / 2,
): { readonly notes: SoundingNote[]; readonly settings: FingeringSettings } {
  const notes = keys.flatMap((key, i) =>
    (typeof key === 'number' ? [key] : key).map((midi, j): SoundingNote => ({
      id: `${i}.${j}`,
      written: [`${i}.${j}`],
      onset: i * each,
      duration: each,
      pitch: spellMidi(midi, usualFifths(midi)),
      midi,
      staff: hand === 'right' ? 1 : 2,
      voice: 1,
      articulations: [],
      slurStart: false,
      slurStop: false,
    })),
  );
  return {
    notes,
    settings: { hand, reach: 14, locks: new Map(), resets: new Set(), beat: Q, steadiness: 1, ...change },
  };
}
