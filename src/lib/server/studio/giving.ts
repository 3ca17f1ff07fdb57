/** Giving a version to a learner: what is given is pinned, and what lists show of it is derived at once. */
import type { Db } from '../db/open';
import { giveVersion } from './assignments';
import { versionSummaries } from './summaries';
import type { VersionRow } from './versions';

/** Gives a version as it is now. What the learner has learned in an earlier state of it stays. The assignment's id comes back. */
export function giveNow(db: Db, { id, pieceId, edit }: VersionRow, learnerId: string): string {
  const [summary] = versionSummaries(db, [{ versionId: id, pieceId, number: edit }]);
  return giveVersion(db, id, learnerId, { edit, goalTempo: summary!.goalTempo });
}
