/** The levels of the studio: those that ship, unless the teacher has changed them or added her own. */
import { LEVELS, levelsSchema, type LevelContract } from '$core/arrange/levels';
import type { Db } from '../db/open';
import { studio } from '../db/schema';

/** Every level of the studio, in rising order. */
export function studioLevels(db: Db): readonly LevelContract[] {
  const stored = db.select({ levels: studio.levels }).from(studio).get()?.levels;
  if (!stored) return LEVELS;
  const checked = levelsSchema.safeParse(stored);
  // Levels that an older or newer program wrote are not worth losing every version for.
  if (!checked.success) console.error('The stored levels are not usable:', checked.error.issues);
  return checked.success ? checked.data : LEVELS;
}

/** Numbers and names of the studio's levels, for lists to choose from. */
export const levelNames = (db: Db): { level: number; name: string }[] =>
  studioLevels(db).map(({ level, name }) => ({ level, name }));

/** Keeps levels in place of those before; null goes back to those that ship. */
export function setStudioLevels(db: Db, levels: readonly LevelContract[] | null): void {
  const row = db.select({ id: studio.id }).from(studio).get();
  if (row) db.update(studio).set({ levels }).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', levels }).run();
}
