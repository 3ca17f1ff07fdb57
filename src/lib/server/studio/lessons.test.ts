/** Lessons, slots, plans, classes and months in a real database. */
import { mondayOf } from '$core/lessons/calendar';
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import ICAL from 'ical.js';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase, type OpenDb } from '../db/open';
import { inThisThread } from '../pool/work';
import { NORA } from '../test/studio';
import { calendarText } from './calendarFile';
import { membersOf, sectionsTogether, tempoTogether } from './classPage';
import { setZone, todayIn } from './clock';
import { recordEvent } from './events';
import { giveNow } from './giving';
import { addGroup, listGroups } from './groups';
import { addLearner, findLearner, startFor, weeklyOf } from './learners';
import { addLesson, beginLesson, changeLesson, endLesson, findLesson, latestLessons } from './lessons';
import { monthReport, monthText } from './monthReport';
import { studioOverview, unsignedVersions } from './overview';
import { addPiece } from './pieces';
import { editPlan, keepTemplate, templates, undoPlanEdit, type PlanChanged } from './plans';
import { findProgress, historiesOf, isWhole, piecesOfLearner } from './progress';
import { stateOf } from '$core/lessons/slots';
import { addHoliday, addSlot, editSlot, lessonsBetween, setWeekly } from './slots';
import { versionSummaryOf } from './summaries';
import { addVersion, findVersion, signVersion } from './versions';
import { lessonInWords } from './weekPage';

