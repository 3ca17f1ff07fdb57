import { z } from 'zod';
import { beatLength, endOf } from '../../score/metre';
import { notate } from '../../score/notate';
import { pitchLetters, pitchName, parsePitch } from '../../theory/pitch';
import type { Measure, Note } from '../../score/score';
import { inverse, transposePitch, type Transposition } from '../../transpose/transpose';
import { defineKind } from '../kind';

/** Voices of notes that come beside what a hand has. */
const BESIDE = { right: 2, left: 6 } as const;

const inserted = z.strictObject({
  hand: z.enum(['right', 'left']),
  /** From the beginning of the measure, in ticks. */
  at: z.number().int().min(0).max(1_000_000),
  duration: z.number().int().min(1).max(1_000_000),
  /** In the key of the source: "F♯4". */
  pitch: z.string().refine((text) => parsePitch(text) !== undefined, 'isn’t a pitch'),
});

type Inserted = z.infer<typeof inserted>;

/** "left 2.5 B3 1" as a note: the left hand, on two and a half, for a beat. Undefined for anything else. */
function noteFrom(text: string, measure: Measure, by: Transposition | undefined): Inserted | undefined {
  const [, hand, place, name, beats] =
    /^(right|left|r|l)\s+([\d.]+)\s+([A-Ga-g][#b♯♭]*-?\d)\s+([\d.]+)$/i.exec(text.trim()) ?? [];
  const pitch = name && parsePitch(name.charAt(0).toUpperCase() + name.slice(1));
  if (!hand || !pitch) return undefined;
  const beat = beatLength(measure.time);
  const at = Math.round((Number(place) - 1) * beat) - measure.beginsAt;
  const duration = Math.round(Number(beats) * beat);
  const made = inserted.safeParse({
    hand: /^r/i.test(hand) ? 'right' : 'left',
    at,
    duration,
    pitch: pitchLetters(by ? transposePitch(pitch, inverse(by)) : pitch),
  });
  return made.success && at < measure.length ? made.data : undefined;
}

function noteText(
  { hand, at, duration, pitch }: Inserted,
  measure: Measure,
  by: Transposition | undefined,
): string {
  const beat = beatLength(measure.time);
  const sounding = parsePitch(pitch)!;
  const shown = (value: number): number => Math.round(value * 1000) / 1000;
  return `${hand} ${shown((at + measure.beginsAt) / beat + 1)} ${pitchLetters(by ? transposePitch(sounding, by) : sounding)} ${shown(duration / beat)}`;
}

/** Notes that the source does not have, put into a measure. */
export const insert = defineKind({
  id: 'insert',
  name: 'Inserted notes',
  words: 'add note write riff fill melody introduction',
  value: z.array(inserted).min(1).max(16),
  scopes: ['measure'],
  says: (value) => `inserted: ${value.map((n) => pitchName(parsePitch(n.pitch)!)).join(', ')}`,
  written: {
    hint: 'right 3 F#4 1: hand, beat, pitch, beats long; several separated by ;',
    read: (text, { measure, transposition }) => {
      const notes = text.split(';').map((part) => noteFrom(part, measure, transposition));
      return notes.every((n) => n !== undefined) ? notes : undefined;
    },
    show: (value, { measure, transposition }) =>
      value.map((note) => noteText(note, measure, transposition)).join('; '),
  },
  apply(notes, held, { measures, inKey, refuse }) {
    const made = measures.flatMap((measure): Note[] =>
      (held.measures[measure.index] ?? []).flatMap(({ hand, at, duration, pitch }, i): Note[] => {
        const onset = measure.start + at;
        if (onset >= endOf(measure)) {
          refuse(measure.index, 'it starts after the end of the measure');
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
