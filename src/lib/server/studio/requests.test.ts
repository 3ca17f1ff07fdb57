/** A request from its first word to its promise, and the room’s record beside it. */
import { toldStep } from '$core/test/told';
import { resultsText } from '$core/lessons/home';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { documentOf } from '$core/version/document';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MELODY, NORA, testStudio, type TestStudio } from '../test/studio';
import { changeGoal, giveVersion } from './assignments';
import { eventsOf } from './events';
import { addLearner } from './learners';
import { addPiece } from './pieces';
import { addRequest, becomePiece, closeRequest, listRequests, requestSchema } from './requests';
import {
  doorKey,
  isPin,
  keepFromRoom,
  practisedByDay,
  renewRoom,
  roomByToken,
  roomOf,
  setPin,
  withdrawRoom,
} from './room';
import { takeResults } from './takenHome';
import { addVersion } from './versions';

let studio: TestStudio;
beforeEach(() => void (studio = testStudio()));
afterEach(() => studio.end());

const asked = (learner = '') =>
  requestSchema.parse({
    title: ' The  Ferry Song ',
    learner,
    askedBy: 'a neighbor',
    place: 'https://sound.invalid/ferry',
    known: 'slow, in a minor key',
  });

/** Two students, of whom the first has a version. */
function twoStudents() {
  const { db } = studio;
  const nora = addLearner(db, NORA, '2026-11-01');
  const odd = addLearner(db, { ...NORA, name: 'Odd' }, '2026-11-01');
  const piece = addPiece(db, { ...MELODY, rights: 'own work' });
  const version = addVersion(db, piece, documentOf({ ...DEFAULT_RECIPE, level: 1 }, []));
  return { nora, odd, version, assignment: giveVersion(db, version, nora, { edit: 0, goalTempo: 80 }) };
}

describe('a request', () => {
  it('goes from asked to promised by what is done with the piece, and is never stored twice', () => {
    const { db } = studio;
    const nora = addLearner(db, NORA, '2026-11-01');
    const other = addLearner(db, { ...NORA, name: 'Odd', level: 3 }, '2026-11-01');
    const id = addRequest(db, asked(nora), '2026-11-20');
    const line = () => listRequests(db)[0]!;
    expect(line()).toMatchObject({ title: 'The Ferry Song', by: 'Nora', day: '2026-11-20', stage: 'asked' });
    const piece = addPiece(db, { ...MELODY, rights: 'own work' });
    expect(becomePiece(db, id, 'no such piece')).toBe(false);
    expect(becomePiece(db, id, piece)).toBe(true);
    expect(line().stage).toBe('piece');
    const at = (level: number) => addVersion(db, piece, documentOf({ ...DEFAULT_RECIPE, level }, []));
    const [first] = [at(1), at(3)];
    // The version nearest to whoever asked; the other suits another.
    expect(line()).toMatchObject({ stage: 'version', version: { id: first, level: 1 } });
    expect(line().suits.map((s) => s.name)).toEqual(['Odd']);
    const assignment = giveVersion(db, first, nora, { edit: 0, goalTempo: 80 });
    expect(line()).toMatchObject({ stage: 'assigned', assignment: { id: assignment, goalDate: null } });
    changeGoal(db, assignment, { goalTempo: 80, goalDate: '2026-12-24' }, {});
    expect(line()).toMatchObject({ stage: 'promised', assignment: { goalDate: '2026-12-24' } });
    expect(line().suits.map((s) => s.id)).toEqual([other]);
    closeRequest(db, id, true);
    expect(listRequests(db)).toEqual([]);
    closeRequest(db, id, false);
    expect(listRequests(db)).toHaveLength(1);
  });

  it('is of somebody else, too, the newest first', () => {
    addRequest(studio.db, asked(), '2026-11-20');
    addRequest(studio.db, { ...asked(), title: 'Another' }, '2026-11-21');
    expect(listRequests(studio.db).map((r) => [r.title, r.by, r.learnerId])).toEqual([
      ['Another', 'a neighbor', null],
      ['The Ferry Song', 'a neighbor', null],
    ]);
  });
});

describe('a practice room', () => {
  it('is entered by its newest link alone, with its PIN', async () => {
    const { db } = studio;
    const nora = addLearner(db, NORA, '2026-11-01');
    const first = renewRoom(db, nora);
    expect(first).toMatch(/^[\w-]{22}$/);
    await setPin(db, nora, '4711');
    const second = renewRoom(db, nora);
    expect(roomByToken(db, first)).toBeUndefined();
    const { room, learner } = roomByToken(db, second)!;
    expect(learner.id).toBe(nora);
    expect(await isPin(room, '4711')).toBe(true);
    expect(await isPin(room, '4712')).toBe(false);
    const key = doorKey(room);
    await setPin(db, nora, '1234');
    expect(doorKey(roomOf(db, nora)!)).not.toBe(key);
    withdrawRoom(db, nora);
    expect(roomByToken(db, second)).toBeUndefined();
    expect(roomByToken(db, "' or 1=1 --")).toBeUndefined();
  });

  it('keeps what it tells once, and nothing of what another has', () => {
    const { db } = studio;
    const { nora, odd, assignment } = twoStudents();
    const event = toldStep('told-once-and-only-once', {
      assignment,
      chunk: 'm0..m1',
      step: 'hear',
      hand: null,
      tempo: null,
      grade: null,
      by: 'learner',
    });
    expect(keepFromRoom(db, odd, event)).toBe(false);
    expect(keepFromRoom(db, nora, event)).toBe(true);
    expect(keepFromRoom(db, nora, event)).toBe(true);
    expect(eventsOf(db, assignment).map((e) => [e.step, e.by])).toEqual([['hear', 'learner']]);
    const practised = { kind: 'practice', token: 'minutes-once-and-once', seconds: 150 } as const;
    keepFromRoom(db, nora, practised);
    keepFromRoom(db, nora, practised);
    expect([...practisedByDay(db, nora, '2000-01-01').values()]).toEqual([3]);
    expect([...practisedByDay(db, odd, '2000-01-01').values()]).toEqual([]);
  });

  it('adds results from home once, also of a file made from the version, and none of another student’s', () => {
    const { db } = studio;
    const { nora, odd, version, assignment } = twoStudents();
    // Three weeks ago: a lesson was missed.
    const at = new Date(Date.now() - 21 * 86_400_000).toISOString();
    const step = (token: string, of: string) => toldStep(token, { assignment: of, chunk: 'm0..m1', at });
    const sent = [
      step('told-at-home-and-once-1', assignment),
      step('told-at-home-and-once-2', version),
      step('told-at-home-and-once-3', 'elsewhere'),
      { kind: 'practice', token: 'minutes-at-home-and-once', seconds: 600, at } as const,
    ];
    const text = resultsText('Nora', sent);
    expect(() => takeResults(db, odd, text)).toThrow('aren’t assigned to this student');
    expect(practisedByDay(db, odd, '2000-01-01').size).toBe(0);
    expect(takeResults(db, nora, text)).toEqual({
      says: 'Added: 2 results and 10 minutes of practice. 1 result about other pieces left out.',
      changed: [assignment],
    });
    expect(eventsOf(db, assignment).map((e) => [e.step, e.by, e.at])).toEqual([
      ['right', 'ear', at],
      ['right', 'ear', at],
    ]);
    expect(takeResults(db, nora, text).says).toBe('These results were already added.');
    expect(eventsOf(db, assignment)).toHaveLength(2);
  });
});
