/**
 * What is done in the pool when a teacher pauses: the version that she changed is made ready and the beginning of its handout laid out,
 * so that whoever prints it next need not wait for that, and the house's hand learns from the fingers that she has decided.
 */
import PQueue from 'p-queue';
import { db } from './db';
import { originSeen } from './origin';
import { beginningOf } from './handout';
import { work } from './pool';
import { WorkStopped } from './pool/work';
import { quiet } from './quiet';
import { whileOpen } from './restoring';
import { holdersOf } from './studio/assignments';
import { keepExamples } from './studio/houseHand';
import { setHouseHand } from './studio/houseTaste';
import { forHolders, paperChoices } from './studio/paper';
import { isLongPiece } from './studio/pieces';
import { documentOfVersion, findVersion } from './studio/versions';

/**
 * Milliseconds without a change of the version; then without any request, before its handout is laid out ahead and before the rest. Where
 * people work all the time it is not laid out ahead, and the rest waits at most so long.
 */
const PAUSE = 3000;
const A_MOMENT = 1000;
const STILL = 2500;
const AT_MOST = 8000;
/** Versions that wait for it at most: where more are changed at once, the earlier ones are made when they are opened. */
const MOST_WAITING = 2;

/** In a thread that gives way. */
const LATER = { isLong: true, isLater: true } as const;

const waiting = new Map<string, NodeJS.Timeout>();
/** One after the other: what nobody waits for takes no more than one thread. */
const queue = new PQueue({ concurrency: 1 });

/** Soon, and once for all changes until then. */
export function readySoon(versionId: string): void {
  clearTimeout(waiting.get(versionId));
  const timer = setTimeout(() => {
    waiting.delete(versionId);
    if (queue.size >= MOST_WAITING) queue.clear();
    queue
      .add(() => whileOpen(() => makeReady(versionId)))
      .catch((error: unknown) => {
        if (error instanceof WorkStopped) return;
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
  const sources = await forHolders(db(), work, of, holders, null, originSeen());
  if (await quiet(A_MOMENT, AT_MOST))
    await beginningOf(sources, paperChoices(db(), versionId), { isLater: true });
  await quiet(STILL, AT_MOST);
  const examples = await work('fingersDecided', of, LATER);
  if (keepExamples(db(), versionId, examples)) setHouseHand(db(), await work('learnHouseHand', null, LATER));
  await work('ready', of, { isLater: true });
}
