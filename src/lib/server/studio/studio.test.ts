import { sql } from 'drizzle-orm';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LEVELS } from '$core/arrange/levels';
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import type { Decision } from '$core/decisions/registry';
import { editing } from '$core/edits/edit';
import { documentOf, listed, type VersionDocument } from '$core/version/document';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { openDatabase, type Db } from '../db/open';
import { MELODY, NORA, testStudio } from '../test/studio';
import { readForm } from '../forms';
import { findAssignment, giveVersion, holdersOf } from './assignments';
import { eventsOf, lastOfStep, recordEvent, withdrawEvent } from './events';
import { addLesson, lessonsOf } from './lessons';
import { daysAfter } from '$core/lessons/calendar';
import { todayIn } from './clock';
import { DEMO_LEARNERS } from './demo/learners';
import { lessonsBetween } from './slots';
import { fillDemoStudio, isEmpty } from './demo/fill';
import {
  addLearner,
  learnerSchema,
  fieldsOf,
  findLearner,
  listLearners,
  startFor,
  updateLearner,
} from './learners';
import { setStudioLevels, studioLevels } from './levels';
import { addPiece, findPiece, listPieces, setSections, sourceFile } from './pieces';
import { preparedPiece } from './prepared';
import { inThisThread } from '../pool/work';
import { findProgress, piecesOfLearner, type AssignmentLine } from './progress';
import { pieceSummaries } from './summaries';
import {
  addVersion,
  documentAt,
  duplicateVersion,
  editsOf,
  findVersion,
  goBackTo,
  nameRevision,
  realiseVersion,
  saveEdit,
  savedState,
  SNAPSHOT_EVERY,
  stepBack,
} from './versions';

let folder: string;
let db: Db;
let end: () => void;
beforeEach(() => {
  ({ folder, db, end } = testStudio());
});
afterEach(() => end());

const { bytes } = MELODY;
const bring = (): string => addPiece(db, { ...MELODY, rights: 'own work' });
const nora = NORA;

describe('pieces', () => {
  it('keep the file as received and read the score from it', () => {
    const id = bring();
    expect(findPiece(db, id)).toMatchObject({ title: 'Melody', rights: 'own work' });
    expect(sourceFile(db, id)!.bytes.equals(Buffer.from(bytes))).toBe(true);
    expect(preparedPiece(db, id).score.measures).toHaveLength(2);
  });
  it('that cannot be read leave nothing behind', () => {
    expect(() => addPiece(db, { name: 'x.xml', bytes: bytes.slice(0, 300), rights: 'not known' })).toThrow();
    expect(listPieces(db)).toEqual([]);
  });
});

const plain = documentOf(DEFAULT_RECIPE);
const finger = (note: string, value: 1 | 2 | 3 | 4 | 5): Decision => ({
  kind: 'finger',
  at: { note },
  value,
});
const deciding = (document: VersionDocument, decision: Decision) =>
  editing(document, (draft) => {
    draft.decisions[`finger ${(decision.at as { note: string }).note}`] = decision;
  }).patches;
const progressNow = async (id: string) => (await findProgress(db, inThisThread(db), id))!.progress;
const linesNow = async (learner: string) =>
  (await piecesOfLearner(db, inThisThread(db), learner)) as AssignmentLine[];
/** Decides a finger on the newest state, as a page does. */
const decideFinger = (id: string, note: string, value: 1 | 2 | 3 | 4 | 5) => {
  const { document, edit } = savedState(db, id)!;
  return saveEdit(db, id, { patches: deciding(document, finger(note, value)), basedOn: edit })!;
};
/** The studio as another process, or this one after a restart, finds it. */
const afterRestart = (): void => {
  db = openDatabase(folder, 'drizzle');
};
const fingersNow = (id: string): unknown[] => listed(savedState(db, id)!.document).map((d) => d.value);