let folder: string;
let db: OpenDb;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-lessons-'));
  db = openDatabase(folder, 'drizzle');
});
afterEach(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const SONG = new TextEncoder().encode(
  writeMusicXml(
    scoreFrom({
      title: 'Eight',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      tempo: 80,
      right: 'C4:4 | D4:4 | E4:4 | F4:4 | G4:4 | A4:4 | B4:4 | C5:4',
      left: 'C3:4 | G2:4 | C3:4 | F2:4 | C3:4 | F2:4 | G2:4 | C3:4',
    }),
  ),
);
const learner = (name: string, level = 1): string => addLearner(db, { ...NORA, name, level }, '2026-01-01');
async function given(learnerId: string, pieceId: string): Promise<string> {
  const id = addVersion(db, pieceId, startFor(findLearner(db, learnerId)!));
  return giveNow(db, inThisThread(db), findVersion(db, id)!, learnerId);
}
const did = (assignment: string, chunk: string, step: string, more: object = {}): number =>
  recordEvent(db, { assignment, chunk, step, tempo: null, grade: null }, more);

describe('weekly times', () => {
  it('are a student’s from a day on; what was before stays', () => {
    const id = learner('Nora');
    const today = todayIn(db);
    expect(weeklyOf(db, id)).toMatchObject({ weekday: 2, time: '16:00', minutes: 30 });
    setWeekly(db, id, { weekday: 4, time: '10:15' }, today);
    const months = lessonsBetween(db, '2026-01-01', '2027-12-31');
    expect(months.filter((l) => l.day < today).every((l) => l.time === '16:00')).toBe(true);
    expect(months.filter((l) => l.day >= today).every((l) => l.time === '10:15')).toBe(true);
    setWeekly(db, id, null, today);
    expect(lessonsBetween(db, today, '2027-12-31')).toEqual([]);
  });
  it('are moved, cancelled and doubled, once and from then on, and are as usual again', () => {
    const id = learner('Nora');
    const slot = weeklyOf(db, id)!.id;
    const days = (from: string, to: string) =>
      lessonsBetween(db, from, to).map((l) => `${l.day} ${l.time} ${l.minutes} ${l.state}`);
    editSlot(db, { do: 'cancel', slot, day: '2027-01-05', scope: 'once' });
    editSlot(db, { do: 'double', slot, day: '2027-01-12', scope: 'once' });
    expect(days('2027-01-04', '2027-01-12')).toEqual([
      '2027-01-05 16:00 30 cancelled',
      '2027-01-12 16:00 60 doubled',
    ]);
    editSlot(db, { do: 'restore', slot, day: '2027-01-05' });
    expect(days('2027-01-05', '2027-01-05')).toEqual(['2027-01-05 16:00 30 usual']);
    editSlot(db, { do: 'move', slot, day: '2027-01-19', scope: 'on', toDay: '2027-01-20', toTime: '09:00' });
    expect(days('2027-01-18', '2027-01-27')).toEqual([
      '2027-01-20 09:00 30 usual',
      '2027-01-27 09:00 30 usual',
    ]);
    expect(editSlot(db, { do: 'restore', slot: 'none', day: '2027-01-05' })).toBe('gone');
    // What was meant for another state of a lesson is not done to it.
    const [seen] = lessonsBetween(db, '2027-01-12', '2027-01-12');
    const double = {
      do: 'double',
      slot,
      day: '2027-01-12',
      scope: 'once',
      was: 'usual 2027-01-12 16:00 30',
    } as const;
    expect(editSlot(db, double)).toMatchObject({ there: { state: 'doubled' } });
    expect(editSlot(db, { ...double, was: stateOf(seen!) })).toBe('done');
  });
});

describe('a calendar file', () => {
  it('is read by another library: each lesson at its instant, over the change of the clock, by its name where it is moved', () => {
    setZone(db, 'Europe/Vienna');
    const id = learner('Nora');
    const slot = weeklyOf(db, id)!.id;
    const group = addGroup(db, 'Duo', addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' }), [
      id,
    ]);
    addSlot(db, { whose: `class ${group}`, day: '2027-03-20', time: '11:00', minutes: 45, every: 'once' });
    const read = () =>
      new ICAL.Component(ICAL.parse(calendarText(db, 'The studio', undefined, '2027-03-20')) as string[])
        .getAllSubcomponents('vevent')
        .map((e) => new ICAL.Event(e));
    const at = (day: string) => read().find((e) => e.startDate.toJSDate().toISOString().startsWith(day))!;
    // The clocks go forward on 28 March.
    expect(at('2027-03-23').startDate.toJSDate().toISOString()).toBe('2027-03-23T15:00:00.000Z');
    expect(at('2027-03-30').startDate.toJSDate().toISOString()).toBe('2027-03-30T14:00:00.000Z');
    expect(read().filter((e) => e.summary === 'Piano, Duo')).toHaveLength(1);
    const { uid } = at('2027-03-30');
    editSlot(db, {
      do: 'move',
      slot,
      day: '2027-03-30',
      scope: 'once',
      toDay: '2027-04-02',
      toTime: '08:30',
    });
    expect(at('2027-04-02')).toMatchObject({ uid });
    addHoliday(db, { from: '2027-04-05', to: '2027-04-09', name: 'Spring' });
    expect(at('2027-04-06').component.getFirstPropertyValue('status')).toBe('CANCELLED');
  });
  it('is one also where there is no lesson', () => {
    expect(ICAL.parse(calendarText(db, 'Empty'))).toBeTruthy();
  });
});

describe('a lesson', () => {
  it('is begun once a day, keeps what is written, ends, and is told in words', async () => {
    const [id, piece] = [
      learner('Nora'),
      addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' }),
    ];
    const assignment = await given(id, piece);
    const lesson = beginLesson(db, id);
    expect(beginLesson(db, id)).toBe(lesson);
    did(assignment, 'm0..m3', 'right', { lesson });
    recordEvent(db, { assignment, chunk: 'm0..m3', step: 'left', tempo: 50, grade: 2 }, { lesson });
    changeLesson(db, lesson, { note: 'Softer.' });
    changeLesson(db, lesson, {
      week: [{ assignment, chunk: 'm0..m3', steps: ['both', 'review'], tempo: 50, minutes: 10, why: 'next' }],
    });
    endLesson(db, lesson, true);
    expect(beginLesson(db, id)).not.toBe(lesson);
    const row = findLesson(db, lesson)!;
    expect(row).toMatchObject({ note: 'Softer.', week: [{ minutes: 10 }] });
    const { done, set } = await lessonInWords(db, inThisThread(db), row);
    expect(done.map((d) => [d.step, d.grade])).toEqual([
      ['Right hand', null],
      ['Left hand', 'with help'],
    ]);
    expect(set[0]).toMatchObject({
      where: 'A, measures 1 to 4',
      steps: ['Hands together, slowly', 'Play it again'],
    });
    expect(changeLesson(db, 'none', { note: '' })).toBeUndefined();
    // Another window: what it did not touch is kept, what both wrote is not overwritten.
    expect(
      changeLesson(db, lesson, { note: 'Louder.', practised: 30, was: { note: '', practised: null } }),
    ).toEqual({
      note: 'Softer.',
    });
    expect(findLesson(db, lesson)).toMatchObject({ note: 'Softer.', practised: 30 });
    expect(changeLesson(db, lesson, { note: 'Softer still.', was: { note: 'Softer.' } })).toEqual({});
    expect(latestLessons(db, [id], 5).get(id)!.length).toBe(2);
  });
});

