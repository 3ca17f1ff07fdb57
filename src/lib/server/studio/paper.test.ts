/** Paper in a real studio: what is remembered, whose it is, what was set for the week, and pages out of the pool's jobs. */
import { choicesSchema, USUAL_CHOICES } from '$lib/paper/choices';
import { writeMusicXml } from '$core/io/musicxml/write';
import { listening } from '$core/pipeline/progress';
import { scoreFrom } from '$core/test/shorthand';
import { documentOf } from '$core/version/document';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { paper } from '../db/schema';
import { inThisThread } from '../pool/work';
import { MELODY, NORA, testStudio, type TestStudio } from '../test/studio';
import { giveNow } from './giving';
import { addLearner } from './learners';
import { beginLesson, changeLesson } from './lessons';
import { forLearner, forNobody, imprintOf, keepPaper, nameStudio, paperChoices, studioNamed } from './paper';
import { addPiece } from './pieces';
import { addVersion, documentOfVersion, findVersion } from './versions';

vi.setConfig({ testTimeout: 60_000 });

let studio: TestStudio;
beforeEach(() => (studio = testStudio()));
afterEach(() => studio.end());

const practice = choicesSchema.parse({ sheets: [{ sheet: 'practice', copies: 2 }], paper: 'letter' });

function versionIn({ db }: TestStudio, rights: 'own work' | 'not known' = 'own work') {
  const piece = addPiece(db, { ...MELODY, rights });
  const id = addVersion(db, piece, documentOf(DEFAULT_RECIPE, []));
  return findVersion(db, id)!;
}

describe('what goes on paper', () => {
  it('is as usual, then as it was chosen: for this version, and for what has no choice of its own', () => {
    const { db } = studio;
    expect(paperChoices(db, 'v1')).toEqual(USUAL_CHOICES);
    keepPaper(db, 'v1', practice);
    expect(paperChoices(db, 'v1')).toEqual(practice);
    expect(paperChoices(db, 'v2')).toEqual(practice);
    const other = { ...practice, size: 'large' as const };
    keepPaper(db, 'v2', other);
    expect([paperChoices(db, 'v1'), paperChoices(db, 'v2'), paperChoices(db, 'v3')]).toEqual([
      practice,
      other,
      other,
    ]);
  });
  it('is as usual where what was kept is of another time', () => {
    const { db } = studio;
    keepPaper(db, 'v1', practice);
    for (const of of ['v1', 'studio'])
      db.update(paper)
        .set({ choices: { sheets: [{ sheet: 'poster' }] } as never })
        .where(eq(paper.of, of))
        .run();
    expect(paperChoices(db, 'v1')).toEqual(USUAL_CHOICES);
  });
});

describe('the foot of a page', () => {
  it('has the studio’s name and line as they are set, and the day', () => {
    const { db } = studio;
    nameStudio(db, { name: 'Harbour Lessons', ownLine: 'Ring twice' });
    nameStudio(db, { name: 'Harbour Lessons', ownLine: 'Ring three times' });
    expect(studioNamed(db)).toEqual({ name: 'Harbour Lessons', ownLine: 'Ring three times' });
    const imprint = imprintOf(db);
    expect(imprint).toMatchObject({ studio: 'Harbour Lessons', ownLine: 'Ring three times' });
    expect(imprint.date).toMatch(/^\d{1,2} [A-Z][a-z]+ \d{4}$/);
  });
});