describe('versions', () => {
  it('are saved edit by edit, and undone and made again after a restart', () => {
    const id = addVersion(db, bring(), plain);
    decideFinger(id, 'm0n0', 2);
    expect(decideFinger(id, 'm1n0', 3)).toMatchObject({ edit: 2, canUndo: true, canRedo: false });
    afterRestart();
    expect(stepBack(db, id, 'undo')).toMatchObject({ edit: 3, canUndo: true, canRedo: true });
    expect(fingersNow(id)).toEqual([2]);
    stepBack(db, id, 'undo');
    afterRestart();
    expect(fingersNow(id)).toEqual([]);
    expect(stepBack(db, id, 'redo')).toMatchObject({ edit: 5, canRedo: true });
    expect(fingersNow(id)).toEqual([2]);
    decideFinger(id, 'm0n0', 5);
    expect(stepBack(db, id, 'redo')).toMatchObject({ edit: 6, canRedo: false });
    expect(fingersNow(id)).toEqual([5]);
  });
  it('are taken back by the window that made them, and by none where another has changed the same since', () => {
    const id = addVersion(db, bring(), plain);
    const save = (window: string | null, note: string, value: 1 | 2 | 3 | 4 | 5, basedOn: number) =>
      saveEdit(db, id, {
        patches: deciding(plain, finger(note, value)),
        basedOn,
        ...(window ? { window: { id: window, since: 1 } } : {}),
      })!;
    const [here, there] = [
      { id: 'here', since: 1 },
      { id: 'there', since: 1 },
    ];
    save(null, 'm0n0', 1, 0);
    save('here', 'm0n1', 2, 1);
    save('there', 'm1n0', 3, 2);
    expect(stepBack(db, id, 'undo', here)).toMatchObject({ canRedo: true });
    expect(fingersNow(id)).toEqual([1, 3]);
    // What the other window has undone is not there to be redone.
    expect(stepBack(db, id, 'redo', there)).toMatchObject({ edit: 4, canRedo: false });
    stepBack(db, id, 'undo', there);
    expect(fingersNow(id)).toEqual([1]);
    // What was there before both were opened is either's.
    stepBack(db, id, 'undo', there);
    expect(savedState(db, id, here)).toMatchObject({ canUndo: false });
    // Changed by the other window since: nothing is taken back.
    save('here', 'm0n0', 4, 6);
    save('there', 'm0n0', 5, 7);
    expect(stepBack(db, id, 'undo', here)).toMatchObject({
      refused: expect.stringContaining('another window') as string,
    });
    expect(fingersNow(id)).toEqual([5]);
    stepBack(db, id, 'undo', there);
    stepBack(db, id, 'undo', here);
    expect(fingersNow(id)).toEqual([]);
  });
  it('keep what two windows do to different things, and refuse where they meet', () => {
    const id = addVersion(db, bring(), plain);
    const [one, other, third] = [finger('m0n0', 2), finger('m1n0', 3), finger('m0n0', 4)].map((d) =>
      deciding(plain, d),
    );
    expect(saveEdit(db, id, { patches: one!, basedOn: 0 })!.refused).toBeUndefined();
    expect(saveEdit(db, id, { patches: other!, basedOn: 0 })!.refused).toBeUndefined();
    expect(saveEdit(db, id, { patches: third!, basedOn: 0 })!.refused).toContain('another window');
    expect(fingersNow(id)).toEqual([2, 3]);
    expect(saveEdit(db, 'nowhere', { patches: one!, basedOn: 0 })).toBeUndefined();
    expect(() =>
      saveEdit(db, id, {
        patches: [{ op: 'replace', path: ['recipe', 'level'], value: 40 }],
        basedOn: 2,
      }),
    ).toThrow();
    expect(savedState(db, id)!.edit).toBe(2);
  });
  it('can be opened, named, gone back to and duplicated as they were', () => {
    const id = addVersion(db, bring(), plain);
    decideFinger(id, 'm0n0', 2);
    decideFinger(id, 'm0n0', 4);
    nameRevision(db, id, 1, 'before the concert');
    expect(listed(documentAt(db, id, 1))[0]!.value).toBe(2);
    expect(editsOf(db, findVersion(db, id)!).map(({ number, says, name }) => [number, says, name])).toEqual([
      [2, 'finger 4', null],
      [1, 'finger 2', 'before the concert'],
    ]);
    expect(goBackTo(db, id, 1)).toMatchObject({ edit: 3 });
    expect(fingersNow(id)).toEqual([2]);
    stepBack(db, id, 'undo');
    expect(fingersNow(id)).toEqual([4]);
    expect(editsOf(db, findVersion(db, id)!)[0]!.says).toBe('undone: finger 2');
    const copy = duplicateVersion(db, findVersion(db, id)!, 1);
    expect(fingersNow(copy)).toEqual([2]);
    expect(goBackTo(db, id, 99)).toBeUndefined();
  });
  it('six hundred fingers stay small, and every state of them is found again', () => {
    const id = addVersion(db, bring(), plain);
    db.run(sql`pragma wal_checkpoint(truncate)`);
    const before = statSync(join(folder, 'keypath.db')).size;
    for (let i = 0; i < 600; i++) decideFinger(id, `m${i}n0`, ((i % 5) + 1) as 1);
    db.run(sql`pragma wal_checkpoint(truncate)`);
    expect(statSync(join(folder, 'keypath.db')).size - before).toBeLessThan(300_000);
    for (const number of [0, 1, SNAPSHOT_EVERY - 1, SNAPSHOT_EVERY, SNAPSHOT_EVERY + 1, 600])
      expect(listed(documentAt(db, id, number))).toHaveLength(number);
    // Six hundred acknowledged writes wait for the disk.
  });
  it('are made again after every change', () => {
    const id = addVersion(db, bring(), plain);
    const before = realiseVersion(db, findVersion(db, id)!);
    expect(realiseVersion(db, findVersion(db, id)!).score).toBe(before.score);
    const patches = editing(plain, (draft) => void (draft.recipe.key = 'D')).patches;
    saveEdit(db, id, { patches, basedOn: 0 });
    expect(realiseVersion(db, findVersion(db, id)!).key.fifths).toBe(2);
  });
});

