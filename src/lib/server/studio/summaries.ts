/**
 * What pages show of pieces and versions without reading or arranging anything: derived once, kept as a row, and made again where
 * its basis (the content that it was made of) is no longer what it is about.
 */
import { formOf, type Form } from '$core/analysis/form';
import { keyOf } from '$core/analysis/key';
import { reportOf, type PieceReport } from '$core/analysis/report';
import type { TimeSignature } from '$core/score/score';
import type { Key } from '$core/theory/key';
import { and, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, piece, pieceSummary, version, versionSummary } from '../db/schema';
import { contentKey, ENGINE } from './contentKey';
import { studioLevels } from './levels';
import { preparedKey, preparedKeys, preparedPiece } from './prepared';
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

const pieceBasis = (preparedName: string): string => contentKey(ENGINE, preparedName);

function derivePiece(
  db: Db,
  pieceId: string,
  basis: string,
): { data: PieceSummary; report: PieceReport | null } {
  const { score } = preparedPiece(db, pieceId);
  const report = score.measures.length > LONG ? null : reportOf(score);
  const form = report?.form ?? formOf(score);
  const data: PieceSummary = {
    key: keyOf(score),
    time: score.measures[0]!.time,
    measures: form.measureCount,
    newMeasures: form.newMeasures,
  };
  const row = { basis, data: JSON.stringify(data), report: JSON.stringify(report) };
  db.insert(pieceSummary)
    .values({ pieceId, ...row })
    .onConflictDoUpdate({ target: pieceSummary.pieceId, set: row })
    .run();
  return { data, report };
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

/** The report of one piece; null where it is too long to be made for a page. */
export function pieceReport(db: Db, pieceId: string): PieceReport | null {
  const basis = pieceBasis(preparedKey(db, pieceId));
  const row = db.select().from(pieceSummary).where(eq(pieceSummary.pieceId, pieceId)).get();
  return row?.basis === basis
    ? (JSON.parse(row.report) as PieceReport | null)
    : derivePiece(db, pieceId, basis).report;
}

/** What names the content of a version's summary, besides the edit it is about. */
export type Basis = (preparedName: string) => string;

/** The levels are read once for many versions. */
export function versionBasis(db: Db): Basis {
  const levels = contentKey(studioLevels(db));
  return (preparedName) => contentKey(ENGINE, preparedName, levels);
}

/** A version at an edit, whose summary is wanted. */
export interface Wanted {
  readonly versionId: string;
  readonly pieceId: string;
  readonly number: number;
}

function deriveVersion(db: Db, { versionId, pieceId, number }: Wanted, basis: string): VersionSummary {
  const document = documentAt(db, versionId, number);
  const { form, score, difficulty, key, goalTempo } = realiseDocument(db, pieceId, document);
  const data: VersionSummary = {
    level: document.recipe.level,
    key,
    goalTempo,
    time: score.measures.at(-1)!.time,
    ids: score.measures.map((m) => m.id),
    numbers: score.measures.map((m) => m.number),
    difficulty: difficulty.map((d) => d.score),
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
  };
  const row = { basis, data: JSON.stringify(data) };
  db.insert(versionSummary)
    .values({ versionId, number, ...row })
    .onConflictDoUpdate({ target: [versionSummary.versionId, versionSummary.number], set: row })
    .run();
  return data;
}

/** Summaries of versions, in the order in which they are wanted. */
export function versionSummaries(db: Db, wanted: readonly Wanted[]): VersionSummary[] {
  if (wanted.length === 0) return [];
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
    return row?.basis === basis ? (JSON.parse(row.data) as VersionSummary) : deriveVersion(db, w, basis);
  });
}

/**
 * Makes one summary again that no longer holds (the levels or the engine are not what they were), so that a list does not have to.
 * False where all hold.
 */
export function refreshOne(db: Db): boolean {
  const names = preparedKeys(db);
  const basisOf = versionBasis(db);
  const bases = [...names].map(([id, name]) => [id, basisOf(name)] as const);
  for (const [pieceId, basis] of bases) {
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
