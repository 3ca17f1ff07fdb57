import { z } from 'zod';
import type { SoundingNote } from '../../score/query';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { changedStrokes, widthOf } from '../private/notes';

/** Turns upwards (the lowest key goes to the top) or downwards. */
const TURNS = [-3, -2, -1, 1, 2, 3] as const;
type Turns = (typeof TURNS)[number];

const turned = (by: 1 | -1) => (current: Turns | undefined) =>
  TURNS.find((turns) => turns === (current ?? 0) + by) ?? (current === -by ? undefined : current);

/** The shape of a chord: the nearest inversion above or below the one that is proposed, and so on. */
export const inversion = defineKind({
  id: 'inversion',
  name: 'Inversion',
  stands: { note: 'of chords' },
  words: 'shape chord position turn',
  value: z.literal(TURNS),
  scopes: ['note', 'measure', 'range', 'section'],
  says: (value) =>
    `${['', 'next', 'second', 'third'][Math.abs(value)]} inversion ${value > 0 ? 'above' : 'below'}`,
  choices: () =>
    ([1, 2, -1, -2] as const).map(
      (value) =>
        [value, `${Math.abs(value) === 1 ? 'nearest' : 'second'} ${value > 0 ? 'above' : 'below'}`] as const,
    ),
  keys: [
    { press: 'i', does: 'the next inversion above', next: turned(1) },
    { press: 'Shift+i', does: 'the next inversion below', next: turned(-1) },
  ],
  apply: (notes, held, passage) =>
    changedStrokes(
      notes,
      held,
      passage,
      ({ notes: struck, staff, value, written, refuse }) => {
        const keys = inverted(struck, value);
        if (widthOf(keys.map((k) => k.pitch)) > passage.reach(staff))
          return refuse('the hand does not reach this inversion');
        const pitches = new Map(keys.map((k) => [k.id, k.pitch]));
        return struck.flatMap((n) => written(n).map((w): Note => ({ ...w, pitch: pitches.get(n.id)! })));
      },
      2,
    ),
});

type ChordKey = Pick<SoundingNote, 'id' | 'pitch' | 'midi'>;

const octaves = ({ id, pitch, midi }: ChordKey, by: number): ChordKey => ({
  id,
  pitch: { ...pitch, octave: pitch.octave + by },
  midi: midi + 12 * by,
});

function inverted(keys: readonly ChordKey[], turns: Turns): ChordKey[] {
  const up = turns > 0;
  const rising = [...keys].sort((a, b) => a.midi - b.midi);
  for (let i = 0; i < Math.abs(turns); i++) {
    const moved = up ? rising.shift()! : rising.pop()!;
    const [far, near] = up ? [rising.at(-1)!, rising[0]!] : [rising[0]!, rising.at(-1)!];
    // A doubled key turns into the double of what stands at the end now.
    const isDoubled = rising.some((k) => (k.midi - moved.midi) % 12 === 0);
    let next = octaves(isDoubled ? { ...near, id: moved.id } : moved, up ? 1 : -1);
    while (up ? next.midi <= far.midi : next.midi >= far.midi) next = octaves(next, up ? 1 : -1);
    if (up) rising.push(next);
    else rising.unshift(next);
  }
  return rising;
}
