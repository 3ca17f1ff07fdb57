/** A lesson afterwards: what was done and how it went, what was said, and what is set for the week, in words. */
import { gradeText, holding, type Grade } from '$core/lessons/events';
import { measuresText } from '$core/score/measureText';
import type { TimeSignature } from '$core/score/score';
import { REVIEW, stepFacts } from '$core/lessons/steps';
import type { Db } from '../db/open';
import type { Work } from '../pool/work';
import { eventsInLessons } from './events';
import type { LessonRow } from './lessons';
import { findProgress, type Progress } from './progress';

/** A line of what was done. */
export interface DoneLine {
  readonly title: string;
  readonly time: TimeSignature;
  readonly where: string;
  readonly step: string;
  readonly tempo: number | null;
  readonly grade: string | null;
}

export interface SetLine {
  readonly assignment: string;
  readonly versionId: string;
  readonly title: string;
  readonly time: TimeSignature;
  readonly chunk: string;
  readonly where: string;
  readonly steps: readonly string[];
  readonly tempo: number | null;
  readonly minutes: number;
  readonly why: 'next' | 'due';
}

const nameOf = (progress: Progress, step: string): string =>
  step === REVIEW
    ? 'Play it again'
    : (progress.plans.flatMap((p) => p.steps).find((s) => s.id === step)?.says ??
      stepFacts(step)?.says ??
      'A step');

function whereIn({ ids, numbers, form }: Progress, chunk: string): string {
  const [first = '', last = first] = chunk.split('..');
  const [from, to] = [ids.indexOf(first), ids.indexOf(last)];
  if (from < 0 || to < 0) return 'measures that this version does not have';
  const section = form.sections.find((s) => from >= s.from && from <= s.to)?.label ?? '';
  const isWhole = from === 0 && to >= ids.length - 1;
  return isWhole ? 'all of it' : `${section ? `${section}, ` : ''}${measuresText(numbers, from, to)}`;
}

/** What a lesson brought and what it set. */
export async function lessonInWords(
  db: Db,
  work: Work,
  lesson: LessonRow,
): Promise<{ readonly done: readonly DoneLine[]; readonly set: readonly SetLine[] }> {
  const events = holding(eventsInLessons(db, [lesson.id]));
  const week = lesson.week ?? [];
  const found = new Map<string, Progress>();
  for (const id of new Set([...events.map((e) => e.assignment), ...week.map((w) => w.assignment)])) {
    const one = await findProgress(db, work, id);
    if (one) found.set(id, one.progress);
  }
  return {
    done: events.flatMap((event) => {
      const progress = found.get(event.assignment);
      return progress
        ? [
            {
              title: progress.title,
              time: progress.time,
              where: whereIn(progress, event.chunk),
              step: nameOf(progress, event.step),
              tempo: event.tempo,
              grade: event.grade === null ? null : gradeText(event.grade as Grade),
            },
          ]
        : [];
    }),
    set: week.flatMap((item) => {
      const progress = found.get(item.assignment);
      return progress
        ? [
            {
              assignment: item.assignment,
              versionId: progress.versionId,
              title: progress.title,
              time: progress.time,
              chunk: item.chunk,
              where: whereIn(progress, item.chunk),
              steps: item.steps.map((s) => nameOf(progress, s)),
              tempo: item.tempo,
              minutes: item.minutes,
              why: item.why,
            },
          ]
        : [];
    }),
  };
}
