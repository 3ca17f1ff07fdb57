/** Versions: recipe and decisions, saved revision by revision; the music is realised from them. */
import { realise, type Version } from '$core/version/realise';
import { decisionsSchema, recipeSchema, type Decision, type Recipe } from '$core/version/recipe';
import { desc, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { piece, revision, version } from '../db/schema';
import { newId, now } from './ids';
import { studioLevels } from './levels';
import { scoreOf } from './pieces';

export interface VersionRow {
  readonly id: string;
  readonly pieceId: string;
  readonly title: string;
  readonly recipe: Recipe;
  readonly decisions: readonly Decision[];
  readonly revision: number;
}

const columns = {
  id: version.id,
  pieceId: version.pieceId,
  title: piece.title,
  recipe: version.recipe,
  decisions: version.decisions,
  revision: version.revision,
};

const checked = (row: VersionRow): VersionRow => ({
  ...row,
  recipe: recipeSchema.parse(row.recipe),
  decisions: decisionsSchema.parse(row.decisions),
});

const select = (db: Db) => db.select(columns).from(version).innerJoin(piece, eq(version.pieceId, piece.id));

export function findVersion(db: Db, id: string): VersionRow | undefined {
  const row = select(db).where(eq(version.id, id)).get();
  return row && checked(row);
}

export const listVersions = (db: Db, pieceId: string): VersionRow[] =>
  select(db).where(eq(version.pieceId, pieceId)).orderBy(desc(version.createdAt)).all().map(checked);

export const allVersions = (db: Db): VersionRow[] =>
  select(db).orderBy(desc(version.createdAt)).all().map(checked);

/** Makes a version with its first revision. */
export function addVersion(
  db: Db,
  pieceId: string,
  recipe: Recipe,
  decisions: readonly Decision[] = [],
): string {
  const id = newId();
  db.transaction((tx) => {
    tx.insert(version).values({ id, pieceId, recipe, decisions, revision: 1, createdAt: now() }).run();
    tx.insert(revision).values({ versionId: id, number: 1, recipe, decisions, createdAt: now() }).run();
  });
  return id;
}

export type SaveResult = { saved: true; revision: number } | { saved: false; revision: number };

/**
 * Saves a change as the next revision, if it was made on the newest one; otherwise nothing is written and the newest
 * number comes back, so that work done in another window is not overwritten.
 */
export function saveVersion(
  db: Db,
  id: string,
  change: { recipe: Recipe; decisions: readonly Decision[]; basedOn: number },
): SaveResult | undefined {
  return db.transaction((tx): SaveResult | undefined => {
    const current = tx.select({ number: version.revision }).from(version).where(eq(version.id, id)).get();
    if (!current) return undefined;
    if (current.number !== change.basedOn) return { saved: false, revision: current.number };
    const number = current.number + 1;
    const { recipe, decisions } = change;
    tx.update(version).set({ recipe, decisions, revision: number }).where(eq(version.id, id)).run();
    tx.insert(revision).values({ versionId: id, number, recipe, decisions, createdAt: now() }).run();
    return { saved: true, revision: number };
  });
}

const MOST_REALISED = 60;
const realised = new Map<string, Version>();

/** Forgets what was realised: the levels are no longer what they were. */
export const forgetRealised = (): void => realised.clear();

/** The music of a version as it stands; kept until the version changes. */
export function realiseVersion(db: Db, row: VersionRow): Version {
  const key = `${row.id}:${row.revision}`;
  const known = realised.get(key);
  if (known) return known;
  const made = realise(scoreOf(db, row.pieceId).score, row.recipe, row.decisions, studioLevels(db));
  realised.set(key, made);
  if (realised.size > MOST_REALISED) realised.delete(realised.keys().next().value!);
  return made;
}
