import { db } from '$server/db';
import { formOf } from '$server/forms';
import { work } from '$server/pool';
import { membersOf, sectionsTogether, tempoTogether } from '$server/studio/classPage';
import { gone } from '$server/gone';
import { meanwhile, wasIn } from '$server/meanwhile';
import {
  changeGroup,
  groupSchema,
  type GroupFields,
  listGroups,
  missingIn,
  removeGroup,
} from '$server/studio/groups';
import { giveNow } from '$server/studio/giving';
import { findLearner, learnerNames, startFor } from '$server/studio/learners';
import { beginLesson } from '$server/studio/lessons';
import { findPiece, listPieces } from '$server/studio/pieces';
import { addVersion, findVersion } from '$server/studio/versions';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const group = listGroups(db()).find((g) => g.id === params.id);
  if (!group) error(404, gone('class'));
  const members = group.pieceId ? await membersOf(db(), work, group.pieceId, group.members) : [];
  const pieces = listPieces(db()).map(({ id, title }) => ({ id, title }));
  return {
    group: { id: group.id, name: group.name, piece: group.pieceId },
    title: pieces.find((p) => p.id === group.pieceId)?.title ?? null,
    members: members.map(({ id, name, part }) => {
      if (!part) return { id, name, part: null };
      const { progress, ...rest } = part;
      const { form, numbers, difficulty, states, time, next } = progress;
      return { id, name, part: { ...rest, form, numbers, difficulty, states, time, next: next[0] ?? null } };
    }),
    sections: sectionsTogether(members),
    tempo: tempoTogether(members),
    pieces,
    learners: learnerNames(db()),
    inGroup: group.members.map((m) => m.id),
  };
};

export const actions: Actions = {
  change: async ({ params, request }) => {
    const sent = await formOf(request);
    const form = groupSchema.safeParse({ ...Object.fromEntries(sent), members: sent.getAll('members') });
    if (!form.success) return fail(422, { message: form.error.issues[0]!.message });
    const missing = missingIn(db(), form.data);
    if (missing) return fail(404, { message: gone(missing) });
    const was = wasIn(sent, groupSchema);
    const done = changeGroup(db(), params.id, form.data, was);
    if (done === 'gone') error(404, gone('class'));
    if (done === 'kept') return { message: '' };
    return meanwhile<GroupFields>(done, was, (field, { name, piece }) =>
      field === 'name'
        ? `the name is “${name}”`
        : `the piece is “${findPiece(db(), piece)?.title ?? 'none'}”`,
    );
  },
  /** Makes versions at each one's own level for those who have none yet, and gives them. */
  give: async ({ params }) => {
    const group = listGroups(db()).find((g) => g.id === params.id);
    if (!group?.pieceId) error(404, gone('class'));
    for (const { id, part } of await membersOf(db(), work, group.pieceId, group.members)) {
      const learner = part ? undefined : findLearner(db(), id);
      if (!learner) continue;
      const version = findVersion(db(), addVersion(db(), group.pieceId, startFor(learner)))!;
      await giveNow(db(), work, version, id);
    }
    return { message: '' };
  },
  begin: async ({ request }) => {
    const learner = String((await formOf(request)).get('learner') ?? '');
    if (!findLearner(db(), learner)) error(404, gone('student'));
    redirect(303, `/lessons/${beginLesson(db(), learner)}`);
  },
  remove: ({ params }) => {
    if (!removeGroup(db(), params.id)) error(404, gone('class'));
    redirect(303, '/learners');
  },
};
