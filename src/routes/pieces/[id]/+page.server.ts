import { lineText } from '$core/plainText';
import { gone } from '$server/gone';
import { WHOLE } from '$core/decisions/anchor';
import { subjectOf } from '$core/decisions/decide';
import { decisionSchema } from '$core/decisions/registry';
import { WRITTEN_FORMATS } from '$core/io/writeScoreFile';
import { choicesSchema, PART_CHOICES, type PartChoices } from '$core/players/parts';
import { keyOptions } from '$core/theory/easyKeys';
import { inMode, keyCode, keyName, parseKey } from '$core/theory/key';
import { documentOf, listed } from '$core/version/document';
import { versionName } from '$ui/piece/versionName';
import { withHandOf } from '$core/version/otherHands';
import { DEFAULT_RECIPE, recipeSchema } from '$core/version/recipe';
import { db } from '$server/db';
import { jsonText } from '$server/jsonText';
import { formOf, readForm } from '$server/forms';
import { findLearner, listLearners, startFor, type LearnerRow } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import {
  findPiece,
  listPieces,
  mendSource,
  RIGHTS,
  sectionsOf,
  setParts,
  setRights,
  unmendSource,
  weightOfPiece,
  renamePiece,
} from '$server/studio/pieces';
import { isTooLong } from '$server/studio/weight';
import { work } from '$server/pool';
import { pieceFacts, pieceSummaries } from '$server/studio/summaries';
import { loopName } from '$core/analysis/progression';
import { once } from '$server/studio/once';
import {
  addVersion,
  documentOfVersion,
  duplicateVersion,
  findVersion,
  listVersions,
  nameVersion,
} from '$server/studio/versions';
import { holdersByVersion } from '$server/studio/assignments';
import { readable } from '$server/readable';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const { key, ...facts } = await readable(piece.id, () => pieceFacts(db(), work, piece.id));
  const holders = holdersByVersion(db(), piece.id);
  return {
    piece,
    ...facts,
    loop: await loopShared(piece.id),
    rights: RIGHTS,
    formats: WRITTEN_FORMATS.map(({ ending, name }) => ({ ending, name })),
    sections: sectionsOf(db(), piece.id),
    /** Too long for the bench: its sections can be pieces. */
    isTooLong: isTooLong(weightOfPiece(db(), piece.id)),
    versions: listVersions(db(), piece.id).map(({ id, level, style, key: chosen, decided, ...row }) => {
      const named = chosen === null ? undefined : parseKey(chosen);
      return {
        id,
        name: row.name,
        /** Its name, or what it is. */
        text: versionName({ name: row.name, level, style, key: chosen }),
        signed: row.signedAt === null ? null : { at: row.signedAt, later: row.edit - row.signedEdit! },
        level,
        style,
        key: named ? keyName(inMode(named, key.mode)) : 'the suggested key',
        decisions: decided,
        holders: holders.get(id) ?? [],
      };
    }),
    keys: keyOptions(key.mode),
    sourceKeyCode: keyCode(key),
    levels: studioLevels(db()),
    learners: listLearners(db()).map(({ id, name, level }) => ({ id, name, level })),
  };
};

/** Pieces that are named for the same loop. */
const NAMED = 8;

/** The loop of a piece in degrees, and the other pieces in which it goes round; null where none does. */
async function loopShared(id: string) {
  const summaries = await pieceSummaries(db(), work);
  const loopIn = (of: string): readonly string[] | null => {
    const summary = summaries.get(of);
    return summary && !('problem' in summary) ? summary.loop : null;
  };
  const loop = loopIn(id);
  if (!loop) return null;
  const name = loopName(loop);
  const others = listPieces(db()).filter((other) => {
    const own = other.id === id ? null : loopIn(other.id);
    return own !== null && loopName(own) === name;
  });
  return {
    degrees: loop.join(' '),
    others: others.slice(0, NAMED).map(({ id: of, title }) => ({ id: of, title })),
  };
}

const GONE = gone('version');
/** The student that a form names; undefined where it names none. */
function wantedLearner(form: FormData): LearnerRow | 'gone' | undefined {
  const id = String(form.get('learner') ?? '');
  return id === '' ? undefined : (findLearner(db(), id) ?? 'gone');
}

const renameSchema = z.object({
  version: z.string().min(1).max(80),
  name: lineText().max(80, 'Keep the name under 80 letters.'),
});

const namedSchema = z.object({
  title: lineText().min(1, 'A piece needs a title.').max(200, 'Keep the title under 200 letters.'),
  composer: lineText().max(200, 'Keep the name under 200 letters.').default(''),
});

/** The two versions, how many sections the piece has, and the first and last measure of those that were chosen. */
const combineSchema = z.object({
  right: z.string().max(80),
  left: z.string().max(80),
  sections: z.number().int().min(0),
  measures: z
    .array(
      z
        .string()
        .max(80)
        .regex(/^\S+ \S+$/, 'That isn’t a section of this piece.')
        .transform((text): [string, string] => text.split(' ') as [string, string]),
    )
    .max(40, 'Choose at most 40 sections.'),
});

const saidSchema = z.object({ kind: z.enum(['home', 'groups']), value: z.string().max(40) });