describe('a plan in the studio', () => {
  it('is as proposed until it is changed, and what was learned stays', async () => {
    const [id, piece] = [
      learner('Nora'),
      addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' }),
    ];
    const assignment = await given(id, piece);
    const now = async () => (await findProgress(db, inThisThread(db), assignment))!.progress;
    did(assignment, 'm0..m3', 'both');
    const { versionId, pieceId } = await now();
    const summary = await versionSummaryOf(db, inThisThread(db), { versionId, pieceId, number: 0 });
    expect((await now()).isProposed).toBe(true);
    const split = editPlan(db, assignment, { do: 'split', chunk: 'm0..m3', before: 'm2' }, summary);
    expect(split).toMatchObject({ before: null });
    const { plans, isProposed } = await now();
    expect(isProposed).toBe(false);
    expect(plans.slice(0, 2).map((p) => !!p.steps.find((s) => s.id === 'both')!.done)).toEqual([true, true]);
    expect(editPlan(db, assignment, { do: 'join', chunk: 'm90..m91' }, summary)).toHaveProperty('refused');
    keepTemplate(db, 'Mine', 'hardest first', [{ id: 'both', name: null }]);
    keepTemplate(db, 'Mine', 'hardest first', [{ id: 'left', name: null }]);
    expect(templates(db).map((t) => t.steps)).toEqual([[{ id: 'left', name: null }]]);
    expect(undoPlanEdit(db, assignment, split as PlanChanged, summary)).toHaveProperty('after');
    expect((await now()).isProposed).toBe(true);
    // A changed plan is seen in the lists.
    const [line] = await piecesOfLearner(db, inThisThread(db), id);
    editPlan(db, assignment, { do: 'drop', chunk: 'm0..m3' }, summary);
    const [after] = await piecesOfLearner(db, inThisThread(db), id);
    const left = (of: typeof line): number => (of && isWhole(of) ? of.left : NaN);
    expect(left(after)).toBeLessThan(left(line));
    editPlan(db, assignment, { do: 'add', at: 0, from: 'm0', to: 'm3' }, summary);
    // What another window does to another chunk is kept beside it, and stays when this change is taken back.
    const was = (await now()).plan;
    const name = (chunk: string, called: string, from = was) =>
      editPlan(db, assignment, { do: 'name', chunk, name: called }, summary, from);
    const chunks = was.chunks.map((c) => `${c.from}..${c.to}`);
    const here = name(chunks[0]!, 'Here');
    expect(name(chunks[1]!, 'There')).toHaveProperty('after');
    expect(name(chunks[0]!, 'Elsewhere')).toMatchObject({
      refused: expect.stringContaining('another window') as string,
    });
    expect((await now()).plan.chunks.slice(0, 2).map((c) => c.name)).toEqual(['Here', 'There']);
    undoPlanEdit(db, assignment, here as PlanChanged, summary);
    expect((await now()).plan.chunks.slice(0, 2).map((c) => c.name)).toEqual([null, 'There']);
  });
});

