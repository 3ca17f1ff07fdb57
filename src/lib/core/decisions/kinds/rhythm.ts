import { z } from 'zod';
import { levelText } from '../../arrange/levels';
import {
  chordFigureName,
  chordFigureText,
  CHORD_RHYTHM_IDS,
  CHORD_RHYTHMS,
  type ChordRhythm,
} from '../../arrange/singAlong';
import { orTeacherPattern } from '../../arrange/teacherPattern';
import { defineKind } from '../kind';
import { patternsFor } from '../private/patternsFor';

/** The rhythm in which the right hand plays the chords of a sing-along. */
export const rhythm = defineKind({
  id: 'rhythm',
  name: 'Chord rhythm',
  stands: { measure: 'list' },
  words: 'rhythm repeated strokes riff pattern style',
  value: orTeacherPattern(z.enum(CHORD_RHYTHM_IDS as [ChordRhythm, ...ChordRhythm[]])),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `chords: ${chordFigureText(value)}`,
  choices: (at) =>
    at.isSingAlong
      ? [
          ...CHORD_RHYTHM_IDS.filter((id) => CHORD_RHYTHMS[id].from <= at.level),
          ...patternsFor('right', at).fitting,
        ].map((id) => [id, chordFigureName(id)] as const)
      : [],
  refused: (at) =>
    at.isSingAlong
      ? [
          ...CHORD_RHYTHM_IDS.filter((id) => CHORD_RHYTHMS[id].from > at.level).map(
            (id) => [CHORD_RHYTHMS[id].name, `from level ${levelText(CHORD_RHYTHMS[id].from)} on`] as const,
          ),
          ...patternsFor('right', at).refused,
        ]
      : [],
  option: 'rhythm',
});
