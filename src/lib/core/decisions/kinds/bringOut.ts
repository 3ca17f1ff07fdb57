import { z } from 'zod';
import { isStruck, measureAt } from '../../score/query';
import type { Mark, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { defineKind } from '../kind';
import { struckChords, type StruckChord } from '../private/notes';
import { STAFF_VOICES } from '../private/voices';

const VOICES = {
  melody: 'the highest notes of the right hand',
  alto: 'the lowest notes of the right hand',
  tenor: 'the highest notes of the left hand',
  bass: 'the lowest notes of the left hand',
} as const;
type Voice = keyof typeof VOICES;
const VOICE_IDS = Object.keys(VOICES) as [Voice, ...Voice[]];

/** Which key of a stroke belongs to a voice. */
const STANDS: Readonly<Record<Voice, { readonly staff: 1 | 2; readonly isTop: boolean }>> = {
  melody: { staff: 1, isTop: true },
  alto: { staff: 1, isTop: false },
  tenor: { staff: 2, isTop: true },
  bass: { staff: 2, isTop: false },
};

const SAYS = 'bring out';

/** A voice that is brought out: a line over each of its notes, a stem of its own in chords, and louder than the rest. */
export const bringOut = defineKind({
  id: 'bring out',
  name: 'Bring out',
  words: 'voice melody louder inner tenor bass top sing cantabile',
  value: z.enum(['note', ...VOICE_IDS]),
  scopes: ['note', 'measure', 'range', 'section', 'version'],
  says: (value) => (value === 'note' ? 'brought out' : `brought out: ${VOICES[value]}`),
  choices: ({ scope, note }) =>
    scope === 'note' || (scope === undefined && note)
      ? [['note', 'this note'] as const]
      : VOICE_IDS.map((id) => [id, VOICES[id]] as const),
  apply(notes, held, { measures, refuse }) {
    const out = new Set<string>();
    const voices = new Map<string, number>();
    const strokesIn = new Map<number, number>();
    for (const stroke of struckChords(notes)) {
      const { index } = measureAt(measures, stroke.onset);
      const value = held.measures[index];
      const stands = value && value !== 'note' ? STANDS[value] : undefined;
      const isHere = stands?.staff === stroke.staff;
      if (isHere) strokesIn.set(index, (strokesIn.get(index) ?? 0) + 1);
      const chosen = stroke.notes.filter(
        (n) =>
          held.notes.has(n.id) || (isHere && n === (stands.isTop ? stroke.notes.at(-1) : stroke.notes[0])),
      );
      for (const { id } of chosen) out.add(id);
      if (chosen.length > 0 && chosen.length < stroke.notes.length)
        for (const [id, voice] of parted(stroke, chosen)) voices.set(id, voice);
    }
    held.measures.forEach((value, index) => {
      if (value && value !== 'note' && !strokesIn.has(index)) refuse(index, 'this hand rests here');
    });
    return notes.map((note): Note => {
      const voice = voices.get(note.id);
      const placed = voice === undefined ? note : { ...note, voice };
      return out.has(note.id) ? withLine(placed) : placed;
    });
  },
  mark(part, _held, { measures }) {
    const isOut = part.notes.filter((n) => n.isBroughtOut && isStruck(n)).sort((a, b) => a.onset - b.onset);
    const ends = new Map<number, Ticks>();
    const made = isOut.flatMap(({ onset, staff }): Mark[] => {
      const measure = measureAt(measures, onset);
      const before = ends.get(staff);
      ends.set(staff, measure.start + measure.length);
      // Said once, as long as it goes on from measure to measure.
      return before !== undefined && before >= measure.start
        ? []
        : [{ kind: 'words', onset, staff, above: staff === 1, text: SAYS }];
    });
    return { ...part, marks: [...(part.marks ?? []), ...made].sort((a, b) => a.onset - b.onset) };
  },
});

/** What is brought out of a chord has a stem of its own: upwards where it is on top, else downwards. */
function parted({ staff, notes }: StruckChord, chosen: StruckChord['notes']): [id: string, voice: number][] {
  const [upper, lower] = STAFF_VOICES[staff === 1 ? 1 : 2];
  const isTop = chosen.includes(notes.at(-1)!);
  return notes.flatMap((note) =>
    note.written.map((id): [string, number] => [id, chosen.includes(note) === isTop ? upper : lower]),
  );
}

const withLine = (note: Note): Note => {
  const others = (note.articulations ?? []).filter((a) => a !== 'tenuto');
  return { ...note, articulations: [...others, 'tenuto'], isBroughtOut: true };
};
