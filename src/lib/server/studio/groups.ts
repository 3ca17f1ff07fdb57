/** Classes: several learners with one piece, each at their own level. */
import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { assignment, group, groupMember, learner, version } from '../db/schema';
import { newId, now } from './ids';

export const groupSchema = z.object({
  name: z.string().trim().min(1, 'A class needs a name.').max(80, 'Keep the name under 80 letters.'),
  piece: z.string().min(1, 'Choose the piece.').max(40),
  members: z.array(z.string().max(40)).min(1, 'Choose who is in it.').max(40),
});

export type GroupRow = typeof group.$inferSelect;

export const addGroup = (db: Db, name: string, pieceId: string, members: readonly string[]): string =>
  atomically(db, (tx) => {
    const id = newId();
    tx.insert(group).values({ id, name, pieceId, createdAt: now() }).run();
    for (const learnerId of members) tx.insert(groupMember).values({ groupId: id, learnerId }).run();
    return id;
  });

/** Changes name, piece and members of a class. */
export const changeGroup = (
  db: Db,
  id: string,
  { name, piece, members }: z.infer<typeof groupSchema>,
): void =>
  atomically(db, (tx) => {
    tx.update(group).set({ name, pieceId: piece }).where(eq(group.id, id)).run();
    tx.delete(groupMember).where(eq(groupMember.groupId, id)).run();
    for (const learnerId of members) tx.insert(groupMember).values({ groupId: id, learnerId }).run();
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
  db.update(group).set({ deletedAt: now() }).where(eq(group.id, id)).run().changes > 0;

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
