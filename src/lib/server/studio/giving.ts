/** Giving a version to a learner: what is given is pinned, and what lists show of it is derived at once. */
import type { Db } from '../db/open';
import { giveVersion } from './assignments';
import type { Work } from '../pool/work';
import { versionSummaryOf } from './summaries';
import type { VersionRow } from './versions';

/** Gives a version as it is now. What the learner has learned in an earlier state of it stays. The assignment's id comes back. */
export async function giveNow(
  db: Db,
  work: Work,
  { id, pieceId, edit }: VersionRow,
  learnerId: string,
): Promise<string> {
  const { goalTempo } = await versionSummaryOf(db, work, { versionId: id, pieceId, number: edit });
  return giveVersion(db, id, learnerId, { edit, goalTempo });
}
