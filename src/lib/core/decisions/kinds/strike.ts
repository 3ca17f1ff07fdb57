import { z } from 'zod';
import { beatLength } from '../../score/metre';
import { measureAt } from '../../score/query';
import type { Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { defineKind, following } from '../kind';
import { heldAt, replaced, retimed, struckChords, writtenOf, type StruckChord } from '../notes';

const STRIKES = {
  rolled: 'rolled upwards',
  'rolled down': 'rolled downwards',
  broken: 'broken, one key after another',
  together: 'struck together',
} as const;
type Strike = keyof typeof STRIKES;
const STRIKE_IDS = Object.keys(STRIKES) as [Strike, ...Strike[]];

/** How the keys of a chord are struck. */
export const strike = defineKind({
  id: 'strike',
  name: 'Chord struck',
  value: z.enum(STRIKE_IDS),
  scopes: ['note', 'measure', 'range', 'section'],
  stage: 'hands',
  says: (value) => `chord ${STRIKES[value]}`,
  choices: () => STRIKE_IDS.map((id) => [id, STRIKES[id]] as const),
  keys: [
    {
      press: 'r',
      does: 'roll the chord, break it, or strike it together',
      next: (current) => following(STRIKE_IDS, current),
    },
  ],
  apply(notes, held, { measures, refuse }) {
    return struckChords(notes).reduce((changed, chord) => {
      const decided = heldAt(chord, held, measures);
      if (!decided) return changed;
      if (chord.notes.length < 2) {
        if (typeof decided.place === 'string') refuse(decided.place, 'no chord is struck here');
        return changed;
      }
      if (decided.value !== 'broken')
        return replaced(
          changed,
          chord.notes,
          chord.notes.flatMap((n) => writtenOf(changed, n).map((w) => rolled(w, decided.value))),
        );
      const unit = unitOf(chord, beatLength(measureAt(measures, chord.onset).time));
      if (unit === undefined) {
        refuse(decided.place, 'it is too short to be broken');
        return changed;
      }
      const last = chord.notes.length - 1;
      return replaced(
        changed,
        chord.notes,
        chord.notes.flatMap((n, i) =>
          retimed(changed, n, chord.onset + i * unit, i === last ? n.duration - i * unit : unit, measures),
        ),
      );
    }, notes);
  },
});

function rolled(note: Note, how: Strike): Note {
  const { arpeggio: _arpeggio, ...rest } = note;
  return how === 'together' ? rest : { ...rest, arpeggio: how === 'rolled' ? 'up' : 'down' };
}

/** Smallest part of a beat that a broken chord is played in. */
const SHORTEST = 4;

/** How long each key of a broken chord has but the last, which has the rest: a beat, half a beat or a quarter of it. */
function unitOf({ notes }: StruckChord, beat: Ticks): Ticks | undefined {
  const length = Math.min(...notes.map((n) => n.duration));
  for (let parts = 1; parts <= SHORTEST; parts *= 2) {
    const unit = beat / parts;
    if (Number.isInteger(unit) && unit * notes.length <= length) return unit;
  }
  return undefined;
}
