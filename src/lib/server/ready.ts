/**
 * What is done in the pool when a teacher pauses: the version that she changed is made ready and the beginning of its handout laid out,
 * so that whoever prints it next need not wait for that, and the house's hand learns from the fingers that she has decided.
 */
import { db } from './db';
import { beginningOf } from './handout';
import { work } from './pool';
import { quiet } from './quiet';
import { whileOpen } from './restoring';
import { holdersOf } from './studio/assignments';
import { keepExamples } from './studio/houseHand';
import { setHouseHand } from './studio/houseTaste';
import { forHolders, paperChoices } from './studio/paper';
import { isLongPiece } from './studio/pieces';
import { documentOfVersion, findVersion } from './studio/versions';

/** Milliseconds without a change of the version; for what is not looked at next, then without any request, at most so long. */
const PAUSE = 4000;
const STILL = 2500;
const AT_MOST = 8000;

/** In a thread that gives way. */
const LATER = { isLong: true, isLater: true } as const;

const waiting = new Map<string, NodeJS.Timeout>();

/** Soon, and once for all changes until then. */
export function readySoon(versionId: string): void {
  clearTimeout(waiting.get(versionId));
  const timer = setTimeout(() => {
    waiting.delete(versionId);
    whileOpen(() => makeReady(versionId)).catch((error: unknown) => {
      // Whoever asks for the version itself is told so on its page.
      console.error(`Version ${versionId} could not be made ready:`, error);
    });
  }, PAUSE);
  // The end of the server does not wait for it.
  waiting.set(versionId, timer.unref());
}

async function makeReady(versionId: string): Promise<void> {
  const row = findVersion(db(), versionId);
  // A long piece would take the room of what opens pages.
  if (!row || isLongPiece(db(), row.pieceId)) return;
  const of = { pieceId: row.pieceId, document: documentOfVersion(db(), row), edit: row.edit };
  const holders = holdersOf(db(), versionId).map(({ id }) => ({ assignment: id }));
  const sources = await forHolders(db(), work, of, holders);
  await beginningOf(sources, paperChoices(db(), versionId), LATER);
  await quiet(STILL, AT_MOST);
  const examples = await work('fingersDecided', of, LATER);
  if (keepExamples(db(), versionId, examples)) setHouseHand(db(), await work('learnHouseHand', null, LATER));
  await work('ready', of, { isLater: true });
}
