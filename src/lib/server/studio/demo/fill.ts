/** The demo studio: invented learners, pieces composed for it, and months of lessons, from a fixed seed and relative to today. */
import { daysAfter, instantOf, weekdayOf } from '$core/lessons/calendar';
import { proposedPlan } from '$core/lessons/plan';
import { strandsOf } from '$core/difficulty/strands';
import { toLearn } from '$core/version/toLearn';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { atomically, type Db } from '../../db/open';
import { assignment, learner, piece, studio } from '../../db/schema';
import { eq } from 'drizzle-orm';
import { giveVersion } from '../assignments';
import { todayIn, zoneOf } from '../clock';
import { recordEvent } from '../events';
import { addGroup } from '../groups';
import { addLearner, findLearner, startFor } from '../learners';
import { addLesson } from '../lessons';
import { addPiece } from '../pieces';
import { setPlan } from '../plans';
import { addVersion, findVersion, realiseVersion, signVersion } from '../versions';
import { DEMO_LEARNERS, type DemoLearner, type DemoPiece } from './learners';
import { seeded, simulate, weeklyDays, type SimulatedPiece } from './simulate';

export const isEmpty = (db: Db): boolean =>
  !db.select({ id: piece.id }).from(piece).limit(1).get() &&
  !db.select({ id: learner.id }).from(learner).limit(1).get();

const PIECES: readonly DemoPiece[] = [
  'kite-weather',
  'mill-pond-waltz',
  'slow-ferry',
  'fox-at-the-gate',
  'teakettle-stroll',
  'long-shadows',
];

/** Fills an empty database in one transaction. The files are read from demo-studio/ beside the application. */
export function fillDemoStudio(db: Db, folder = process.env.KEYPATH_DEMO_FILES ?? 'demo-studio'): void {
  atomically(db, (tx) => {
    tx.insert(studio).values({ id: 1, name: 'Quay Street Studio' }).run();
    const pieces = new Map(
      PIECES.map((name) => {
        const file = `${name}.musicxml`;
        return [
          name,
          addPiece(tx, { name: file, bytes: readFileSync(join(folder, file)), rights: 'own work' }),
        ];
      }),
    );
    const ids = new Map(
      DEMO_LEARNERS.map((demo, i) => [demo.learner.name, fillLearner(tx, demo, pieces, i + 1)]),
    );
    const byName = (name: string): string => ids.get(name)!;
    addGroup(
      tx,
      'Saturday four',
      pieces.get('kite-weather')!,
      ['Runa', 'Berit', 'Sunniva', 'Maelle'].map(byName),
    );
  });
}

/** One learner with their past; their id comes back. */
function fillLearner(
  db: Db,
  demo: DemoLearner,
  pieces: ReadonlyMap<DemoPiece, string>,
  seed: number,
): string {
  const [today, zone] = [todayIn(db), zoneOf(db)];
  const next = daysAfter(today, demo.comesIn);
  const since = daysAfter(next, -7 * demo.sinceWeeks);
  const id = addLearner(db, { ...demo.learner, weekday: weekdayOf(next) }, since);
  const days = weeklyDays(daysAfter(next, -7), demo.lessons);
  const given = demo.given.map((g): SimulatedPiece => {
    const own = addVersion(db, pieces.get(g.piece)!, startFor(findLearner(db, id)!, g.change ?? {}));
    const row = findVersion(db, own)!;
    const made = realiseVersion(db, row);
    const begun = daysAfter(next, -7 * Math.min(g.since, demo.lessons));
    // What was given last is not signed yet where it is new.
    if (g.since > 4) signVersion(db, row);
    const assigned = giveVersion(db, own, id, { edit: row.edit, goalTempo: made.goalTempo });
    const music = { ...toLearn(made), strands: strandsOf(made.score) };
    const plan = proposedPlan(music, g.method ?? 'front to back');
    if (g.method) setPlan(db, assigned, plan);
    db.update(assignment)
      .set({
        createdAt: `${begun}T08:00:00.000Z`,
        goalDate: g.promised === undefined ? null : daysAfter(today, g.promised),
      })
      .where(eq(assignment.id, assigned))
      .run();
    return { assignment: assigned, title: row.title, music, plan, goal: made.goalTempo, since: begun };
  });
  const traits = { ...demo, minutesADay: demo.learner.minutesADay, stuckFor: demo.stuckFor ?? 0 };
  const { events, lessons } = simulate(given, traits, days, seeded(seed));
  const lessonIds = lessons.map(({ day, note, ...set }) => addLesson(db, id, day, note, set));
  for (const { assignment: of, lesson: at, minute, chunk, step, tempo, day, grade } of events) {
    const began = instantOf(zone, day, demo.learner.time ?? '12:00').getTime();
    recordEvent(
      db,
      { assignment: of, chunk, step, tempo, grade },
      { lesson: lessonIds[at]!, past: { day, at: new Date(began + minute * 60_000).toISOString() } },
    );
  }
  return id;
}
