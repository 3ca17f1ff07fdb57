/** The ladder of tempi: from the first slow one, by how hard the music is, to the goal and never above it. In quarter notes per minute. */
import type { StepTempi } from '../steps';

/** Slowest tempo that a ladder begins with, unless the goal itself is slower. */
const SLOWEST = 30;
/** Share of the goal that easy music (difficulty 10 and below) begins with, and very hard music (70 and above). */
const EASY = { difficulty: 10, share: 0.72 };
const HARD = { difficulty: 70, share: 0.45 };
/** One rung is at most so many times the one below: a change that is felt and can be managed. */
const RUNG = 1.15;

/** Tempi are those of a metronome's marks: even numbers. Never above the goal. */
const marked = (tempo: number, goal: number): number =>
  Math.min(goal, Math.max(SLOWEST, Math.round(tempo / 2) * 2));

/** The first slow tempo for music of a difficulty (0 to 100) with a goal. */
export function firstTempo(difficulty: number, goal: number): number {
  const along = (difficulty - EASY.difficulty) / (HARD.difficulty - EASY.difficulty);
  return marked(goal * (EASY.share + Math.min(1, Math.max(0, along)) * (HARD.share - EASY.share)), goal);
}

/** Every tempo from the first slow one to the goal, both included. */
export function ladder(difficulty: number, goal: number): number[] {
  const first = firstTempo(difficulty, goal);
  const rungs = Math.max(0, Math.ceil(Math.log(goal / first) / Math.log(RUNG)));
  const tempi = Array.from({ length: rungs + 1 }, (_, i) =>
    i === rungs ? goal : marked(first * (goal / first) ** (i / rungs), goal),
  );
  return [...new Set(tempi)];
}

/** The tempi that a step asks for, the slowest first; the last one is where it is done. */
export function stepTempi(tempi: StepTempi, difficulty: number, goal: number): number[] {
  if (tempi === 'none') return [];
  if (tempi === 'goal') return [goal];
  const rungs = ladder(difficulty, goal);
  if (tempi === 'slow') return rungs.slice(0, 1);
  // Joined a rung above the first slow tempo, so that the joint is not where it slows down.
  if (tempi === 'joining') return rungs.slice(Math.min(1, rungs.length - 1)).slice(0, 1);
  return rungs.length > 1 ? rungs.slice(1) : rungs;
}