describe('learners', () => {
  it('have a recipe for their hands, and a log with the latest lesson first', () => {
    const id = addLearner(db, nora, '2026-01-01');
    const [row] = listLearners(db);
    expect(startFor(row!, { key: 'F' })).toMatchObject({
      recipe: { level: 1, key: 'F', keyboard: 49, reach: { right: 7, left: 8 } },
      decisions: { 'pedal *': { value: 'none' } },
    });
    expect(startFor({ ...row!, hasPedal: true }).decisions).toEqual({});
    addLesson(db, id, '2026-02-01', 'first');
    addLesson(db, id, '2026-02-08', 'second');
    expect(lessonsOf(db, id).map((l) => l.note)).toEqual(['second', 'first']);
    const was = fieldsOf(db, findLearner(db, id)!);
    expect(updateLearner(db, id, { ...nora, name: 'Nora B.' }, was)).toBe('kept');
    expect(listLearners(db)[0]!.name).toBe('Nora B.');
    // What was filled in over something else does not overwrite it, and what is gone is not written.
    expect(updateLearner(db, id, { ...nora, name: 'Nora C.' }, was)).toMatchObject({
      fields: ['name'],
      there: { name: 'Nora B.' },
    });
    expect(listLearners(db)[0]!.name).toBe('Nora B.');
    expect(updateLearner(db, 'nobody', nora, was)).toBe('gone');
  });
  it('come from a form with one sentence per wrong field, and what was typed comes back', () => {
    const form = new FormData();
    for (const [name, value] of Object.entries({
      ...nora,
      name: ' ',
      voiceLow: 'H3',
      time: '25:00',
      voiceHigh: '',
      hasPedal: 'on',
    }))
      form.set(name, String(value ?? ''));
    const result = readForm(form, learnerSchema);
    expect(result.ok).toBe(false);
    if (!result.ok) {
      expect(Object.keys(result.problems).sort()).toEqual(['name', 'time', 'voiceLow']);
      expect(result.values.voiceLow).toBe('H3');
    }
    form.set('name', 'Nora');
    form.set('voiceLow', 'A3');
    form.set('time', '');
    expect(readForm(form, learnerSchema)).toMatchObject({
      ok: true,
      data: { time: null, hasPedal: true, voiceHigh: null },
    });
  });
});

