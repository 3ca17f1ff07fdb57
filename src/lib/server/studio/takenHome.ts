/** Practice rooms that are one file: what a student takes home, and the results that come back. */
import { resultsIn, resultsInWords } from '$core/lessons/home';
import { InputError } from '$core/io/inputError';
import type { RoomSent } from '$core/lessons/record';
import { plural } from '$core/plural';
import { eq, inArray } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { assignment, practice, progressEvent } from '../db/schema';
import { keepFromRoom } from './room';

/** Results tell of so many days: a lesson may have been missed. */
const DAYS = 60;

/** Tokens of what is kept already. */
function known(db: Db, sent: readonly RoomSent[]): ReadonlySet<string> {
  const tokens = sent.map((s) => s.token);
  const [events, stretches] = [
    db
      .select({ token: progressEvent.token })
      .from(progressEvent)
      .where(inArray(progressEvent.token, tokens))
      .all(),
    db.select({ token: practice.token }).from(practice).where(inArray(practice.token, tokens)).all(),
  ];
  return new Set([...events, ...stretches].flatMap(({ token }) => token ?? []));
}

/** What came of results: in words, and the assignments that changed. */
interface TakenIn {
  readonly says: string;
  readonly changed: readonly string[];
}

/** Takes results in, each thing once. Throws InputError where they cannot be read, or tell nothing of what this student has. */
export const takeResults = (db: Db, learnerId: string, text: string): TakenIn => {
  const { name, sent } = resultsIn(text);
  return atomically(db, (tx) => {
    const own = tx
      .select({ id: assignment.id, versionId: assignment.versionId })
      .from(assignment)
      .where(eq(assignment.learnerId, learnerId))
      .all();
    // A file made from a version knows no assignment: its results are of whichever has that version.
    const meant = (id: string): string | undefined => own.find((a) => a.id === id || a.versionId === id)?.id;
    const about = sent.flatMap((s): RoomSent[] => {
      if (s.kind === 'practice') return [s];
      const id = meant(s.assignment);
      return id === undefined ? [] : [{ ...s, assignment: id }];
    });
    const steps = about.filter((s) => s.kind === 'event');
    if (steps.length === 0 && sent.some((s) => s.kind === 'event'))
      throw new InputError(
        `These results (“${name}”) are about pieces that aren’t assigned to this student.`,
      );
    const before = known(tx, about);
    const fresh = about.filter((s) => !before.has(s.token));
    for (const one of fresh) keepFromRoom(tx, learnerId, one, DAYS);
    return {
      says: saysOf(fresh, sent.length - about.length),
      changed: [...new Set(steps.map((s) => s.assignment))],
    };
  });
};

function saysOf(fresh: readonly RoomSent[], elsewhere: number): string {
  if (fresh.length === 0) return 'These results were already added.';
  const added = `Added: ${resultsInWords(fresh)}.`;
  return elsewhere === 0 ? added : `${added} ${plural(elsewhere, 'result')} about other pieces left out.`;
}
