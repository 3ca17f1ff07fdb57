/** What a learner is good at, by kind of difficulty: the grades of what they played, weighed by what its measures asked of each kind. */
import { STRANDS, type Strand } from '../difficulty/strands';
import { UNGRADED, type LessonEvent } from './events';

interface GradedMusic {
  readonly events: readonly (LessonEvent & { readonly from: number; readonly to: number })[];
  /** Points of each strand by measure, in the order of STRANDS. */
  readonly strands: readonly (readonly number[])[];
}

export interface Strength {
  readonly strand: Strand;
  /** 1 to 4, as the grades are; null where too little was graded to say. */
  readonly grade: number | null;
}

/** Points in all from which a strand is spoken of. */
const ENOUGH = 60;
/** What makes a measure hard in a way is said of what outweighs this share of all its points. */
const SHARE = 0.12;
/** Grades that no event has given yet pull to "well", as if so many points had. */
const BEFORE = 40;

/** What the graded events of some music weigh in each strand, in the order of STRANDS: points, and points times grades. */
export type StrandSums = readonly { readonly points: number; readonly graded: number }[];

/** The sums of one piece. Events without a grade say nothing. */
export function strandSums({ events, strands }: GradedMusic): StrandSums {
  const sums = STRANDS.map(() => ({ points: 0, graded: 0 }));
  for (const event of events) {
    if (event.grade === null) continue;
    for (let i = event.from; i <= event.to; i++) {
      const own = strands[i];
      if (!own) continue;
      const whole = own.reduce((a, b) => a + b, 0);
      own.forEach((points, s) => {
        if (points < whole * SHARE) return;
        sums[s]!.points += points;
        sums[s]!.graded += points * event.grade!;
      });
    }
  }
  return sums;
}

/** How well each strand goes, over the sums of all of a learner's music. */
export const strengthsOf = (music: readonly StrandSums[]): Strength[] =>
  STRANDS.map((strand, s) => {
    const points = music.reduce((sum, m) => sum + (m[s]?.points ?? 0), 0);
    const graded = music.reduce((sum, m) => sum + (m[s]?.graded ?? 0), 0);
    return {
      strand,
      grade: points < ENOUGH ? null : (graded + BEFORE * UNGRADED) / (points + BEFORE),
    };
  });
