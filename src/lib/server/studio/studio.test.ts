import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LEVELS } from '$core/arrange/levels';
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import { decide, DEFAULT_RECIPE } from '$core/version/recipe';
import { openDatabase, type Db } from '../db/open';
import { revision } from '../db/schema';
import { readForm } from '../forms';
import { assignmentsOf, eventsOf, giveVersion, holdersOf, recordStep } from './assignments';
import { fillDemoStudio, isEmpty } from './demo';
import {
  addLearner,
  addLesson,
  learnerSchema,
  lessonsOf,
  listLearners,
  recipeFor,
  updateLearner,
} from './learners';
import { setStudioLevels, studioLevels } from './levels';
import { addPiece, findPiece, listPieces, scoreOf, sourceFile } from './pieces';
import { piecesOfLearner } from './progress';
import { addVersion, findVersion, realiseVersion, saveVersion } from './versions';

let folder: string;
let db: Db;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-'));
  db = openDatabase(folder, 'drizzle');
});
afterEach(() => rmSync(folder, { recursive: true }));

const bytes = new TextEncoder().encode(
  writeMusicXml(
    scoreFrom({
      title: 'Tune',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:4 | D5:4',
      left: 'C3:4 | G2:4',
    }),
  ),
);
const bring = (): string => addPiece(db, { name: 'tune.musicxml', bytes, rights: 'own work' }).id;
const nora = {
  name: 'Nora',
  weekday: 2,
  time: '16:00',
  level: 1,
  reachRight: 7,
  reachLeft: 8,
  keyboard: 49,
  hasPedal: false,
  voiceLow: null,
  voiceHigh: null,
};

describe('pieces', () => {
  it('keep the file as received and read the score from it', () => {
    const id = bring();
    expect(findPiece(db, id)).toMatchObject({ title: 'Tune', rights: 'own work' });
    expect(sourceFile(db, id)!.bytes.equals(Buffer.from(bytes))).toBe(true);
    expect(scoreOf(db, id).score.measures).toHaveLength(2);
  });
  it('that cannot be read leave nothing behind', () => {
    expect(() => addPiece(db, { name: 'x.xml', bytes: bytes.slice(0, 300), rights: 'not known' })).toThrow();
    expect(listPieces(db)).toEqual([]);
  });
});

describe('versions', () => {
  it('are saved revision by revision, never over a newer one', () => {
    const id = addVersion(db, bring(), DEFAULT_RECIPE);
    const decisions = decide([], { kind: 'finger', note: 'm0n0', finger: 2 });
    expect(saveVersion(db, id, { recipe: DEFAULT_RECIPE, decisions, basedOn: 1 })).toEqual({
      saved: true,
      revision: 2,
    });
    expect(saveVersion(db, id, { recipe: DEFAULT_RECIPE, decisions: [], basedOn: 1 })).toEqual({
      saved: false,
      revision: 2,
    });
    expect(findVersion(db, id)).toMatchObject({ revision: 2, decisions });
    expect(
      db
        .select()
        .from(revision)
        .all()
        .map((r) => r.number),
    ).toEqual([1, 2]);
    expect(saveVersion(db, 'nowhere', { recipe: DEFAULT_RECIPE, decisions, basedOn: 1 })).toBeUndefined();
  });
  it('are made again after every change', () => {
    const id = addVersion(db, bring(), DEFAULT_RECIPE);
    const before = realiseVersion(db, findVersion(db, id)!);
    expect(realiseVersion(db, findVersion(db, id)!)).toBe(before);
    saveVersion(db, id, { recipe: { ...DEFAULT_RECIPE, key: 'D' }, decisions: [], basedOn: 1 });
    expect(realiseVersion(db, findVersion(db, id)!).key.fifths).toBe(2);
  });
});

describe('learners', () => {
  it('have a recipe for their hands, and a log with the latest lesson first', () => {
    const id = addLearner(db, nora, '2026-01-01');
    const [row] = listLearners(db);
    expect(recipeFor(row!, 'F')).toMatchObject({
      level: 1,
      key: 'F',
      keyboard: 49,
      pedal: 'none',
      reach: { right: 7, left: 8 },
    });
    addLesson(db, id, '2026-02-01', 'first');
    addLesson(db, id, '2026-02-08', 'second');
    expect(lessonsOf(db, id).map((l) => l.note)).toEqual(['second', 'first']);
    updateLearner(db, id, { ...nora, name: 'Nora B.' });
    expect(listLearners(db)[0]!.name).toBe('Nora B.');
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
  it('are given once, and their record only ever grows', () => {
    const learnerId = addLearner(db, nora, '2026-01-01');
    const versionId = addVersion(db, bring(), DEFAULT_RECIPE);
    const id = giveVersion(db, versionId, learnerId, 80);
    expect(giveVersion(db, versionId, learnerId, 90)).toBe(id);
    expect(holdersOf(db, versionId).map((h) => h.name)).toEqual(['Nora']);
    recordStep(db, id, { chunk: '0-1', step: 'hear', tempo: null, undone: false });
    recordStep(db, id, { chunk: '0-1', step: 'hear', tempo: null, undone: true });
    expect(eventsOf(db, id).map((e) => e.undone)).toEqual([false, true]);
    const [progress] = piecesOfLearner(db, learnerId);
    expect(progress).toMatchObject({ title: 'Tune', goalTempo: 80, next: { step: { id: 'hear' } } });
    expect(progress!.chunks[0]!.steps[0]!.done).toBeNull();
  });
  it('refuse learners and versions that are not there', () => {
    expect(() => giveVersion(db, 'no version', 'no learner', 80)).toThrow(/FOREIGN KEY/);
    expect(assignmentsOf(db, 'no learner')).toEqual([]);
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
  it('is filled with the demo studio only while it is empty', () => {
    expect(isEmpty(db)).toBe(true);
    fillDemoStudio(db);
    expect(isEmpty(db)).toBe(false);
    expect(listLearners(db).map((l) => l.name)).toEqual(['Berit', 'Runa', 'Teo']);
    expect(listPieces(db).map((p) => p.title)).toEqual([
      'Fox at the Gate',
      'Kite Weather',
      'Long Shadows at Low Tide',
      'Mill Pond Waltz',
      'Slow Ferry',
      'Teakettle Stroll',
    ]);
    for (const learner of listLearners(db))
      for (const piece of piecesOfLearner(db, learner.id)) expect(piece.next).not.toBeNull();
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
