/** Classes: several learners with one piece, each at their own level. */
import { lineText } from '$core/plainText';
import { merged, mergedSet } from '$core/edits/merge';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { assignment, group, groupMember, learner, piece, version } from '../db/schema';
import { newId, now } from './ids';

export const groupSchema = z.object({
  name: lineText().min(1, 'A class needs a name.').max(80, 'Keep the name under 80 letters.'),
  piece: z.string().min(1, 'Choose the piece.').max(40),
  members: z.array(z.string().max(40)).min(1, 'Choose the students.').max(40),
});

type GroupRow = typeof group.$inferSelect;

export const addGroup = (db: Db, name: string, pieceId: string, members: readonly string[]): string =>
  atomically(db, (tx) => {
    const id = newId();
    tx.insert(group).values({ id, name, pieceId, createdAt: now() }).run();
    for (const learnerId of members) tx.insert(groupMember).values({ groupId: id, learnerId }).run();
    return id;
  });

/** What a form says of a class. */
export type GroupFields = z.infer<typeof groupSchema>;

/** What is named in a form and is not there; undefined where all of it is. */
export function missingIn(db: Db, { piece: wanted, members }: GroupFields): 'piece' | 'student' | undefined {
  if (
    !db
      .select({ id: piece.id })
      .from(piece)
      .where(and(eq(piece.id, wanted), isNull(piece.deletedAt)))
      .get()
  )
    return 'piece';
  const there = db
    .select({ id: learner.id })
    .from(learner)
    .where(and(inArray(learner.id, members), isNull(learner.deletedAt)))
    .all();
  return there.length < new Set(members).size ? 'student' : undefined;
}

/**
 * Changes name, piece and members of a class from what they were (`was`). Who joined in another window stays; a name or a piece that
 * another window has changed to something else comes back, and nothing is written.
 */
export const changeGroup = (
  db: Db,
  id: string,
  wanted: GroupFields,
  was: Partial<GroupFields> = {},
): 'kept' | 'gone' | { readonly fields: readonly ('name' | 'piece')[]; readonly there: GroupFields } =>
  atomically(db, (tx) => {
    const row = listGroups(tx).find((g) => g.id === id);
    if (!row) return 'gone';
    const now = { name: row.name, piece: row.pieceId ?? '', members: row.members.map((m) => m.id) };
    const { value, conflicts } = merged(
      { name: was.name ?? now.name, piece: was.piece ?? now.piece },
      { name: now.name, piece: now.piece },
      { name: wanted.name, piece: wanted.piece },
    );
    if (conflicts.length > 0) return { fields: conflicts, there: now };
    const members = mergedSet(was.members ?? now.members, now.members, wanted.members);
    tx.update(group).set({ name: value.name, pieceId: value.piece }).where(eq(group.id, id)).run();
    // A member in the trash stays one: a student who is restored is in the class again.
    for (const learnerId of now.members.filter((m) => !members.includes(m)))
      tx.delete(groupMember)
        .where(and(eq(groupMember.groupId, id), eq(groupMember.learnerId, learnerId)))
        .run();
    for (const learnerId of members.filter((m) => !now.members.includes(m)))
      tx.insert(groupMember).values({ groupId: id, learnerId }).onConflictDoNothing().run();
    return 'kept';
  });

export const findGroup = (db: Db, id: string): GroupRow | undefined =>
  db
    .select()
    .from(group)
    .where(and(eq(group.id, id), isNull(group.deletedAt)))
    .get();

export const listGroups = (
  db: Db,
): (GroupRow & { readonly members: readonly { readonly id: string; readonly name: string }[] })[] => {
  const members = new Map<string, { id: string; name: string }[]>();
  for (const row of db
    .select({ groupId: groupMember.groupId, id: learner.id, name: learner.name })
    .from(groupMember)
    .innerJoin(learner, eq(learner.id, groupMember.learnerId))
    .where(isNull(learner.deletedAt))
    .orderBy(asc(learner.name))
    .all())
    members.set(row.groupId, [...(members.get(row.groupId) ?? []), { id: row.id, name: row.name }]);
  return db
    .select()
    .from(group)
    .where(isNull(group.deletedAt))
    .orderBy(asc(group.name))
    .all()
    .map((row) => ({ ...row, members: members.get(row.id) ?? [] }));
};

/** Puts a class away; its learners stay as they are. */
export const removeGroup = (db: Db, id: string): boolean =>
  db
    .update(group)
    .set({ deletedAt: now() })
    .where(and(eq(group.id, id), isNull(group.deletedAt)))
    .run().changes > 0;

/** The assignment of each member in the piece of a class, by the learner: the newest where there are several. */
export const partsOf = (db: Db, pieceId: string, learners: readonly string[]): ReadonlyMap<string, string> =>
  new Map(
    db
      .select({ id: assignment.id, learnerId: assignment.learnerId })
      .from(assignment)
      .innerJoin(version, eq(version.id, assignment.versionId))
      .where(and(eq(version.pieceId, pieceId), isNull(version.deletedAt)))
      .orderBy(asc(assignment.createdAt))
      .all()
      .filter((a) => learners.includes(a.learnerId))
      .map((a) => [a.learnerId, a.id]),
  );
