/** What a practice room plays, hears and shows of the pieces that are practised today. */
import type { RoomPiece, RoomTask } from '$core/lessons/room';
import type { LargeWish } from '$lib/engrave/large';
import type { Db } from './db/open';
import { work } from './pool';
import { drawn } from './pool/drawn';
import type { Asked } from './pool/work';
import { readable } from './readable';
import { findAssignment } from './studio/assignments';
import { documentAt, findVersion } from './studio/versions';

/** By assignment. `asked` says for a piece who waits for it. */
export async function roomPieces(
  db: Db,
  tasks: readonly RoomTask[],
  show: LargeWish,
  asked: (pieceId: string) => Asked,
): Promise<Record<string, RoomPiece>> {
  const pieces: Record<string, RoomPiece> = {};
  for (const id of new Set(tasks.map((task) => task.assignment))) {
    const { versionId, edit } = findAssignment(db, id)!;
    const { pieceId } = findVersion(db, versionId)!;
    const chunks = [...new Set(tasks.flatMap((t) => (t.assignment === id ? [t.shows] : [])))];
    const document = await readable(pieceId, () => documentAt(db, versionId, edit));
    const { music, stretches } = await readable(pieceId, () =>
      work('room', { pieceId, document, show, chunks }, asked(pieceId)),
    );
    const sheets = stretches.flatMap((s) => s.sheets);
    const drawings = await readable(pieceId, () => drawn(sheets, asked(pieceId)));
    let taken = 0;
    pieces[id] = {
      music,
      pictures: Object.fromEntries(
        stretches.map((s) => [s.chunk, drawings.slice(taken, (taken += s.sheets.length))] as const),
      ),
    };
  }
  return pieces;
}
