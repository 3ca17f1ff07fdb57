/** Versions: documents saved edit by edit; the music is realised from them. */
import { InputError } from '$core/io/inputError';
import { plainLine } from '$core/plainText';
import { editTo, meet, patched, patching, replayed, isSameWhere, type Patch } from '$core/edits/edit';
import { historyOf, type EditWindow } from '$core/edits/history';
import { editText } from '$core/edits/sentence';
import { decide } from '$core/decisions/decide';
import type { Decision } from '$core/decisions/registry';
import { documentOf, documentSchema, listed, type VersionDocument } from '$core/version/document';
import { realise, writtenScore, type Version } from '$core/version/realise';
import type { Score } from '$core/score/score';
import type { Recipe } from '$core/version/recipe';
import { and, asc, desc, eq, gt, isNull, lte, sql, type SQL } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { atomically, type Db } from '../db/open';
import { perOpening } from '../db/opening';
import { edit, piece, revision, snapshot, version } from '../db/schema';
import { houseTaste } from './houseTaste';
import { newId, now } from './ids';
import { studioLevels } from './levels';
import { preparedPiece } from './prepared';

/** Edits from one snapshot to the next: few enough to be applied at once, many enough to stay small. */
export const SNAPSHOT_EVERY = 250;

/** Who makes an edit, until teachers sign in by name. */
const AUTHOR = 'teacher';

export interface VersionRow {
  readonly id: string;
  readonly pieceId: string;
  readonly title: string;
  /** The newest edit. */
  readonly edit: number;
  readonly level: number;
  readonly style: Recipe['style'];
  /** The key that was chosen. */
  readonly key: string | null;
  readonly decided: number;
  readonly name: string | null;
  /** The edit that was signed as ready. */
  readonly signedEdit: number | null;
  readonly signedAt: string | null;
}

const columns = {
  id: version.id,
  pieceId: version.pieceId,
  title: piece.title,
  edit: version.edit,
  level: version.level,
  style: version.style,
  key: version.key,
  decided: version.decided,
  name: version.name,
  signedEdit: version.signedEdit,
  signedAt: version.signedAt,
};

/** Versions in use, of pieces in use. */
const select = (db: Db, which: SQL) =>
  db
    .select(columns)
    .from(version)
    .innerJoin(piece, eq(version.pieceId, piece.id))
    .where(and(which, isNull(version.deletedAt), isNull(piece.deletedAt)));

export const findVersion = (db: Db, id: string): VersionRow | undefined =>
  select(db, eq(version.id, id)).get();

export const listVersions = (db: Db, pieceId: string): VersionRow[] =>
  select(db, eq(version.pieceId, pieceId)).orderBy(desc(version.createdAt)).all();

const MOST_DOCUMENTS = 500;
const documentsOf = perOpening(() => new LRUCache<string, VersionDocument>({ max: MOST_DOCUMENTS }));

/** What a version was at an edit. Edits never change, so it is kept. Throws where the version has no such edit. */
export function documentAt(db: Db, id: string, number: number): VersionDocument {
  const documents = documentsOf(db);
  const key = `${id} ${number}`;
  const known = documents.get(key);
  if (known) return known;
  const from = db
    .select()
    .from(snapshot)
    .where(and(eq(snapshot.versionId, id), lte(snapshot.number, number)))
    .orderBy(desc(snapshot.number))
    .limit(1)
    .get();
  if (!from) throw new InputError('This version’s data can’t be read.');
  const edits = db
    .select({ number: edit.number, patches: edit.patches })
    .from(edit)
    .where(and(eq(edit.versionId, id), gt(edit.number, from.number), lte(edit.number, number)))
    .orderBy(asc(edit.number))
    .all();
  if ((edits.at(-1)?.number ?? from.number) !== number)
    throw new InputError(`This version’s changes up to number ${number} are not all there.`);
  const document = edits.reduce(
    (before, { patches }) => replayed(before, patches),
    documentSchema.parse(from.document),
  );
  documents.set(key, document);
  return document;
}

/** What a version is now. */
export const documentOfVersion = (db: Db, row: Pick<VersionRow, 'id' | 'edit'>): VersionDocument =>
  documentAt(db, row.id, row.edit);