describe('assignments', () => {
  it('are given once, and their record only ever grows', async () => {
    const learnerId = addLearner(db, nora, '2026-01-01');
    const versionId = addVersion(db, bring(), plain);
    const id = giveVersion(db, versionId, learnerId, { edit: 0, goalTempo: 80 });
    expect(giveVersion(db, versionId, learnerId, { edit: 0, goalTempo: 90 })).toBe(id);
    expect(holdersOf(db, versionId).map((h) => h.name)).toEqual(['Nora']);
    const heard = {
      token: 'a-token-of-a-page',
      assignment: id,
      chunk: 'm0..m1',
      step: 'hear',
      tempo: null,
      grade: null,
    };
    const first = recordEvent(db, heard);
    // What a page sends twice, because it heard no answer, is kept once.
    expect(recordEvent(db, heard)).toBe(first);
    expect((await progressNow(id)).plans[0]!.steps[0]!.done).not.toBeNull();
    expect(lastOfStep(db, id, 'm0..m1', 'hear')).toBe(first);
    const back = { token: 'another-token-of-it', assignment: id, withdraws: 'a-token-of-a-page' };
    expect([withdrawEvent(db, back), withdrawEvent(db, back)]).toEqual([true, true]);
    expect(eventsOf(db, id).map((e) => e.withdraws)).toEqual([null, first]);
    expect(lastOfStep(db, id, 'm0..m1', 'hear')).toBeUndefined();
    expect(withdrawEvent(db, { assignment: id, withdraws: 999 })).toBe(false);
    const [line] = await linesNow(learnerId);
    expect(line).toMatchObject({
      title: 'Melody',
      goalTempo: 80,
      next: [{ step: { id: 'hear' } }, {}, {}, {}],
    });
    expect((await progressNow(id)).plans[0]!.steps[0]!.done).toBeNull();
  });
  it('show what was given until the new state is given, and what was learned stays', async () => {
    const learnerId = addLearner(db, nora, '2026-01-01');
    const versionId = addVersion(db, bring(), plain);
    const id = giveVersion(db, versionId, learnerId, { edit: 0, goalTempo: 80 });
    recordEvent(db, { assignment: id, chunk: 'm0..m1', step: 'both', tempo: 60, grade: null });
    const patches = editing(plain, (draft) => {
      draft.recipe.style = 'sing-along';
      draft.recipe.introduction = 2;
    }).patches;
    saveEdit(db, versionId, { patches, basedOn: 0 });
    const before = await progressNow(id);
    expect(before).toMatchObject({ given: { edit: 0, since: 1 }, states: ['both', 'both'] });
    giveVersion(db, versionId, learnerId, { edit: 1, goalTempo: 80 });
    expect(findAssignment(db, id)!.edit).toBe(1);
    expect((await progressNow(id)).states).toEqual(['open', 'open', 'both', 'both']);
    expect((await linesNow(learnerId))[0]!.picture.states).toBe('oo|bb');
    recordEvent(db, { assignment: id, chunk: 'i0..i1', step: 'right', tempo: 60, grade: null });
    giveVersion(db, versionId, learnerId, { edit: 0, goalTempo: 80 });
    expect((await progressNow(id)).elsewhere).toMatchObject([{ chunk: 'i0..i1', step: 'right' }]);
  });
  it('refuse students and versions that are not there', async () => {
    expect(() => giveVersion(db, 'no version', 'no student', { edit: 0, goalTempo: 80 })).toThrow(
      /FOREIGN KEY/,
    );
    expect(await linesNow('no student')).toEqual([]);
  });
});

