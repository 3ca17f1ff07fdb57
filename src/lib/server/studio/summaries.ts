/**
 * What pages show of pieces and versions without reading or arranging anything: derived once, kept as a row, and made again where
 * its basis (the content that it was made of) is no longer what it is about.
 */
import { formOf, type Form } from '$core/analysis/form';
import { levelNumbered } from '$core/arrange/levels';
import type { PartChoices } from '$core/score/parts';
import { analysed } from '$core/version/analysed';
import { goalTempoOf, versionKey } from '$core/version/arrangement';
import { introductionOf } from '$core/version/introduction';
import { partFacts, type PartFacts } from '$lib/engrave/preview';
import { keyOf } from '$core/analysis/key';
import { reportOf, type PieceReport } from '$core/analysis/report';
import type { Measure, TimeSignature } from '$core/score/score';
import type { Key } from '$core/theory/key';
import { and, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, piece, pieceSummary, version, versionSummary } from '../db/schema';
import { contentKey, ENGINE } from './contentKey';
import { studioLevels } from './levels';
import { preparedKey, preparedKeys, preparedPiece, sourceScore } from './prepared';
import { documentAt, realiseDocument } from './versions';

/** Longer pieces are analysed by the page's own worker, which shows how far it is. */
const LONG = 240;

export interface PieceSummary {
  readonly key: Key;
  readonly time: TimeSignature;
  /** Measures as they are played, and those to be learned. */
  readonly measures: number;
  readonly newMeasures: number;
}

/** The form as paths, chunks and steps need it. */
export type SummaryForm = Pick<Form, 'firstSeen' | 'newMeasures' | 'measureCount' | 'phrases'> & {
  readonly sections: readonly Pick<
    Form['sections'][number],
    'letter' | 'prime' | 'label' | 'role' | 'from' | 'to'
  >[];
};

export interface VersionSummary {
  readonly level: number;
  readonly key: Key;
  readonly goalTempo: number;
  readonly time: TimeSignature;
  /** By measure of the version. */
  readonly ids: readonly string[];
  readonly numbers: readonly string[];
  readonly difficulty: readonly number[];
  readonly form: SummaryForm;
}

/** What a piece's own page shows besides its versions. */
export interface PieceFacts {
  /** null where the piece is too long to be analysed for a page. */
  readonly report: PieceReport | null;
  readonly numbers: readonly string[];
  readonly warnings: readonly string[];
  readonly parts: { readonly list: readonly PartFacts[]; readonly choices: PartChoices };
  readonly key: Key;
}

const pieceBasis = (preparedName: string): string => contentKey(ENGINE, preparedName);

function derivePiece(db: Db, pieceId: string, basis: string): { data: PieceSummary; facts: PieceFacts } {
  const { score, parts, warnings } = preparedPiece(db, pieceId);
  const report = score.measures.length > LONG ? null : reportOf(score);
  const form = report?.form ?? formOf(score);
  const key = keyOf(score);
  const data: PieceSummary = {
    key,
    time: score.measures[0]!.time,
    measures: form.measureCount,
    newMeasures: form.newMeasures,
  };
  const facts: PieceFacts = {
    report,
    numbers: score.measures.map((m) => m.number),
    warnings,
    parts: { list: partFacts(sourceScore(db, pieceId).score.parts), choices: parts },
    key,
  };
  const row = { basis, data: JSON.stringify(data), report: JSON.stringify(facts) };
  db.insert(pieceSummary)
    .values({ pieceId, ...row })
    .onConflictDoUpdate({ target: pieceSummary.pieceId, set: row })
    .run();
  return { data, facts };
}

/** What the list says of each piece, by its id. */
export function pieceSummaries(db: Db): ReadonlyMap<string, PieceSummary> {
  const rows = new Map(
    db
      .select({ pieceId: pieceSummary.pieceId, basis: pieceSummary.basis, data: pieceSummary.data })
      .from(pieceSummary)
      .all()
      .map((row) => [row.pieceId, row]),
  );
  return new Map(
    [...preparedKeys(db)].map(([id, name]) => {
      const [row, basis] = [rows.get(id), pieceBasis(name)];
      return [
        id,
        row?.basis === basis ? (JSON.parse(row.data) as PieceSummary) : derivePiece(db, id, basis).data,
      ];
    }),
  );
}

/** What the page of one piece shows. */
export function pieceFacts(db: Db, pieceId: string): PieceFacts {
  const basis = pieceBasis(preparedKey(db, pieceId));
  const row = db.select().from(pieceSummary).where(eq(pieceSummary.pieceId, pieceId)).get();
  return row?.basis === basis
    ? (JSON.parse(row.report) as PieceFacts)
    : derivePiece(db, pieceId, basis).facts;
}

/** The levels are read once for many versions. */
export function versionBasis(db: Db): (preparedName: string) => string {
  const levels = contentKey(studioLevels(db));
  return (preparedName) => contentKey(ENGINE, preparedName, levels);
}

