/** What the house's hand is learned from: the decided fingers of versions, as examples with the notes around them. */
import {
  exampleOf,
  examplesOf,
  NO_HOUSE_HAND,
  type HouseHand,
  type StoredExample,
} from '$core/fingering/houseHand';
import { byNote } from '$core/decisions/decide';
import { learnTaste } from '$core/fingering/learnTaste';
import { listed, type VersionDocument } from '$core/version/document';
import { arrangement } from '$core/version/arrangement';
import { fingered } from '$core/version/realise';
import { desc, eq } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { fingerExample } from '../db/schema';
import { setHouseHand } from './houseTaste';
import { now } from './ids';
import { studioLevels } from './levels';
import { preparedPiece } from './prepared';

/** Examples that are learned from: the newest, so that a hand may change its mind. */
const MOST_EXAMPLES = 300;

/** Forgets what was learned and what it was learned from. */
export function forgetHouseHand(db: Db): void {
  atomically(db, (tx) => {
    tx.delete(fingerExample).run();
    setHouseHand(tx, NO_HOUSE_HAND);
  });
}

/** The decided fingers of a version as examples. Runs in the pool. */
export function fingersDecided(
  db: Db,
  { pieceId, document }: { readonly pieceId: string; readonly document: VersionDocument },
): StoredExample[] {
  const decisions = listed(document);
  const decided = [...byNote(decisions, 'finger')];
  if (decided.length === 0) return [];
  const made = arrangement(preparedPiece(db, pieceId).score, document.recipe, decisions, studioLevels(db));
  return (['right', 'left'] as const).flatMap((hand) => {
    const own = fingered(made, decisions, hand);
    const ids = new Set(own.notes.map((n) => n.id));
    return examplesOf(
      own,
      decided.filter(([id]) => ids.has(id)),
    );
  });
}

/** Keeps the examples of a version in place of those before; whether anything is otherwise. */
export function keepExamples(db: Db, versionId: string, examples: readonly StoredExample[]): boolean {
  return atomically(db, (tx) => {
    const before = new Map(
      tx
        .select()
        .from(fingerExample)
        .where(eq(fingerExample.versionId, versionId))
        .all()
        .map((row) => [row.noteId, row]),
    );
    const same = (e: StoredExample): boolean => before.get(e.note)?.example.finger === e.finger;
    if (examples.length === before.size && examples.every(same)) return false;
    tx.delete(fingerExample).where(eq(fingerExample.versionId, versionId)).run();
    for (const example of examples) {
      const createdAt = same(example) ? before.get(example.note)!.createdAt : now();
      tx.insert(fingerExample).values({ versionId, noteId: example.note, example, createdAt }).run();
    }
    return true;
  });
}

/** Learns from the newest examples of the studio. Runs in the pool. */
export function learnHouseHand(db: Db): Pick<HouseHand, 'learned' | 'decisions'> {
  const rows = db
    .select({ example: fingerExample.example })
    .from(fingerExample)
    .orderBy(desc(fingerExample.createdAt))
    .limit(MOST_EXAMPLES)
    .all();
  const examples = rows.reverse().map((row) => exampleOf(row.example));
  return { learned: learnTaste(examples), decisions: examples.length };
}
