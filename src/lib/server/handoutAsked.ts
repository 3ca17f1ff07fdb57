/** For whom and from which state a handout is asked for: of one version, or of a class. */
import { gone } from './gone';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { db } from './db';
import { about, work } from './pool';
import { originOf } from './origin';
import { readable } from './readable';
import { isGiven } from '$core/lessons/slots';
import { findAssignment, holdersOf } from './studio/assignments';
import { todayIn } from './studio/clock';
import { isWhole, piecesOf } from './studio/progress';
import { lessonsBetween } from './studio/slots';
import { listGroups, partsOf } from './studio/groups';
import { forHolders, forLearner, paperChoices } from './studio/paper';
import { findPiece } from './studio/pieces';
import { documentAt, documentOfVersion, findVersion } from './studio/versions';

/** What a version's handout is asked to be. Throws 404 where there is no such version. */
export async function handoutAsked(id: string, url: URL, request: Request) {
  const row = findVersion(db(), id);
  const piece = row && findPiece(db(), row.pieceId);
  if (!row || !piece) error(404, gone('version'));
  // Any earlier state can be looked at.
  const edit = z.coerce
    .number()
    .int()
    .min(0)
    .max(row.edit)
    .catch(row.edit)
    .parse(url.searchParams.get('at') ?? row.edit);
  const document = await readable(piece.id, () => documentAt(db(), row.id, edit));
  const of = { pieceId: row.pieceId, document, edit };
  const holders = holdersOf(db(), row.id).map(({ id: assignment, name }) => ({ assignment, name }));
  // One learner of those who have it, or all of them in turn.
  const wanted = url.searchParams.get('for');
  const chosen = holders.find((h) => h.assignment === wanted)?.assignment ?? null;
  const sources = await forHolders(db(), work, of, holders, chosen, originOf(url));
  return {
    row,
    piece,
    edit,
    holders,
    chosen,
    sources,
    choices: paperChoices(db(), row.id),
    about: about(row.pieceId, request),
  };
}

/** What is chosen for a day's sets is kept under this name. */
export const TODAY = 'today';

/** Today's sets: for everybody with a lesson the piece that is being learned, in the order of the lessons. */
export async function todayAsked(request: Request) {
  const today = todayIn(db());
  const asked = new Set(
    lessonsBetween(db(), today, today)
      .filter(isGiven)
      .flatMap(({ learnerId }) => learnerId ?? []),
  );
  const lines = await piecesOf(db(), work, [...asked]);
  const sources = await Promise.all(
    [...asked].flatMap((learner) => {
      const line = (lines.get(learner) ?? [])
        .filter(isWhole)
        .find((l) => l.status === 'learning' || l.status === 'new');
      const assigned = line && findAssignment(db(), line.id);
      const row = assigned && findVersion(db(), assigned.versionId);
      if (!assigned || !row) return [];
      const of = {
        pieceId: row.pieceId,
        document: documentAt(db(), row.id, assigned.edit),
        edit: assigned.edit,
      };
      return [forLearner(db(), work, of, assigned.id, originOf(request.url))];
    }),
  );
  return {
    today,
    sources,
    choices: paperChoices(db(), TODAY),
    about: about(sources[0]?.pieceId ?? TODAY, request),
  };
}

/** What a class's set is asked to be: everybody who has a part of its piece, in the order of their names. */
export async function classAsked(id: string, request: Request) {
  const group = listGroups(db()).find((g) => g.id === id);
  if (!group) error(404, gone('class'));
  const piece = group.pieceId ? findPiece(db(), group.pieceId) : undefined;
  if (!piece) error(404, 'This class has no piece.');
  const parts = partsOf(
    db(),
    piece.id,
    group.members.map((m) => m.id),
  );
  const sources = await Promise.all(
    group.members.flatMap(({ id: member }) => {
      const assignment = parts.get(member);
      const row = assignment && findVersion(db(), findAssignment(db(), assignment)?.versionId ?? '');
      return row
        ? [
            forLearner(
              db(),
              work,
              { pieceId: piece.id, document: documentOfVersion(db(), row), edit: row.edit },
              assignment,
              originOf(request.url),
            ),
          ]
        : [];
    }),
  );
  return { group, piece, sources, choices: paperChoices(db(), group.id), about: about(piece.id, request) };
}
