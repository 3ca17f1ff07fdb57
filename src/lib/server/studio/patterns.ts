/** Patterns of the studio: what the teacher has written once and can choose on every bench. A version keeps its own copy. */
import { studioPatternSchema, teacherPattern, type StudioPattern } from '$core/arrange/teacherPattern';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { studio } from '../db/schema';

/** Most patterns of a studio: a list that can still be read. */
export const MOST_PATTERNS = 60;

const nameOf = ({ text }: StudioPattern): string => teacherPattern(text).name;

/** Every pattern of the studio, by hand and name. */
export function studioPatterns(db: Db): readonly StudioPattern[] {
  const stored = db.select({ patterns: studio.patterns }).from(studio).get()?.patterns;
  const checked = z.array(studioPatternSchema).safeParse(stored ?? []);
  if (!checked.success) console.error('The stored patterns can’t be used:', checked.error.issues);
  return checked.success ? checked.data : [];
}

/** Keeps a pattern; one of the same hand and name is replaced. False where there is no room for another. */
export const keepPattern = (db: Db, pattern: StudioPattern): boolean =>
  atomically(db, (tx) => {
    const others = studioPatterns(tx).filter((p) => p.hand !== pattern.hand || nameOf(p) !== nameOf(pattern));
    if (others.length >= MOST_PATTERNS) return false;
    setPatterns(tx, [...others, pattern]);
    return true;
  });

/** Takes a pattern away. Versions that play it go on playing it. False where it was not there. */
export const removePattern = (db: Db, { hand, text }: StudioPattern): boolean =>
  atomically(db, (tx) => {
    const before = studioPatterns(tx);
    const left = before.filter((p) => p.hand !== hand || p.text !== text);
    if (left.length === before.length) return false;
    setPatterns(tx, left);
    return true;
  });

function setPatterns(db: Db, patterns: readonly StudioPattern[]): void {
  const sorted = [...patterns].sort(
    (a, b) => a.hand.localeCompare(b.hand) || nameOf(a).localeCompare(nameOf(b)),
  );
  const row = db.select({ id: studio.id }).from(studio).get();
  if (row) db.update(studio).set({ patterns: sorted }).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', patterns: sorted }).run();
}
