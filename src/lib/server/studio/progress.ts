/** Where a learner stands in each piece: computed from the events, never stored. */
import { chunksOf, doneSteps, measureStates, nextStep, stepsOf, stepTempo } from '$core/lessons/plan';
import type { Db } from '../db/open';
import { assignmentsOf, eventsOf, findAssignment, type AssignmentRow } from './assignments';
import { findVersion, realiseVersion } from './versions';

/** Everything that the screens say about one assignment. */
export function progressOf(db: Db, assignment: AssignmentRow) {
  const row = findVersion(db, assignment.versionId);
  if (!row) throw new Error(`Assignment ${assignment.id} has lost its version.`);
  const version = realiseVersion(db, row);
  const events = eventsOf(db, assignment.id);
  const chunks = chunksOf(version.form);
  const states = measureStates(version.form, chunks, events);
  const done = doneSteps(events);
  const next = nextStep(chunks, events);
  const isNew = version.form.firstSeen.map((first, i) => first === i);
  const tempi = [...done.values()].map((e) => e.tempo ?? 0);
  return {
    id: assignment.id,
    versionId: row.id,
    title: row.title,
    level: row.recipe.level,
    key: version.key,
    goalTempo: assignment.goalTempo,
    reachedTempo: Math.max(0, ...tempi) || null,
    time: version.score.measures.at(-1)!.time,
    numbers: version.score.measures.map((m) => m.number),
    form: version.form,
    difficulty: version.difficulty.map((d) => d.score),
    states,
    bothHands: states.filter((s, i) => isNew[i] && (s === 'both' || s === 'goal')).length,
    next: next
      ? {
          chunk: next.chunk,
          step: { id: next.step.id, says: next.step.says, hand: next.step.hand },
          tempo: stepTempo(next.step, assignment.goalTempo),
        }
      : null,
    chunks: chunks.map((chunk) => ({
      ...chunk,
      steps: stepsOf(chunk).map((step) => {
        const event = done.get(`${chunk.id}:${step.id}`);
        return {
          id: step.id,
          says: step.says,
          hand: step.hand,
          suggested: stepTempo(step, assignment.goalTempo),
          done: event ? { tempo: event.tempo, at: event.at } : null,
        };
      }),
    })),
    events: events.map((event) => ({
      ...event,
      chunkName: chunks.find((c) => c.id === event.chunk) ?? null,
    })),
  };
}

export type Progress = ReturnType<typeof progressOf>;

export const piecesOfLearner = (db: Db, learnerId: string): Progress[] =>
  assignmentsOf(db, learnerId).map((assignment) => progressOf(db, assignment));

export function findProgress(
  db: Db,
  assignmentId: string,
): { progress: Progress; assignment: AssignmentRow } | undefined {
  const assignment = findAssignment(db, assignmentId);
  return assignment && { assignment, progress: progressOf(db, assignment) };
}