/** Makes a version; its proposals have the house's hand as it is now, unless it brings one. */
export function addVersion(db: Db, pieceId: string, begun: VersionDocument): string {
  const id = newId();
  const taste = begun.recipe.taste ?? houseTaste(db);
  const document = taste ? { ...begun, recipe: { ...begun.recipe, taste } } : begun;
  atomically(db, (tx) => {
    tx.insert(version)
      .values({ id, pieceId, edit: 0, ...headOf(document), createdAt: now() })
      .run();
    tx.insert(snapshot).values({ versionId: id, number: 0, document }).run();
  });
  return id;
}

/** What the list of versions shows of a document. */
const headOf = (document: VersionDocument) => ({
  level: document.recipe.level,
  style: document.recipe.style,
  key: document.recipe.key,
  decided: listed(document).length,
});

/** A version as it is now, and whether there is something to undo or redo. */
export interface Saved {
  readonly edit: number;
  readonly document: VersionDocument;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

/** `refused` where the change could not be made on what another window has saved meanwhile: nothing is written. */
export type SaveResult = (Saved & { readonly refused?: string }) | undefined;

/** Which edits undo and redo would take in a window; without one, of all edits. */
function historyOfVersion(
  db: Db,
  id: string,
  window?: EditWindow,
): { undo: number | undefined; redo: number | undefined } {
  return historyOf(
    db
      .select({ number: edit.number, undoes: edit.undoes, redoes: edit.redoes, window: edit.window })
      .from(edit)
      .where(eq(edit.versionId, id))
      .orderBy(asc(edit.number))
      .all(),
    window,
  );
}

/** A version with what undo and redo can do in a window. */
export function savedState(db: Db, id: string, window?: EditWindow): Saved | undefined {
  const row = findVersion(db, id);
  if (!row) return undefined;
  const { undo, redo } = historyOfVersion(db, id, window);
  return {
    edit: row.edit,
    document: documentOfVersion(db, row),
    canUndo: undo !== undefined,
    canRedo: redo !== undefined,
  };
}

type NewEdit = Pick<typeof edit.$inferInsert, 'patches' | 'inverse' | 'undoes' | 'redoes' | 'window'>;

/** Adds an edit behind the newest one. */
function append(tx: Db, row: VersionRow, made: NewEdit, document: VersionDocument): void {
  const number = row.edit + 1;
  tx.insert(edit)
    .values({ versionId: row.id, number, author: AUTHOR, createdAt: now(), ...made })
    .run();
  if (number % SNAPSHOT_EVERY === 0)
    tx.insert(snapshot).values({ versionId: row.id, number, document }).run();
  tx.update(version)
    .set({ edit: number, ...headOf(document) })
    .where(eq(version.id, row.id))
    .run();
}

const NOT_SAVED =
  'This was changed in another window. You now see the saved version; make your last change again.';
const NOT_UNDONE = {
  undo: 'This was changed in another window since. You now see the saved version; nothing was undone.',
  redo: 'This was changed in another window since. You now see the saved version; nothing was redone.',
};

/** What a change makes of the newest state: an edit and the document after it, nothing to do, or a refusal. */
type Change =
  { readonly made: NewEdit; readonly document: VersionDocument } | 'nothing' | { readonly refused: string };

/** Adds what `change` makes of the newest state, in one transaction that has the database to itself. */
function changing(
  db: Db,
  id: string,
  window: EditWindow | undefined,
  make: (tx: Db, row: VersionRow) => Change,
): SaveResult {
  const done = atomically(db, (tx): { readonly change: Change; readonly number: number } | undefined => {
    const row = findVersion(tx, id);
    if (!row) return undefined;
    const result = make(tx, row);
    if (typeof result === 'object' && 'made' in result)
      append(tx, row, { ...result.made, window: window?.id ?? null }, result.document);
    return { change: result, number: row.edit + 1 };
  });
  const change = done?.change;
  if (typeof change === 'object' && 'made' in change)
    documentsOf(db).set(`${id} ${done!.number}`, change.document);
  const saved = done && savedState(db, id, window);
  return saved && typeof change === 'object' && 'refused' in change
    ? { ...saved, refused: change.refused }
    : saved;
}

/**
 * Saves a change that was made on an edit. What another window has saved since then stays: where the two touch different things,
 * both are kept; where they meet, nothing is written. Undefined where there is no such version. Throws where the patch fits no
 * document.
 */
export const saveEdit = (
  db: Db,
  id: string,
  {
    patches: sent,
    basedOn,
    window,
  }: { readonly patches: Patch; readonly basedOn: number; readonly window?: EditWindow | undefined },
): SaveResult =>
  changing(db, id, window, (tx, row) => {
    const since = tx
      .select({ patches: edit.patches })
      .from(edit)
      .where(and(eq(edit.versionId, id), gt(edit.number, basedOn)))
      .all();
    if (basedOn > row.edit || since.some((other) => meet(other.patches, sent))) return { refused: NOT_SAVED };
    // The inverse is made here: what the page had before may not be what was saved before.
    const { document, patches, inverse } = patching(documentOfVersion(tx, row), sent);
    return inverse.length === 0
      ? 'nothing'
      : { made: { patches, inverse, undoes: null, redoes: null }, document };
  });

/**
 * Takes the last change of a window back, or makes the last one that it took back again. Where another window has changed the same
 * meanwhile, nothing is.
 */
export const stepBack = (db: Db, id: string, step: 'undo' | 'redo', window?: EditWindow): SaveResult =>
  changing(db, id, window, (tx, row) => {
    const number = historyOfVersion(tx, id, window)[step];
    if (number === undefined) return 'nothing';
    const target = tx
      .select()
      .from(edit)
      .where(and(eq(edit.versionId, id), eq(edit.number, number)))
      .get()!;
    const isUndo = step === 'undo';
    const [patches, inverse] = isUndo ? [target.inverse, target.patches] : [target.patches, target.inverse];
    const now = documentOfVersion(tx, row);
    // What it changed is still as it left it, or as it was before it.
    const left = documentAt(tx, id, isUndo ? number : number - 1);
    if (window && !isSameWhere(patches, left, now)) return { refused: NOT_UNDONE[step] };
    return {
      made: { patches, inverse, undoes: isUndo ? number : null, redoes: isUndo ? null : number },
      document: patched(now, patches),
    };
  });

/** Makes a version what it was at an earlier edit, as one more edit. Undefined where there is no such version or edit. */
export function goBackTo(db: Db, id: string, number: number, window?: EditWindow): SaveResult {
  const row = findVersion(db, id);
  if (!row || number < 0 || number > row.edit) return undefined;
  const { patches } = editTo(documentOfVersion(db, row), documentAt(db, id, number));
  return patches.length === 0 ? savedState(db, id) : saveEdit(db, id, { patches, basedOn: row.edit, window });
}

/** A new version with what another one was at an edit; with a recipe of its own where it is for other hands. */
export function duplicateVersion(
  db: Db,
  row: VersionRow,
  number: number,
  change: { readonly recipe?: Partial<Recipe>; readonly decisions?: readonly Decision[] } = {},
): string {
  const document = documentAt(db, row.id, number);
  const decisions = decide(listed(document), ...(change.decisions ?? []));
  return addVersion(db, row.pieceId, documentOf({ ...document.recipe, ...change.recipe }, decisions));
}

/** Names a version; an empty name lets it go by its level and key again. */
export function nameVersion(db: Db, id: string, name: string): void {
  db.update(version)
    .set({ name: plainLine(name) || null })
    .where(eq(version.id, id))
    .run();
}

/** Marks a version as ready as it is at its newest edit; what is changed later came after. */
export function signVersion(db: Db, row: Pick<VersionRow, 'id' | 'edit'>): void {
  db.update(version).set({ signedEdit: row.edit, signedAt: now() }).where(eq(version.id, row.id)).run();
}

/** Takes the signature away. */
export function unsignVersion(db: Db, id: string): void {
  db.update(version).set({ signedEdit: null, signedAt: null }).where(eq(version.id, id)).run();
}

/** Who decided what, and when, by subject: of the edits that made or changed each, the last. */
export function decidedBy(
  db: Db,
  id: string,
): ReadonlyMap<string, { readonly author: string; readonly at: string }> {
  const by = new Map<string, { author: string; at: string }>();
  const edits = db
    .select({ author: edit.author, at: edit.createdAt, patches: edit.patches })
    .from(edit)
    .where(eq(edit.versionId, id))
    .orderBy(asc(edit.number))
    .all();
  for (const { author, at, patches } of edits)
    for (const { path, op } of patches)
      if (path[0] === 'decisions' && typeof path[1] === 'string' && op !== 'remove')
        by.set(path[1], { author, at });
  return by;
}

/** Every version in use, by its piece. */
export function versionsByPiece(db: Db): ReadonlyMap<string, readonly VersionRow[]> {
  const byPiece = new Map<string, VersionRow[]>();
  for (const row of select(db, sql`1`).all())
    byPiece.set(row.pieceId, [...(byPiece.get(row.pieceId) ?? []), row]);
  return byPiece;
}

/** When each version of the studio was last changed or begun, by its id. */
export const lastUsed = (db: Db): ReadonlyMap<string, string> =>
  new Map(
    db
      .all<{ id: string; at: string }>(
        sql`select v.id as id, max(v.created_at, coalesce((select max(e.created_at) from edit e where e.version_id = v.id), '')) as at from version v where v.deleted_at is null`,
      )
      .map(({ id, at }) => [id, at]),
  );

/** Gives the state at an edit a name; an empty one takes it away. */
export function nameRevision(db: Db, id: string, number: number, name: string): void {
  atomically(db, (tx) => {
    tx.delete(revision)
      .where(and(eq(revision.versionId, id), eq(revision.number, number)))
      .run();
    const plain = plainLine(name);
    if (plain !== '')
      tx.insert(revision).values({ versionId: id, number, name: plain, createdAt: now() }).run();
  });
}

interface HistoryLine {
  readonly number: number;
  readonly at: string;
  readonly author: string;
  /** What it did. */
  readonly says: string;
  readonly name: string | null;
}

/** The edits of a version with what each did, the newest first; at most so many, before a number where one is given. */
export function editsOf(db: Db, row: VersionRow, most = 100, before = row.edit + 1): HistoryLine[] {
  const names = new Map(
    db
      .select()
      .from(revision)
      .where(eq(revision.versionId, row.id))
      .all()
      .map((r) => [r.number, r.name]),
  );
  const list = db
    .select()
    .from(edit)
    .where(and(eq(edit.versionId, row.id), lte(edit.number, before - 1)))
    .orderBy(desc(edit.number))
    .limit(most)
    .all()
    .reverse();
  let document = documentAt(db, row.id, (list[0]?.number ?? 1) - 1);
  const lines = list.map(({ number, author, createdAt, undoes, redoes, patches, inverse }): HistoryLine => {
    const after = replayed(document, patches);
    // What was undone is named by what it had been.
    const did = undoes === null ? editText(document, after) : editText(after, replayed(after, inverse));
    document = after;
    const prefix = undoes !== null ? 'undone: ' : redoes !== null ? 'made again: ' : '';
    return { number, at: createdAt, author, says: prefix + did, name: names.get(number) ?? null };
  });
  return lines.reverse();
}

/** The music of a document over a piece as it is now; what was made before is kept by the stages themselves. */
export const realiseDocument = (db: Db, pieceId: string, document: VersionDocument): Version =>
  realise(preparedPiece(db, pieceId).score, document.recipe, listed(document), studioLevels(db));

/** The music of a document over its piece, without what is found about it. */
export const writtenDocument = (db: Db, pieceId: string, document: VersionDocument): Score =>
  writtenScore(preparedPiece(db, pieceId).score, document.recipe, listed(document), studioLevels(db));

/** The music of a version as it stands. */
export const realiseVersion = (db: Db, row: VersionRow): Version =>
  realiseDocument(db, row.pieceId, documentOfVersion(db, row));

/** For each piece the levels that it has a version at, with the newest version of each and how many there are. */
export function levelsMade(
  db: Db,
): ReadonlyMap<string, { readonly level: number; readonly count: number; readonly newest: string }[]> {
  // SQLite takes the other columns from the row that has the maximum.
  const rows = db.all<{ piece_id: string; level: number; count: number; id: string }>(
    sql`select piece_id, level, count(*) as count, id, max(created_at) from version where deleted_at is null group by piece_id, level order by level`,
  );
  const made = new Map<string, { level: number; count: number; newest: string }[]>();
  for (const { piece_id, level, count, id } of rows)
    made.set(piece_id, [...(made.get(piece_id) ?? []), { level, count, newest: id }]);
  return made;
}