/** A version at an edit, whose summary is wanted. */
export interface Wanted {
  readonly versionId: string;
  readonly pieceId: string;
  readonly number: number;
}

/** What follows from the form of a version. */
const formFacts = (form: Form, measures: readonly Measure[]) => ({
  time: measures.at(-1)!.time,
  ids: measures.map((m) => m.id),
  numbers: measures.map((m) => m.number),
  form: {
    firstSeen: form.firstSeen,
    newMeasures: form.newMeasures,
    measureCount: form.measureCount,
    phrases: form.phrases,
    sections: form.sections.map(({ letter, prime, label, role, from, to }) => ({
      letter,
      prime,
      label,
      from,
      to,
      ...(role ? { role } : {}),
    })),
  },
});

function deriveVersion(db: Db, { versionId, pieceId, number }: Wanted, basis: string): VersionSummary {
  const document = documentAt(db, versionId, number);
  const { form, score, difficulty, key, goalTempo } = realiseDocument(db, pieceId, document);
  const data: VersionSummary = {
    ...formFacts(form, score.measures),
    level: document.recipe.level,
    key,
    goalTempo,
    difficulty: difficulty.map((d) => d.score),
  };
  const row = { basis, data: JSON.stringify(data) };
  db.insert(versionSummary)
    .values({ versionId, number, ...row })
    .onConflictDoUpdate({ target: [versionSummary.versionId, versionSummary.number], set: row })
    .run();
  return data;
}

/**
 * The summary of a version whose piece or levels have changed, without arranging anything: form, key and tempo as they are now; only
 * how hard its measures are is as it was. `refreshOne` sees to the rest.
 */
function lightVersion(
  db: Db,
  { versionId, pieceId, number }: Wanted,
  before: VersionSummary,
): VersionSummary {
  const { recipe } = documentAt(db, versionId, number);
  const { score } = preparedPiece(db, pieceId);
  const levels = studioLevels(db);
  const { form, score: heard } = analysed(score, introductionOf(score, recipe));
  const known = new Map(before.ids.map((id, i) => [id, before.difficulty[i] ?? 0]));
  return {
    ...formFacts(form, heard.measures),
    level: recipe.level,
    key: versionKey(score, recipe, levels),
    goalTempo: goalTempoOf(score, levelNumbered(recipe.level, levels)),
    difficulty: heard.measures.map((m) => known.get(m.id) ?? 0),
  };
}

/** A list does not wait longer than this for summaries to be made again, in milliseconds. */
const PATIENCE = 150;

/** Summaries of versions, in the order in which they are wanted. */
export function versionSummaries(db: Db, wanted: readonly Wanted[]): VersionSummary[] {
  if (wanted.length === 0) return [];
  const began = Date.now();
  const names = wanted.length === 1 ? undefined : preparedKeys(db);
  const basisOf = versionBasis(db);
  const ids = [...new Set(wanted.map((w) => w.versionId))];
  const rows = new Map(
    db
      .select()
      .from(versionSummary)
      .where(inArray(versionSummary.versionId, ids))
      .all()
      .map((row) => [`${row.versionId} ${row.number}`, row]),
  );
  return wanted.map((w) => {
    const basis = basisOf(names?.get(w.pieceId) ?? preparedKey(db, w.pieceId));
    const row = rows.get(`${w.versionId} ${w.number}`);
    if (row?.basis === basis) return JSON.parse(row.data) as VersionSummary;
    return row && Date.now() - began > PATIENCE
      ? lightVersion(db, w, JSON.parse(row.data) as VersionSummary)
      : deriveVersion(db, w, basis);
  });
}

/**
 * Makes one summary again that no longer holds (a piece, the levels or the engine are not what they were), so that no list has to.
 * False where all hold.
 */
export function refreshOne(db: Db): boolean {
  const names = preparedKeys(db);
  const basisOf = versionBasis(db);
  for (const [pieceId, name] of names) {
    const basis = basisOf(name);
    const stale = db
      .selectDistinct({ versionId: assignment.versionId, number: assignment.edit })
      .from(assignment)
      .innerJoin(version, eq(version.id, assignment.versionId))
      .leftJoin(
        versionSummary,
        and(eq(versionSummary.versionId, assignment.versionId), eq(versionSummary.number, assignment.edit)),
      )
      .where(
        and(eq(version.pieceId, pieceId), or(isNull(versionSummary.basis), ne(versionSummary.basis, basis))),
      )
      .limit(1)
      .get();
    if (stale) {
      deriveVersion(db, { ...stale, pieceId }, basis);
      return true;
    }
  }
  return false;
}

/** How many pieces and versions there are, for whoever wants to know whether the studio is empty. */
export const countPieces = (db: Db): number =>
  db
    .select({ n: sql<number>`count(*)` })
    .from(piece)
    .get()?.n ?? 0;
