/** The demo studio: invented learners, pieces composed for it, and a few weeks of lessons. */
import { formOf } from '$core/analysis/form';
import { chunksOf, stepsOf, stepTempo } from '$core/lessons/plan';
import type { StepId } from '$core/lessons/steps';
import type { Recipe } from '$core/version/recipe';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { atomically, type Db } from '../db/open';
import { learner, piece, studio } from '../db/schema';
import { giveVersion, recordStep } from './assignments';
import { addLearner, addLesson, findLearner, startFor, type LearnerInput } from './learners';
import { addPiece } from './pieces';
import { preparedPiece } from './prepared';
import { addVersion, findVersion, realiseVersion } from './versions';

export const isEmpty = (db: Db): boolean =>
  !db.select({ id: piece.id }).from(piece).limit(1).get() &&
  !db.select({ id: learner.id }).from(learner).limit(1).get();

const FILES = [
  'kite-weather.musicxml',
  'mill-pond-waltz.musicxml',
  'slow-ferry.musicxml',
  'fox-at-the-gate.musicxml',
  'teakettle-stroll.musicxml',
  'long-shadows.musicxml',
] as const;

const isoDay = (daysAgo: number): string =>
  new Date(Date.now() - daysAgo * 86_400_000).toISOString().slice(0, 10);

/** 1 Monday … 7 Sunday. */
const weekdayOf = (daysAgo: number): number => new Date(Date.now() - daysAgo * 86_400_000).getDay() || 7;

/** Fills an empty database in one transaction. The files are read from demo-studio/ beside the application. */
export function fillDemoStudio(db: Db, folder = process.env.KEYPATH_DEMO_FILES ?? 'demo-studio'): void {
  atomically(db, () => {
    db.insert(studio).values({ id: 1, name: 'Quay Street Studio' }).run();
    const [song, waltz] = FILES.map((name) =>
      addPiece(db, { name, bytes: readFileSync(join(folder, name)), rights: 'own work' }),
    ) as [string, string, ...string[]];

    const runa = addLearner(db, RUNA, isoDay(250));
    const teo = addLearner(db, TEO, isoDay(120));
    const berit = addLearner(db, BERIT, isoDay(600));

    const runaSong = give(db, song, runa, { key: 'C' });
    practise(db, runaSong, song, [
      { daysAgo: 21, chunk: 0, steps: ['hear', 'right-counting', 'right'] },
      { daysAgo: 14, chunk: 0, steps: ['left', 'both', 'faster'] },
      { daysAgo: 7, chunk: 1, steps: ['hear', 'right-counting', 'right'] },
    ]);
    addLesson(db, runa, isoDay(21), 'Started the verse, right hand counting aloud.');
    addLesson(
      db,
      runa,
      isoDay(14),
      'First phrase with both hands. The long note in measure 2 is held to its end now.',
    );
    addLesson(
      db,
      runa,
      isoDay(7),
      'Left hand moves early at the end of measure 4: say the count until it is steady.',
    );

    const teoWaltz = give(db, waltz, teo, {});
    practise(db, teoWaltz, waltz, [
      { daysAgo: 14, chunk: 0, steps: ['hear', 'right-counting', 'right', 'left', 'both', 'faster', 'goal'] },
      { daysAgo: 7, chunk: 1, steps: ['hear', 'right-counting', 'right', 'left', 'both'] },
    ]);
    addLesson(db, teo, isoDay(14), 'Opening at the goal tempo. Shoulders down in the second line.');
    addLesson(
      db,
      teo,
      isoDay(7),
      'Hurries where the left hand holds. Next: join the second line to the first.',
    );

    const beritSong = give(db, song, berit, {});
    practise(db, beritSong, song, [
      { daysAgo: 7, chunk: 0, steps: ['hear', 'right', 'left', 'both', 'faster', 'goal'] },
      { daysAgo: 7, chunk: 2, steps: ['hear', 'right'] },
    ]);
    addLesson(
      db,
      berit,
      isoDay(7),
      'Pedal cleared on every chord in the verse. Chorus next, right hand first.',
    );
    give(db, waltz, berit, { key: 'C' });
  });
}

function give(db: Db, pieceId: string, learnerId: string, change: Partial<Recipe>): string {
  const versionId = addVersion(db, pieceId, startFor(findLearner(db, learnerId)!, change));
  const { edit, ...row } = findVersion(db, versionId)!;
  return giveVersion(db, versionId, learnerId, {
    edit,
    goalTempo: realiseVersion(db, { edit, ...row }).goalTempo,
  });
}

function practise(
  db: Db,
  assignmentId: string,
  pieceId: string,
  days: readonly { daysAgo: number; chunk: number; steps: readonly StepId[] }[],
): void {
  const { score } = preparedPiece(db, pieceId);
  const chunks = chunksOf(formOf(score), score.measures);
  for (const { daysAgo, chunk: index, steps } of days) {
    const chunk = chunks[index]!;
    for (const step of stepsOf(chunk).filter((s) => steps.includes(s.id)))
      recordStep(db, assignmentId, {
        chunk: chunk.id,
        step: step.id,
        tempo: step.hand ? stepTempo(step, 80) : null,
        undone: false,
        at: `${isoDay(daysAgo)}T16:00:00.000Z`,
      });
  }
}

const RUNA: LearnerInput = {
  name: 'Runa',
  weekday: weekdayOf(0),
  time: '16:30',
  level: 2,
  reachRight: 7,
  reachLeft: 7,
  keyboard: 61,
  hasPedal: false,
  school: null,
  voiceLow: 'B3',
  voiceHigh: 'C5',
};

const TEO: LearnerInput = {
  name: 'Teo',
  weekday: weekdayOf(0),
  time: '17:15',
  level: 1,
  reachRight: 8,
  reachLeft: 8,
  keyboard: 49,
  hasPedal: false,
  school: null,
  voiceLow: null,
  voiceHigh: null,
};

const BERIT: LearnerInput = {
  name: 'Berit',
  weekday: weekdayOf(-1),
  time: '09:00',
  level: 3,
  reachRight: 9,
  reachLeft: 9,
  keyboard: 88,
  hasPedal: true,
  school: null,
  voiceLow: 'G3',
  voiceHigh: 'D5',
};
