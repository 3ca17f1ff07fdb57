import { z } from 'zod';
import { endOf } from '../../score/metre';
import { notate } from '../../score/notate';
import { pitchName, parsePitch } from '../../score/pitch';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';

/** Voices of notes that come beside what a hand has. */
const BESIDE = { right: 2, left: 6 } as const;

const inserted = z.strictObject({
  hand: z.enum(['right', 'left']),
  /** From the beginning of the measure, in ticks. */
  at: z.number().int().min(0).max(1_000_000),
  duration: z.number().int().min(1).max(1_000_000),
  /** In the key of the source: "F♯4". */
  pitch: z.string().refine((text) => parsePitch(text) !== undefined, 'names no pitch'),
});

/** Notes that the source does not have, put into a measure. */
export const insertNotes = defineKind({
  id: 'insert',
  name: 'Notes put in',
  value: z.array(inserted).min(1).max(16),
  scopes: ['measure'],
  stage: 'hands',
  says: (value) => `put in: ${value.map((n) => pitchName(parsePitch(n.pitch)!)).join(', ')}`,
  apply(notes, held, { measures, inKey, refuse }) {
    const made = measures.flatMap((measure): Note[] =>
      (held.measures[measure.index] ?? []).flatMap(({ hand, at, duration, pitch }, i): Note[] => {
        const onset = measure.start + at;
        if (onset >= endOf(measure)) {
          refuse(measure.index, 'its place is behind the end of the measure');
          return [];
        }
        const staff = hand === 'right' ? 1 : 2;
        const own = notes.filter((n) => n.staff === staff && !n.grace);
        const beside = own.find((n) => n.onset === onset && n.duration === duration);
        const isFree = own.every((n) => n.onset + n.duration <= onset || n.onset >= onset + duration);
        const voice = beside?.voice ?? (isFree ? (own[0]?.voice ?? (staff === 1 ? 1 : 5)) : BESIDE[hand]);
        return notate(measures, [
          { id: `${measure.id}a${i}`, onset, duration, pitch: inKey(parsePitch(pitch)!), staff, voice },
        ]);
      }),
    );
    return made.length > 0 ? [...notes, ...made] : notes;
  },
});
