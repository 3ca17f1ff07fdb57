/**
 * What lists and pages show of pieces and versions without reading or arranging anything: derived in the pool, kept as a row, and
 * made again where its basis (the content that it was made of) is no longer what it is about.
 */
import { InputError } from '$core/io/inputError';
import { and, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, piece, pieceSummary, version, versionSummary } from '../db/schema';
import type { Work } from '../pool/work';
import { noteNaming } from '$core/theory/noteNames';
import { contentKey, ENGINE } from './contentKey';
import { derivedRows } from './derivedRows';
import { perOpening } from '../db/opening';
import type { Derived, PieceFacts, PieceSummary, Unreadable, VersionSummary, Wanted } from './derive';
import { studioLevels } from './levels';
import { isLongPiece, longPieces } from './pieces';
import { preparedKey, preparedKeys } from './prepared';

const pieceBasis = (preparedName: string): string => contentKey(ENGINE, noteNaming(), preparedName);

interface PieceMade {
  readonly basis: string;
  readonly data: PieceSummary;
  readonly facts: PieceFacts;
}

/** Pieces derived lately: a report of a long piece has some hundred kilobytes. */
const MOST_PIECES = 40;
const pieces = derivedRows<PieceMade>('Summaries of pieces', MOST_PIECES, (db, pieceId, made) => {
  const row = { basis: made.basis, data: JSON.stringify(made.data), report: JSON.stringify(made.facts) };
  // It may have been deleted meanwhile.
  if (!db.select({ id: piece.id }).from(piece).where(eq(piece.id, pieceId)).get()) return;
  db.insert(pieceSummary)
    .values({ pieceId, ...row })
    .onConflictDoUpdate({ target: pieceSummary.pieceId, set: row })
    .run();
});
/** One that was derived of a content; undefined where the last one was of another. */
function pieceMade(db: Db, pieceId: string, basis: string | undefined): PieceMade | undefined {
  const made = pieces.get(db, pieceId);
  return made?.basis === basis ? made : undefined;
}

/** A list does not wait longer than this for what a heavy piece takes, in milliseconds. */
const PATIENCE = 150;
const STILL_READING = 'Key Path is still reading this piece. Look again in a moment.';

/** What goes on for one thing goes on once, whoever looks for it. */
const goingOn = perOpening(() => new Map<string, Promise<unknown>>());

/** What is made of something heavy, where that is soon; undefined where it goes on behind the list that asks for it. */
function soon<T>(db: Db, name: string, make: () => Promise<T>): Promise<T | undefined> {
  const running = goingOn(db);
  const known = running.get(name) as Promise<T> | undefined;
  const made = known ?? make().finally(() => running.delete(name));
  if (!known) running.set(name, made);
  // Whoever waits hears of a fault; where nobody does any more, the next look tries again.
  made.catch((error: unknown) => console.error(`${name} could not be derived:`, error));
  return Promise.race([made, new Promise<undefined>((resolve) => setTimeout(resolve, PATIENCE))]);
}

/** What the list says of each piece, by its id. */
export async function pieceSummaries(
  db: Db,
  work: Work,
): Promise<ReadonlyMap<string, PieceSummary | Unreadable>> {
  const rows = new Map(
    db
      .select({ pieceId: pieceSummary.pieceId, basis: pieceSummary.basis, data: pieceSummary.data })
      .from(pieceSummary)
      .all()
      .map((row) => [row.pieceId, row]),
  );
  const bases = new Map([...preparedKeys(db)].map(([id, name]) => [id, pieceBasis(name)]));
  const stale = [...bases].filter(
    ([id, basis]) => rows.get(id)?.basis !== basis && !pieceMade(db, id, basis),
  );
  const derived = new Map<string, PieceSummary | Unreadable>();
  const long = longPieces(
    db,
    stale.map(([id]) => id),
  );
  const take = (list: typeof stale, all: Awaited<ReturnType<typeof derivedBy>>): void =>
    all.forEach((made, i) => void derived.set(list[i]![0], 'problem' in made ? made : made.data));
  const derivedBy = async (list: typeof stale, isLong: boolean) => {
    const all = await work(
      'pieces',
      list.map(([id]) => id),
      { isLong },
    );
    // Also of one that nobody waits for any more.
    all.forEach((made, i) => {
      const [id, basis] = list[i]!;
      if (!('problem' in made)) pieces.keep(db, id, { basis, ...made });
    });
    return all;
  };
  const light = stale.filter(([id]) => !long.has(id));
  const heavy = stale.filter(([id]) => long.has(id));
  const behind = heavy.map(async (one) => {
    const made = await soon(db, `Piece ${one.join(' ')}`, () => derivedBy([one], true));
    if (made) take([one], made);
    else derived.set(one[0], { problem: STILL_READING });
  });
  if (light.length > 0) take(light, await derivedBy(light, false));
  await Promise.all(behind);
  return new Map(
    [...bases].map(([id, basis]) => [
      id,
      derived.get(id) ?? pieceMade(db, id, basis)?.data ?? (JSON.parse(rows.get(id)!.data) as PieceSummary),
    ]),
  );
}

/** What the page of one piece shows. Rejects with InputError where its file cannot be read. */
export async function pieceFacts(db: Db, work: Work, pieceId: string): Promise<PieceFacts> {
  const basis = pieceBasis(preparedKey(db, pieceId));
  const known = pieceMade(db, pieceId, basis);
  if (known) return known.facts;
  const row = db.select().from(pieceSummary).where(eq(pieceSummary.pieceId, pieceId)).get();
  if (row?.basis === basis) return JSON.parse(row.report) as PieceFacts;
  const [made] = await work('pieces', [pieceId], { isLong: isLongPiece(db, pieceId) });
  if ('problem' in made!) throw new InputError(made.problem);
  pieces.keep(db, pieceId, { basis, ...made! });
  return made!.facts;
}

