import { z } from 'zod';
import { beatLength } from '../../score/metre';
import { measureAt, type SoundingNote } from '../../score/query';
import type { Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { defineKind, following } from '../kind';
import { changedStrokes, retimed } from '../private/notes';

const STRIKES = {
  rolled: 'rolled upwards',
  'rolled down': 'rolled downwards',
  broken: 'broken, note by note',
  together: 'block chord',
} as const;
type Strike = keyof typeof STRIKES;
const STRIKE_IDS = Object.keys(STRIKES) as [Strike, ...Strike[]];

/** How the keys of a chord are struck. */
export const strike = defineKind({
  id: 'strike',
  name: 'Roll or break',
  stands: { note: 'of chords' },
  words: 'arpeggio arpeggiate roll broken chord spread',
  value: z.enum(STRIKE_IDS),
  scopes: ['note', 'measure', 'range', 'section'],
  says: (value) => `chord ${STRIKES[value]}`,
  choices: () => STRIKE_IDS.map((id) => [id, STRIKES[id]] as const),
  keys: [
    {
      press: 'r',
      does: 'roll the chord, break it, or play it as a block chord',
      next: (current) => following(STRIKE_IDS, current),
    },
  ],
  apply: (notes, held, passage) =>
    changedStrokes(
      notes,
      held,
      passage,
      ({ notes: struck, onset, value, written, refuse }) => {
        if (value !== 'broken') return struck.flatMap((n) => written(n).map((w) => rolled(w, value)));
        const unit = unitOf(struck, beatLength(measureAt(passage.measures, onset).time));
        if (unit === undefined) return refuse('it is too short to break');
        return struck.flatMap((n, i) =>
          retimed(
            notes,
            n,
            onset + i * unit,
            i === struck.length - 1 ? n.duration - i * unit : unit,
            passage.measures,
          ),
        );
      },
      2,
    ),
});

function rolled(note: Note, how: Strike): Note {
  const { arpeggio: _arpeggio, ...rest } = note;
  return how === 'together' ? rest : { ...rest, arpeggio: how === 'rolled' ? 'up' : 'down' };
}

/** Smallest part of a beat that a broken chord is played in. */
const SHORTEST = 4;

/** How long each key of a broken chord has but the last, which has the rest: a beat, half a beat or a quarter of it. */
function unitOf(notes: readonly SoundingNote[], beat: Ticks): Ticks | undefined {
  const length = Math.min(...notes.map((n) => n.duration));
  for (let parts = 1; parts <= SHORTEST; parts *= 2) {
    const unit = beat / parts;
    if (Number.isInteger(unit) && unit * notes.length <= length) return unit;
  }
  return undefined;
}