describe('after a change of a piece everything agrees at once', () => {
  const song = new TextEncoder().encode(
    writeMusicXml(
      scoreFrom({
        key: 'C',
        time: { beats: 4, beatType: 4 },
        right: Array.from({ length: 8 }, (_, i) => `${'CDEFGABC'[i]}${i === 7 ? 5 : 4}:4`).join(' | '),
      }),
    ),
  );
  it('version, steps and lists have the sections that were kept a moment ago, and levels and titles too', async () => {
    const pieceId = addPiece(db, { name: 'scale.musicxml', bytes: song, rights: 'own work' });
    const versionId = addVersion(db, pieceId, plain);
    const row = findVersion(db, versionId)!;
    const learnerId = addLearner(db, nora, '2026-01-01');
    const id = giveVersion(db, versionId, learnerId, { edit: 0, goalTempo: 80 });
    const labels = async (): Promise<unknown> => ({
      version: realiseVersion(db, row).form.sections.map((s) => s.label),
      steps: [...new Set((await progressNow(id)).plans.map((p) => p.chunk.section))],
      list: (await linesNow(learnerId))[0]!.next[0]!.chunk.section,
    });
    const before = await labels();
    setSections(db, pieceId, [
      { measure: 0, name: 'Up' },
      { measure: 5, name: 'Top' },
    ]);
    expect(await labels()).toEqual({ version: ['Up', 'Top'], steps: ['Up', 'Top'], list: 'Up' });
    setSections(db, pieceId, null);
    expect(await labels()).toEqual(before);
    const tempo = await progressNow(id);
    setStudioLevels(db, [{ ...LEVELS[0]!, level: 2, name: 'Own', tempoShare: 0.5 }]);
    expect(realiseVersion(db, row).goalTempo).toBeLessThan(tempo.goalTempo);
    expect((await pieceSummaries(db, inThisThread(db))).get(pieceId)).toMatchObject({ newMeasures: 8 });
  });
});

describe('the database', () => {
  it('is in WAL mode, and opens again with what is in it', () => {
    bring();
    expect(openDatabase(folder, 'drizzle').get<{ journal_mode: string }>('pragma journal_mode')).toEqual({
      journal_mode: 'wal',
    });
    expect(listPieces(openDatabase(folder, 'drizzle'))).toHaveLength(1);
  });
  it('is filled with the demo studio only while it is empty', async () => {
    expect(isEmpty(db)).toBe(true);
    fillDemoStudio(db);
    expect(isEmpty(db)).toBe(false);
    expect(listLearners(db).map((l) => l.name)).toEqual([...DEMO_LEARNERS.map((d) => d.learner.name)].sort());
    expect(listPieces(db).map((p) => p.title)).toEqual([
      'Fox at the Gate',
      'Kite Weather',
      'Long Shadows at Low Tide',
      'Mill Pond Waltz',
      'Slow Ferry',
      'Teakettle Stroll',
    ]);
    const today = todayIn(db);
    for (const learner of listLearners(db)) {
      for (const piece of await linesNow(learner.id)) expect(piece.lastDay).not.toBeNull();
      expect(lessonsOf(db, learner.id).every((l) => l.date < today && l.note.length > 20)).toBe(true);
    }
    // Today, and every day of a week from now, whatever weekday it is.
    for (let i = 0; i < 7; i++)
      expect(lessonsBetween(db, daysAfter(today, i), daysAfter(today, i)).length, `day ${i}`).toBeGreaterThan(
        0,
      );
  });
});

describe('the levels of a studio', () => {
  it('are those that ship until others are kept, and again when they are given back', () => {
    expect(studioLevels(db)).toEqual(LEVELS);
    const own = [{ ...LEVELS[0]!, name: 'Very first' }, ...LEVELS.slice(1)];
    setStudioLevels(db, own);
    expect(studioLevels(db)[0]!.name).toBe('Very first');
    setStudioLevels(db, null);
    expect(studioLevels(db)).toEqual(LEVELS);
  });
  it('what is stored but no longer understood does not lose a version', () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    setStudioLevels(db, [{ level: 1 } as never]);
    expect(studioLevels(db)).toEqual(LEVELS);
    expect(said).toHaveBeenCalledOnce();
    said.mockRestore();
  });
});