/** The levels are read once for many versions. */
export function versionBasis(db: Db): (preparedName: string) => string {
  const levels = contentKey(studioLevels(db));
  return (preparedName) => contentKey(ENGINE, noteNaming(), preparedName, levels);
}

interface VersionMade {
  readonly basis: string;
  readonly summary: VersionSummary;
}

const MOST_VERSIONS = 200;
const versions = derivedRows<VersionMade>('Summaries of versions', MOST_VERSIONS, (db, name, made) => {
  const [versionId, number] = name.split(' ') as [string, string];
  const row = { basis: made.basis, data: JSON.stringify(made.summary) };
  if (!db.select({ id: version.id }).from(version).where(eq(version.id, versionId)).get()) return;
  db.insert(versionSummary)
    .values({ versionId, number: Number(number), ...row })
    .onConflictDoUpdate({ target: [versionSummary.versionId, versionSummary.number], set: row })
    .run();
});
const nameOf = ({ versionId, number }: Wanted): string => `${versionId} ${number}`;

/** Summaries of versions, in the order in which they are wanted. A list does not wait for those of heavy pieces. */
export async function versionSummaries(
  db: Db,
  work: Work,
  wanted: readonly Wanted[],
  { isList = false } = {},
): Promise<(VersionSummary | Unreadable)[]> {
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
  const bases = wanted.map((w) => basisOf(names?.get(w.pieceId) ?? preparedKey(db, w.pieceId)));
  const kept = wanted.map((w, i) => {
    const made = versions.get(db, nameOf(w));
    if (made?.basis === bases[i]) return made!.summary;
    const row = rows.get(nameOf(w));
    return row?.basis === bases[i] ? (JSON.parse(row!.data) as VersionSummary) : undefined;
  });
  const stale = wanted.flatMap((_, i) => (kept[i] ? [] : [i]));
  const derived = new Map<number, VersionSummary | Unreadable>();
  const long = longPieces(
    db,
    stale.map((i) => wanted[i]!.pieceId),
  );
  const derive = async (list: readonly number[], isLong: boolean): Promise<readonly Derived[]> => {
    const all = await work(
      'versions',
      list.map((i) => wanted[i]!),
      { isLong },
    );
    for (const [at, { summary, isWhole }] of all.entries()) {
      const i = list[at]!;
      if (isWhole && !('problem' in summary))
        versions.keep(db, nameOf(wanted[i]!), { basis: bases[i]!, summary });
      derived.set(i, summary);
    }
    return all;
  };
  const light = stale.filter((i) => !long.has(wanted[i]!.pieceId));
  const heavy = stale.filter((i) => long.has(wanted[i]!.pieceId));
  const behind = heavy.map(async (i) => {
    const made = isList
      ? await soon(db, `Version ${nameOf(wanted[i]!)} ${bases[i]!}`, () => derive([i], true))
      : await derive([i], true);
    // Somebody else may have asked for the same.
    if (made) derived.set(i, made[0]!.summary);
    else derived.set(i, { problem: STILL_READING });
  });
  if (light.length > 0) await derive(light, false);
  await Promise.all(behind);
  return kept.map((summary, i) => summary ?? derived.get(i)!);
}

/** The summary of one version. Rejects with InputError where there is none. */
export async function versionSummaryOf(db: Db, work: Work, wanted: Wanted): Promise<VersionSummary> {
  const [summary] = await versionSummaries(db, work, [wanted]);
  if ('problem' in summary!) throw new InputError(summary.problem);
  return summary!;
}

/** A version that was given whose summary no longer holds, because a piece, the levels or the engine are not what they were. */
function staleVersion(db: Db, passed: ReadonlySet<string>): Wanted | undefined {
  const basisOf = versionBasis(db);
  for (const [pieceId, name] of preparedKeys(db)) {
    const stale = db
      .selectDistinct({ versionId: assignment.versionId, number: assignment.edit })
      .from(assignment)
      .innerJoin(version, eq(version.id, assignment.versionId))
      .leftJoin(
        versionSummary,
        and(eq(versionSummary.versionId, assignment.versionId), eq(versionSummary.number, assignment.edit)),
      )
      .where(
        and(
          eq(version.pieceId, pieceId),
          or(isNull(versionSummary.basis), ne(versionSummary.basis, basisOf(name))),
        ),
      )
      .all()
      .find((s) => !passed.has(`${s.versionId} ${s.number}`));
    if (stale) return { ...stale, pieceId };
  }
  return undefined;
}

/**
 * Makes one summary again that no longer holds, so that no list has to. False where all hold. `passed` remembers those that cannot
 * be made.
 */
export async function refreshOne(db: Db, work: Work, passed: Set<string>): Promise<boolean> {
  const stale = staleVersion(db, passed);
  if (!stale) return false;
  const [summary] = await versionSummaries(db, work, [stale]);
  if ('problem' in summary!) passed.add(`${stale.versionId} ${stale.number}`);
  return true;
}

/** How many pieces there are, for whoever wants to know whether the studio is empty. */
export const countPieces = (db: Db): number =>
  db
    .select({ n: sql<number>`count(*)` })
    .from(piece)
    .get()?.n ?? 0;