export const actions: Actions = {
  /** Another title and composer of the piece. */
  entitle: async ({ params, request }) => {
    if (!findPiece(db(), params.id)) error(404, gone('piece'));
    const form = readForm(await formOf(request), namedSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    renamePiece(db(), params.id, form.data);
    return {};
  },
  /** Takes a correction of the source back. */
  unmend: async ({ params, request }) => {
    if (!findPiece(db(), params.id)) return fail(404, { message: gone('piece') });
    unmendSource(db(), params.id, String((await formOf(request)).get('subject') ?? ''));
    return {};
  },
  /** What the teacher says of the whole piece: its home key, or the groups of a measure; nothing leaves it to the analysis. */
  say: async ({ params, request }) => {
    if (!findPiece(db(), params.id)) return fail(404, { message: gone('piece') });
    const form = readForm(await formOf(request), saidSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    const { kind, value } = form.data;
    const said = decisionSchema.safeParse({ kind, at: WHOLE, value });
    if (value === '') unmendSource(db(), params.id, subjectOf({ kind, at: WHOLE }));
    else if (!said.success) return fail(422, { message: said.error.issues[0]!.message });
    else mendSource(db(), params.id, said.data);
    return {};
  },
  rename: async ({ request }) => {
    const form = readForm(await formOf(request), renameSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    if (!findVersion(db(), form.data.version)) return fail(404, { message: GONE });
    nameVersion(db(), form.data.version, form.data.name);
    return {};
  },
  /** The same again: for another learner with their hands, keyboard, pedal and level as they are. */
  duplicate: async ({ request }) => {
    const data = await formOf(request);
    const row = findVersion(db(), String(data.get('version') ?? ''));
    if (!row) return fail(404, { message: GONE });
    const learner = wantedLearner(data);
    if (learner === 'gone') return fail(404, { message: gone('student') });
    const start = learner && startFor(learner);
    const id = once(db(), data.get('once'), (tx) => {
      const made = duplicateVersion(
        tx,
        row,
        row.edit,
        start
          ? {
              recipe: { reach: start.recipe.reach, keyboard: start.recipe.keyboard },
              decisions: listed(start),
            }
          : {},
      );
      nameVersion(tx, made, learner ? `For ${learner.name}` : '');
      return made;
    });
    redirect(303, `/versions/${id}`);
  },
  /** The right hand of one version with the left hand of another, in some sections or in all. */
  combine: async ({ params, request }) => {
    const data = await formOf(request);
    const form = combineSchema.safeParse({
      right: data.get('right'),
      left: data.get('left'),
      sections: Number(data.get('sections') ?? 0),
      measures: data.getAll('section'),
    });
    if (!form.success) return fail(422, { message: form.error.issues[0]!.message });
    const { right, left, sections, measures } = form.data;
    const [first, second] = [findVersion(db(), right), findVersion(db(), left)];
    if (first?.pieceId !== params.id || second?.pieceId !== params.id) return fail(404, { message: GONE });
    if (right === left) return fail(422, { message: 'Choose two versions.' });
    if (sections > 0 && measures.length === 0) return fail(422, { message: 'Choose at least one section.' });
    const [named, other] = [first, second].map(versionName);
    const made = withHandOf(
      documentOfVersion(db(), first),
      'left',
      { version: second.id, edit: second.edit, name: other!, document: documentOfVersion(db(), second) },
      measures.length === sections ? [] : measures,
    );
    const id = once(db(), data.get('once'), (tx) => {
      const begun = addVersion(tx, params.id, made);
      nameVersion(tx, begun, `Right hand of ${named!}, left hand of ${other!}`.slice(0, 80));
      return begun;
    });
    redirect(303, `/versions/${id}`);
  },
  version: async ({ params, request }) => {
    const data = await formOf(request);
    const piece = findPiece(db(), params.id);
    if (!piece) return fail(404, { message: gone('piece') });
    const learner = wantedLearner(data);
    if (learner === 'gone') return fail(404, { message: gone('student') });
    const base = learner ? startFor(learner) : documentOf(DEFAULT_RECIPE);
    const recipe = recipeSchema.safeParse({
      ...base.recipe,
      level: Number(data.get('level')) || base.recipe.level,
      key: String(data.get('key') ?? '') || null,
    });
    if (!recipe.success) return fail(400, { message: 'Choose a level and a key from the lists.' });
    const id = once(db(), data.get('once'), (tx) =>
      addVersion(tx, piece.id, { ...base, recipe: recipe.data }),
    );
    redirect(303, `/versions/${id}`);
  },
  parts: async ({ params, request }) => {
    const data = await formOf(request);
    if (!findPiece(db(), params.id)) return fail(404, { message: gone('piece') });
    const { list, choices } = (await pieceFacts(db(), work, params.id)).parts;
    const parts: PartChoices['parts'] = {};
    for (const { id } of list) {
      const choice = z.enum(PART_CHOICES).safeParse(data.get(`part ${id}`));
      if (choice.success) parts[id] = choice.data;
    }
    // The page of a piece without a shared tune sends none.
    const tune = jsonText
      .pipe(choicesSchema.shape.tune)
      .safeParse(data.get('tune') ?? JSON.stringify(choices.tune));
    if (!tune.success) return fail(400, { message: 'Choose the players from the lists.' });
    setParts(db(), params.id, { parts, tune: tune.data });
    return {};
  },
  rights: async ({ params, request }) => {
    const rights = z.enum(RIGHTS).safeParse((await formOf(request)).get('rights'));
    if (!rights.success) return fail(400, { message: 'Choose one of the rights offered.' });
    if (!findPiece(db(), params.id)) return fail(404, { message: gone('piece') });
    setRights(db(), params.id, rights.data);
    return {};
  },
};
