import { levelNumbered } from '../../arrange/levels';
import { patternProblem, teacherPattern, type TeacherPatternText } from '../../arrange/teacherPattern';
import type { Situation } from '../kind';

/** The teacher's patterns for a hand: those that the level has in this time signature, and the others with the reason. */
export function patternsFor(
  hand: 'left' | 'right',
  { patterns = [], level, contract = levelNumbered(level), measure }: Situation,
): {
  readonly fitting: readonly TeacherPatternText[];
  readonly refused: readonly (readonly [name: string, why: string])[];
} {
  const own = patterns
    .filter((pattern) => pattern.hand === hand)
    .map(({ text }) => {
      const pattern = teacherPattern(text);
      return { text, name: pattern.name, why: patternProblem(pattern, contract, measure.time, hand) };
    });
  return {
    fitting: own.flatMap(({ text, why }) => (why === undefined ? [text] : [])),
    refused: own.flatMap(({ name, why }) => (why === undefined ? [] : [[name, why] as const])),
  };
}
