/** The basic version first, then the fuller one: what was learned in the first is known in the second where it is the same. */
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import { documentOf, listed } from '$core/version/document';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { OpenDb } from '../db/open';
import { inThisThread } from '../pool/work';
import { NORA, testStudio, type TestStudio } from '../test/studio';
import { recordEvent } from './events';
import { giveNow } from './giving';
import { addLearner, findLearner, startFor } from './learners';
import { addPiece } from './pieces';
import { findProgress, isWhole, piecesOfLearner } from './progress';
import { addVersion, findVersion } from './versions';

let studio: TestStudio;
let db: OpenDb;
beforeEach(() => {
  studio = testStudio();
  db = studio.db;
});
afterEach(() => studio.end());

const SONG = new TextEncoder().encode(
  writeMusicXml(
    scoreFrom({
      title: 'Eight',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      tempo: 80,
      right: 'C4:2 E4:2 | D4:4 | E4:4 | F4:4 | G4:4 | A4:4 | B4:4 | C5:4',
      chords: 'C | G | C | F | C | F | G | C',
    }),
  ),
);

/** Gives a student another version of a piece, the later the next second. */
async function given(
  learner: string,
  piece: string,
  texture: 'held-root' | 'root-then-fifth',
  second: number,
) {
  const start = startFor(findLearner(db, learner)!);
  const id = addVersion(
    db,
    piece,
    documentOf({ ...start.recipe, level: 2, key: 'C' }, [
      ...listed(start),
      { kind: 'texture', at: { version: true }, value: texture },
    ]),
  );
  const assignment = await giveNow(db, inThisThread(db), findVersion(db, id)!, learner);
  db.$client
    .prepare('update assignment set created_at = ? where id = ?')
    .run(`2026-01-01T10:00:0${second}.000Z`, assignment);
  return { assignment, version: id };
}

it('counts the hand that stays, says from where, and leaves other students alone', async () => {
  const nora = addLearner(db, { ...NORA, name: 'Nora', level: 2 }, '2026-01-01');
  const piece = addPiece(db, { name: 'eight.musicxml', bytes: SONG, rights: 'own work' });
  const basic = await given(nora, piece, 'held-root', 1);
  const fuller = await given(nora, piece, 'root-then-fifth', 2);
  const steps = async () => (await findProgress(db, inThisThread(db), fuller.assignment))!.progress;
  expect((await steps()).known).toEqual([]);
  const isRightDone = async (): Promise<readonly boolean[]> =>
    (await steps()).plans.flatMap(({ steps: own }) =>
      own.filter((s) => s.id === 'right').map((s) => s.done !== null),
    );
  expect((await isRightDone()).some(Boolean)).toBe(false);
  const list = () => piecesOfLearner(db, inThisThread(db), nora);
  await list();

  for (const step of ['right', 'left'])
    recordEvent(db, { assignment: basic.assignment, chunk: 'm0..m7', step, tempo: 60, grade: 3 }, {});
  const { known, plans, events } = await steps();
  expect(known).toEqual([
    { where: 'right hand, measures 1 to 8; left hand, measure 8', version: basic.version },
  ]);
  expect(await isRightDone()).toEqual((await isRightDone()).map(() => true));
  // The other left hand is still to be learned, and nothing was written down for it.
  expect(plans.flatMap((p) => p.steps.filter((s) => s.id === 'left' && s.done !== null)).length).toBeLessThan(
    plans.length,
  );
  expect(events).toEqual([]);
  // The list knows of it too, though what it kept was made before.
  const line = (await list()).find((l) => l.id === fuller.assignment)!;
  expect(isWhole(line) && line.status).toBe('new');
  expect(isWhole(line) && line.next.every((n) => n.step.id !== 'right')).toBe(true);

  const teo = addLearner(db, { ...NORA, name: 'Teo', level: 2 }, '2026-01-01');
  const other = await given(teo, piece, 'root-then-fifth', 3);
  expect((await findProgress(db, inThisThread(db), other.assignment))!.progress.known).toEqual([]);
});
