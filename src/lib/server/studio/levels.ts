/** The levels of the studio: those that ship, unless the teacher has changed them or added her own. */
import { LEVELS, levelsSchema, type LevelContract } from '$core/arrange/levels';
import { merged } from '$core/edits/merge';
import { atomically, type Db } from '../db/open';
import { studio } from '../db/schema';

/** Every level of the studio, in rising order. */
export function studioLevels(db: Db): readonly LevelContract[] {
  const stored = db.select({ levels: studio.levels }).from(studio).get()?.levels;
  if (!stored) return LEVELS;
  const checked = levelsSchema.safeParse(stored);
  // Levels that an older or newer program wrote are not worth losing every version for.
  if (!checked.success) console.error('The stored levels can’t be used:', checked.error.issues);
  return checked.success ? checked.data : LEVELS;
}

/** Numbers and names of the studio's levels, for lists to choose from. */
export const levelNames = (db: Db): { level: number; name: string }[] =>
  studioLevels(db).map(({ level, name }) => ({ level, name }));

/** What a change of one level has met: limits that another window has changed, and the level as it has it; or that it is gone. */
export type LevelMet =
  'gone' | { readonly fields: readonly (keyof LevelContract)[]; readonly there: LevelContract };

/**
 * Keeps one level, changed from what it was. Limits that another window has changed stay; where both changed the same, that level comes
 * back and nothing is written.
 */
export const changeLevel = (
  db: Db,
  wanted: LevelContract,
  was: Partial<LevelContract>,
): LevelMet | undefined =>
  atomically(db, (tx) => {
    const levels = studioLevels(tx);
    const now = levels.find((l) => l.level === wanted.level);
    if (!now) return 'gone';
    const { value, conflicts } = merged<LevelContract>(was, now, wanted);
    if (conflicts.length > 0) return { fields: conflicts, there: now };
    setStudioLevels(tx, levelsSchema.parse(levels.map((l) => (l === now ? value : l))));
    return undefined;
  });

/** Takes a level away, unless another window has changed it since `was`. */
export const removeLevel = (
  db: Db,
  number: number,
  was: Partial<LevelContract>,
): LevelMet | 'last' | undefined =>
  atomically(db, (tx) => {
    const levels = studioLevels(tx);
    const now = levels.find((l) => l.level === number);
    if (!now) return undefined;
    const fields = (Object.keys(was) as (keyof LevelContract)[]).filter(
      (limit) => JSON.stringify(now[limit]) !== JSON.stringify(was[limit]),
    );
    if (fields.length > 0) return { fields, there: now };
    if (levels.length === 1) return 'last';
    setStudioLevels(
      tx,
      levels.filter((l) => l !== now),
    );
    return undefined;
  });

/** Adds a level after another, like it; its number comes back, undefined where there is no room. */
export const addLevelAfter = (db: Db, number: number): number | undefined =>
  atomically(db, (tx) => {
    const levels = studioLevels(tx);
    const model = levels.find((l) => l.level === number) ?? levels.at(-1)!;
    const level = numberAfter(levels, model.level);
    if (level === undefined || level > HIGHEST) return undefined;
    setStudioLevels(
      tx,
      levelsSchema.parse([...levels, { ...model, level, name: `${model.name}, and more` }]),
    );
    return level;
  });

const HIGHEST = 12;

/** The number of a new level after another: halfway to the next, or the next whole one. */
function numberAfter(levels: readonly LevelContract[], level: number): number | undefined {
  const next = levels.find((l) => l.level > level)?.level;
  const wanted = next === undefined ? Math.floor(level) + 1 : level + 0.5;
  return next !== undefined && wanted >= next ? undefined : wanted;
}

/** Goes back to the levels that ship, unless another window has changed some since `was`. False where it has. */
export const resetLevels = (db: Db, was: readonly LevelContract[] | undefined): boolean =>
  atomically(db, (tx) => {
    if (was && JSON.stringify(was) !== JSON.stringify(studioLevels(tx))) return false;
    setStudioLevels(tx, null);
    return true;
  });

/** Keeps levels in place of those before; null goes back to those that ship. */
export function setStudioLevels(db: Db, levels: readonly LevelContract[] | null): void {
  const row = db.select({ id: studio.id }).from(studio).get();
  if (row) db.update(studio).set({ levels }).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', levels }).run();
}
