/**
 * What is done in the pool when a teacher pauses: the version that she changed is made ready and the beginning of its handout laid out,
 * so that whoever prints it next need not wait for that, and the house's hand learns from the fingers that she has decided.
 */
import { db } from './db';
import { work } from './pool';
import { quiet } from './quiet';
import { keepExamples } from './studio/houseHand';
import { setHouseHand } from './studio/houseTaste';
import { forNobody, imprintOf, paperChoices } from './studio/paper';
import { isLongPiece } from './studio/pieces';
import { documentOfVersion, findVersion } from './studio/versions';

/** Milliseconds without a change of the version; and then without any request, and how long that is waited for at most. */
const PAUSE = 4000;
const STILL = 2500;
const AT_MOST = 300_000;

const waiting = new Map<string, NodeJS.Timeout>();

/** Soon, and once for all changes until then. */
export function readySoon(versionId: string): void {
  clearTimeout(waiting.get(versionId));
  const timer = setTimeout(() => {
    waiting.delete(versionId);
    makeReady(versionId).catch((error: unknown) => {
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
  // In a thread that gives way: it need not wait until nobody works.
  const examples = await work('fingersDecided', of, { isLong: true, isLater: true });
  if (keepExamples(db(), versionId, examples))
    setHouseHand(db(), await work('learnHouseHand', null, { isLong: true, isLater: true }));
  await quiet(STILL, AT_MOST);
  await work('ready', of, { isLater: true });
  const asked = {
    for: [forNobody(of)],
    choices: paperChoices(db(), row.id),
    imprint: imprintOf(db()),
  };
  await work('paperBeginning', asked, { isLater: true });
}