describe('the overview', () => {
  it('says who is stuck: two lessons with nothing gained; and who needs a piece, and what is draft', async () => {
    const [nora, ida] = [learner('Nora'), learner('Ida')];
    const piece = addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' });
    const assignment = await given(nora, piece);
    did(assignment, 'm0..m3', 'hear', { past: { at: '2026-01-02T10:00:00.000Z', day: '2026-01-02' } });
    for (const day of ['2026-02-03', '2026-02-10']) {
      const lesson = addLesson(db, nora, day, 'Again.');
      recordEvent(
        db,
        { assignment, chunk: 'm0..m3', step: 'right', tempo: 60, grade: 1 },
        { lesson, past: { day, at: `${day}T10:00:00.000Z` } },
      );
    }
    const seen = async (id: string) => (await studioOverview(db, inThisThread(db))).find((o) => o.id === id)!;
    expect((await seen(nora)).stuck).toMatchObject({
      title: 'Eight',
      at: { step: { id: 'right-counting' } },
    });
    expect((await seen(ida)).needsPiece).toBe(true);
    const lesson = addLesson(db, nora, '2026-02-17', 'There.');
    recordEvent(
      db,
      { assignment, chunk: 'm0..m3', step: 'right', tempo: 60, grade: 3 },
      { lesson, past: { day: '2026-02-17', at: '2026-02-17T10:00:00.000Z' } },
    );
    expect((await seen(nora)).stuck).toBeNull();
    expect(unsignedVersions(db, 5).map((v) => v.names)).toEqual(['Nora']);
    signVersion(db, findVersion(db, unsignedVersions(db, 5)[0]!.id)!);
    expect(unsignedVersions(db, 5)).toEqual([]);
    expect(historiesOf(db, [assignment]).get(assignment)!.weeks).toMatchObject([
      { monday: mondayOf('2026-01-02') },
      { monday: mondayOf('2026-02-17') },
    ]);
  });
});

describe('a class', () => {
  it('plays together what every one of them has with both hands', async () => {
    const piece = addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' });
    const [nora, ida] = [learner('Nora'), learner('Ida', 2)];
    addGroup(db, 'Two', piece, [nora, ida]);
    const [a, b] = [await given(nora, piece), await given(ida, piece)];
    const members = async () => membersOf(db, inThisThread(db), piece, listGroups(db)[0]!.members);
    const whole = 'm0..m7';
    did(a, whole, 'both');
    expect(sectionsTogether(await members())[0]).toMatchObject({ can: ['Nora'], cannot: ['Ida'] });
    did(b, whole, 'both');
    expect(sectionsTogether(await members())[0]).toMatchObject({ can: ['Ida', 'Nora'], cannot: [] });
    expect(tempoTogether(await members())).toBeNull();
    for (const [of, tempo] of [
      [a, 70],
      [b, 60],
    ] as const)
      recordEvent(db, { assignment: of, chunk: whole, step: 'ladder', tempo, grade: null });
    expect(tempoTogether(await members())).toBe(60);
  });
});

describe('a month', () => {
  it('is told in plain words', async () => {
    const id = learner('Nora');
    const assignment = await given(id, addPiece(db, { name: 'e.musicxml', bytes: SONG, rights: 'own work' }));
    addLesson(db, id, '2026-03-10', 'Both hands now.', { practised: 80 });
    recordEvent(
      db,
      { assignment, chunk: 'm0..m3', step: 'both', tempo: 50, grade: 3 },
      { past: { day: '2026-03-10', at: '2026-03-10T10:00:00.000Z' } },
    );
    const report = await monthReport(db, inThisThread(db), findLearner(db, id)!, '2026-03');
    expect(report.whole.join(' ')).toBe('1 lesson this month. Nora practiced about 80 minutes a week.');
    expect(report.pieces[0]!.sentences.join(' ')).toMatch(
      /^4 more measures hands together this month: 4 of 8 now\. .*♩ = 50.*went well/,
    );
    expect(monthText('Nora', 'March 2026', report)).toContain('2026-03-10  Both hands now.');
    const other = await monthReport(db, inThisThread(db), findLearner(db, id)!, '2026-04');
    expect(other.pieces).toEqual([]);
  });
});
