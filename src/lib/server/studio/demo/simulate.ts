/** A learner's past as it may have been: lesson by lesson, from their plan, their pace and what is hard for them. */
import { STRANDS, type Strand } from '$core/difficulty/strands';
import { daysAfter, type Day } from '$core/lessons/calendar';
import type { Grade, LessonEvent } from '$core/lessons/events';
import { chunksIn, type Plan, type ToLearn } from '$core/lessons/plan';
import { learnedIn, measureStates, nextSteps, planState } from '$core/lessons/progress';
import { dueOn, reviewsOf } from '$core/lessons/reviews';
import { playedBy, REVIEW } from '$core/lessons/steps';
import { measuresText } from '$core/score/measureText';
import { weekOf, type WeekItem } from '$core/lessons/week';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The same numbers at every run. */
export function seeded(seed: number): () => number {
  let state = seed * 2_654_435_761;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

export interface SimulatedPiece {
  readonly assignment: string;
  readonly title: string;
  readonly music: ToLearn & {
    readonly strands: readonly (readonly number[])[];
    readonly numbers: readonly string[];
    readonly form: { readonly firstSeen: readonly number[] };
  };
  readonly plan: Plan;
  readonly goal: number;
  /** The day on which it was given. */
  readonly since: Day;
}

interface Simulated {
  readonly events: readonly (Omit<LessonEvent, 'id' | 'by' | 'withdraws' | 'at' | 'hand' | 'counting'> & {
    readonly assignment: string;
    readonly lesson: number;
    /** Minutes after the lesson's beginning. */
    readonly minute: number;
  })[];
  readonly lessons: readonly {
    readonly day: Day;
    readonly note: string;
    readonly minutesSet: number;
    readonly practised: number;
    readonly week: readonly WeekItem[];
  }[];
}

interface Traits {
  readonly steps: number;
  readonly skill: number;
  readonly weak: Strand;
  readonly minutesADay: number;
  readonly stuckFor: number;
}

/** What is said of a step that went so, in a few words; "§" is where. */
const SAID: Readonly<Record<Grade, readonly string[]>> = {
  1: [
    '§ is not there yet: half the tempo, left hand first.',
    'Stops before the change in §. Say the next chord aloud.',
    'Too fast too soon in §; the click stays on this week.',
  ],
  2: [
    '§ goes with help. The count must not stop on long notes.',
    'Left hand moves early in §: say the count until it is steady.',
    'Fingers as written in §, also when it is quick.',
  ],
  3: [
    '§ is steady now. Listen to the end of the phrase.',
    'Good hands in §. Shoulders down.',
    '§ with both hands, the melody a little louder.',
  ],
  4: [
    '§ with ease. Next time from memory.',
    'Played § for the sound of it: lovely.',
    '§ can go faster whenever you like.',
  ],
};

/** Simulates a learner's lessons, a week apart, the last one so many days ago. */
export function simulate(
  pieces: readonly SimulatedPiece[],
  { steps, skill, weak, minutesADay, stuckFor }: Traits,
  days: readonly Day[],
  random: () => number,
): Simulated {
  const events: Simulated['events'][number][] = [];
  const lessons: Simulated['lessons'][number][] = [];
  const chunksOf = new Map(pieces.map((p) => [p.assignment, chunksIn(p.plan, p.music, p.goal)]));
  const known = new Map<string, LessonEvent[]>(pieces.map((p) => [p.assignment, []]));
  let id = 0;
  const strand = STRANDS.indexOf(weak);
  const gradeOf = (music: SimulatedPiece['music'], from: number, to: number, isStuck: boolean): Grade => {
    const own = music.strands.slice(from, to + 1);
    const share =
      own.reduce((sum, m) => sum + (m[strand] ?? 0), 0) /
      Math.max(
        1,
        own.flat().reduce((a, b) => a + b, 0),
      );
    const noise = (random() + random() + random() - 1.5) * 1.3;
    const grade = Math.round(skill - 2.2 * share + 0.35 + noise);
    return (isStuck ? 1 : Math.min(4, Math.max(1, grade))) as Grade;
  };
  days.forEach((day, l) => {
    const isStuck = days.length - l <= stuckFor;
    const current = pieces.filter((p) => p.since <= day).toReversed();
    const learnedOf = (piece: SimulatedPiece) => learnedIn(piece.music.ids, known.get(piece.assignment)!);
    const nextOf = (piece: SimulatedPiece) =>
      nextSteps(planState(chunksOf.get(piece.assignment)!, learnedOf(piece)), 6);
    const dueOf = ({ assignment, music, goal, ...piece }: SimulatedPiece) => {
      const learned = learnedOf({ assignment, music, goal, ...piece });
      const states = measureStates(music.form, learned, goal);
      return dueOn(reviewsOf(chunksOf.get(assignment)!, learned, states, music.ids, goal), day, 2);
    };
    let minute = 2;
    let said: { grade: Grade; where: string } | undefined;
    const record = (piece: SimulatedPiece, chunk: string, step: string, tempo: number | null): void => {
      const [from = 0, to = from] = chunk.split('..').map((m) => piece.music.ids.indexOf(m));
      const grade = gradeOf(piece.music, from, to, isStuck && step !== REVIEW);
      const isPlayed = step !== 'hear';
      id += 1;
      minute += 2 + Math.floor(random() * 3);
      events.push({
        assignment: piece.assignment,
        lesson: l,
        minute,
        chunk,
        step,
        tempo,
        day,
        grade: isPlayed ? grade : null,
      });
      known.get(piece.assignment)!.push({
        id,
        chunk,
        step,
        tempo,
        day,
        grade: isPlayed ? grade : null,
        by: 'teacher',
        at: day,
        withdraws: null,
        ...playedBy(step),
      });
      if (isPlayed && (!said || grade < said.grade))
        said = { grade, where: `${measuresText(piece.music.numbers, from, to)} of ${piece.title}` };
    };
    // What is due comes first and is short; then the piece in hand, and a little of the one before.
    for (const piece of current)
      for (const review of dueOf(piece).slice(0, 1)) record(piece, review.chunk, REVIEW, null);
    current.slice(0, 2).forEach((piece, i) => {
      const count = Math.max(1, Math.round((i === 0 ? steps : steps / 3) * (0.7 + 0.6 * random())));
      for (let s = 0; s < count; s++) {
        const [next] = nextOf(piece);
        if (!next) break;
        record(piece, next.chunk.id, next.step.id, next.tempo);
      }
    });
    const lines = said
      ? SAID[said.grade]
      : ['Began a new piece: listened, found the hands, clapped the rhythm.'];
    const line = lines[Math.floor(random() * lines.length)]!;
    lessons.push({
      day,
      note: said ? capital(line.replace('§', said.where)) : line,
      minutesSet: minutesADay,
      practised: Math.round((minutesADay * (3 + 3.5 * random() * (skill / 3.2))) / 5) * 5,
      // Only the last one is looked at again.
      week:
        l < days.length - 1
          ? []
          : weekOf(
              current.map((piece) => ({
                assignment: piece.assignment,
                next: nextOf(piece),
                due: dueOf(piece),
              })),
              minutesADay,
            ),
    });
  });
  return { events, lessons };
}

/** The days of so many weekly lessons up to a day. */
export const weeklyDays = (last: Day, count: number): Day[] =>
  Array.from({ length: count }, (_, i) => daysAfter(last, -7 * (count - 1 - i)));
