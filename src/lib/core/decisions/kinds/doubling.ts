import { z } from 'zod';
import { byMeasure, soundingNotes } from '../../score/query';
import { notate } from '../../score/notate';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { struckChords } from '../private/notes';
import { STAFF_VOICES } from '../private/voices';

const DOUBLINGS = { top: 'right hand doubles the top of the left, an octave higher' } as const;

/** An octave, and the least distance under the melody, in semitones. */
const OCTAVE = 12;
const UNDER_MELODY = 1;

/** The highest key of the left hand once more in the right, in another octave, stroke by stroke. */
export const doubling = defineKind({
  id: 'doubling',
  name: 'Doubling',
  words: 'double octave top of the left hand fuller riff unison',
  value: z.enum(['top']),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => DOUBLINGS[value],
  choices: () => [['top', DOUBLINGS.top]] as const,
  apply(notes, held, { measures, reach, refuse }) {
    const strokes = byMeasure(
      measures,
      struckChords(notes).filter((s) => s.staff === 2),
    );
    const right = soundingNotes(notes).filter((n) => n.staff === 1);
    const made = measures.flatMap((measure): Note[] => {
      if (!held.measures[measure.index]) return [];
      const doubled = strokes[measure.index]!.flatMap((stroke): Note[] => {
        const top = stroke.notes.at(-1)!;
        const end = top.onset + top.duration;
        const over = right.filter((n) => n.onset < end && n.onset + n.duration > top.onset);
        const midi = top.midi + OCTAVE;
        const keys = over.map((n) => n.midi);
        const fits = keys.every((key) => midi <= key - UNDER_MELODY && key - midi <= reach(1));
        if (!fits) return [];
        const { step, alter, octave } = top.pitch;
        return [
          {
            id: `D${top.id}`,
            onset: top.onset,
            duration: top.duration,
            pitch: { step, alter, octave: octave + 1 },
            staff: 1,
            voice: STAFF_VOICES[1][over.length > 0 ? 1 : 0],
          },
        ];
      });
      if (doubled.length === 0) refuse(measure.index, 'the right hand has no room for it under its notes');
      return doubled;
    });
    return made.length > 0 ? [...notes, ...notate(measures, made)] : notes;
  },
});
