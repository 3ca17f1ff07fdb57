/** The house's hand as the studio keeps it, and what new versions have of it. */
import { houseHandSchema, NO_HOUSE_HAND, tasteOfHouse, type HouseHand } from '$core/fingering/houseHand';
import type { Taste } from '$core/fingering/taste';
import type { Db } from '../db/open';
import { studio } from '../db/schema';

/** What the studio's proposals have learned. */
export function houseHand(db: Db): HouseHand {
  const stored = db.select({ hand: studio.houseHand }).from(studio).get()?.hand;
  const checked = stored ? houseHandSchema.safeParse(stored) : undefined;
  if (checked && !checked.success)
    console.error('The stored fingering preferences can’t be used:', checked.error.issues);
  return checked?.success ? checked.data : NO_HOUSE_HAND;
}

/** What a new version begins with. */
export const houseTaste = (db: Db): Taste | null => tasteOfHouse(houseHand(db));

/** Changes what is kept of it. */
export function setHouseHand(db: Db, change: Partial<HouseHand>): void {
  const next = { ...houseHand(db), ...change };
  const row = db.select({ id: studio.id }).from(studio).get();
  if (row) db.update(studio).set({ houseHand: next }).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', houseHand: next }).run();
}