describe('for a student', () => {
  it('paper has the name, the voice and what the last lesson set', async () => {
    const { db } = studio;
    const work = inThisThread(db);
    const learner = addLearner(db, { ...NORA, voiceLow: 'A3', voiceHigh: 'D5' }, '2026-11-01');
    const row = versionIn(studio);
    const assignment = (await giveNow(db, work, row, learner)) as string;
    const of = { pieceId: row.pieceId, document: documentOfVersion(db, row), edit: row.edit };
    const before = await forLearner(db, work, of, assignment);
    expect(before).toMatchObject({ learner: 'Nora', voice: { low: { step: 'A' }, high: { step: 'D' } } });
    // Nothing is set yet: what is next in the piece, in the minutes that there are.
    expect(before.week).toMatchObject({
      minutesADay: 15,
      lines: [{ piece: null, chunk: 'm0..m1', minutes: 15 }],
    });
    expect(before.week!.lines[0]!.steps[0]).toBe('Listen');
    // Nor where only another piece is set.
    const other = versionIn(studio);
    const second = (await giveNow(db, work, other, learner)) as string;
    changeLesson(db, beginLesson(db, learner), {
      week: [{ assignment: second, chunk: 'm0..m1', steps: ['left'], tempo: 40, minutes: 9, why: 'next' }],
    });
    expect((await forLearner(db, work, of, assignment)).week).toEqual(before.week);
    changeLesson(db, beginLesson(db, learner), {
      week: [{ assignment, chunk: 'm0..m1', steps: ['both'], tempo: 50, minutes: 10, why: 'next' }],
    });
    const { week } = await forLearner(db, work, of, assignment);
    expect(week).toMatchObject({
      minutesADay: 15,
      lines: [
        { piece: null, chunk: 'm0..m1', steps: ['Hands together, slowly'], tempo: '♩ = 50', minutes: 10 },
      ],
    });
    const { pages, count } = await work('paper', {
      for: [await forLearner(db, work, of, assignment)],
      choices: practice,
      imprint: imprintOf(db),
      from: 0,
      to: 9,
    });
    expect(count).toBe(2);
    expect(pages[0]!.svg).toContain('Hands together, slowly');
    expect(pages[0]!.svg).toContain('Nora');
    expect(pages[0]!.svg).toContain(`change ${row.edit}`);
  });
  it('who has gone is nobody', async () => {
    const row = versionIn(studio);
    const of = { pieceId: row.pieceId, document: documentOfVersion(studio.db, row), edit: row.edit };
    expect(await forLearner(studio.db, inThisThread(studio.db), of, 'nobody')).toEqual(forNobody(of));
  });
});

describe('pages', () => {
  it('are the same begun and whole for a short piece, and say that rights are not known', async () => {
    const { db } = studio;
    const row = versionIn(studio, 'not known');
    const asked = {
      for: [forNobody({ pieceId: row.pieceId, document: documentOfVersion(db, row), edit: row.edit })],
      choices: USUAL_CHOICES,
      imprint: imprintOf(db),
    };
    const work = inThisThread(db);
    const begun = await work('paperBeginning', { ...asked, pages: 1 });
    const { pages, count, name } = await work('paper', { ...asked, from: 0, to: 5 });
    expect(count).toBe(1);
    expect(begun).toEqual(pages);
    expect(pages[0]!.svg).toContain('Copyright unknown');
    expect(name).toBe('Melody, level 2 - Score');
    const { bytes } = await work('pdf', asked);
    expect(Buffer.from(bytes.subarray(0, 5)).toString()).toBe('%PDF-');
  });
  it('past the end are none', async () => {
    const row = versionIn(studio);
    const asked = {
      for: [forNobody({ pieceId: row.pieceId, document: documentOfVersion(studio.db, row), edit: row.edit })],
      choices: USUAL_CHOICES,
      imprint: imprintOf(studio.db),
    };
    expect(await inThisThread(studio.db)('paper', { ...asked, from: 7, to: 9 })).toMatchObject({
      pages: [],
      count: 1,
    });
  });
  it('of a long piece as many as are wanted come without the rest', async () => {
    const { db } = studio;
    const walk = Array.from({ length: 120 }, (_, i) => `${'CDEFGAB'[(i * 3) % 7]}5:1 C5:1 E5:1 G5:1`).join(
      ' | ',
    );
    const score = scoreFrom({
      title: 'Long Walk',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: walk,
      left: Array.from({ length: 120 }, () => 'C3:4').join(' | '),
    });
    const bytes = new TextEncoder().encode(writeMusicXml(score));
    const piece = addPiece(db, { name: 'long.musicxml', bytes, rights: 'own work' });
    const row = findVersion(db, addVersion(db, piece, documentOf(DEFAULT_RECIPE, [])))!;
    const asked = {
      for: [forNobody({ pieceId: piece, document: documentOfVersion(db, row), edit: row.edit })],
      // Written out: what comes again is printed once otherwise, and this piece is short then.
      choices: { ...USUAL_CHOICES, repeats: 'as written' as const },
      imprint: imprintOf(db),
    };
    const work = inThisThread(db);
    const drawn: number[] = [];
    const wanted = async (pages: number) =>
      listening(
        (what) => void (what === 'engrave' && drawn.push(pages)),
        () => work('paperBeginning', { ...asked, pages }),
      );
    expect(await wanted(1)).toHaveLength(1);
    expect(await wanted(2)).toHaveLength(2);
    const { count, pages } = await work('paper', { ...asked, from: 0, to: 2 });
    expect(count).toBeGreaterThan(3);
    expect(pages.map((page) => page.place)).toEqual([0, 1]);
    // The first page is one stretch of the engraver, two are more, and fewer than all of it.
    expect(drawn.filter((n) => n === 1)).toHaveLength(1);
    expect(drawn.filter((n) => n === 2).length).toBeGreaterThan(1);
    expect(drawn.filter((n) => n === 2).length).toBeLessThan(120 / 16);
  });
});
