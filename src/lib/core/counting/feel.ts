/** Whether a piece swings: said by words in the source, or by the teacher. Swung eighths are counted like straight ones. */
import type { Score } from '../score/score';

export type Feel = 'straight' | 'swing';

/** A hornpipe is written even or dotted, and danced long and short. */
const SWINGS = /\b(swing|swung|shuffle|hornpipe)\b/i;
const DOES_NOT = /\b(straight|no swing|even eighths)\b/i;

/** The feel that the words above the music ask for; straight where they ask for nothing. */
export function feelOf(score: Score): Feel {
  for (const mark of score.parts.flatMap((p) => p.marks ?? []))
    if (mark.kind === 'words') {
      if (DOES_NOT.test(mark.text)) return 'straight';
      if (SWINGS.test(mark.text)) return 'swing';
    }
  return 'straight';
}
