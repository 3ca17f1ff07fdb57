/** What goes on paper: what was chosen, for whom it is, and what is said at the foot of it. */
import { datesIn } from '$core/dates';
import { merged } from '$core/edits/merge';
import { tempoText } from '$core/score/tempoText';
import { choicesSchema, USUAL_CHOICES, type Choices } from '$lib/paper/choices';
import { eq } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { paper, studio } from '../db/schema';
import type { Work } from '../pool/work';
import { findAssignment } from './assignments';
import { todayIn } from './clock';
import { now } from './ids';
import { localeOf } from './locale';
import { findLearner, voiceOf } from './learners';
import { lessonsOf } from './lessons';
import type { PaperAsked, PaperFor } from './paperMusic';
import { roomLink } from './room';
import { setFor } from './weekPage';

/** What was chosen last anywhere: a new version begins with it. */
const STUDIO = 'studio';

/** What was chosen for a version or a class, or else in the studio; as usual where nothing was or what was kept is older. */
export function paperChoices(db: Db, of: string): Choices {
  const kept = (id: string): Choices | undefined => {
    const row = db.select({ choices: paper.choices }).from(paper).where(eq(paper.of, id)).get();
    const parsed = choicesSchema.safeParse(row?.choices);
    return parsed.success ? parsed.data : undefined;
  };
  return kept(of) ?? kept(STUDIO) ?? { ...USUAL_CHOICES, paper: localeOf(db).paper };
}

/** Keeps what was chosen. */
export const keepPaper = (db: Db, of: string, choices: Choices): void =>
  atomically(db, (tx) => {
    for (const id of [of, STUDIO])
      tx.insert(paper)
        .values({ of: id, choices, at: now() })
        .onConflictDoUpdate({ target: paper.of, set: { choices, at: now() } })
        .run();
  });

/** Studio and date at the foot of every page. */
export function imprintOf(db: Db): PaperAsked['imprint'] {
  const row = db.select({ name: studio.name, ownLine: studio.ownLine }).from(studio).get();
  const date = datesIn(localeOf(db)).full(todayIn(db));
  return { studio: row?.name ?? '', ownLine: row?.ownLine ?? '', date };
}

/** A state of a version. */
type State = Pick<PaperFor, 'pieceId' | 'document' | 'edit'>;

/** A version on paper for nobody by name. */
export const forNobody = (of: State): PaperFor => ({
  ...of,
  learner: null,
  voice: null,
  plan: null,
  week: null,
  room: null,
});

/** A version on paper for one of its learners: with the voice, the plan, what was set for the week, and the practice room's link under `origin`. */
export async function forLearner(
  db: Db,
  work: Work,
  of: State,
  assignmentId: string,
  origin: string | null = null,
): Promise<PaperFor> {
  const assigned = findAssignment(db, assignmentId);
  const learner = assigned && findLearner(db, assigned.learnerId);
  if (!assigned || !learner) return forNobody(of);
  const week = lessonsOf(db, learner.id).find((l) => (l.week ?? []).length > 0)?.week ?? [];
  const set = await setFor(db, work, assignmentId, week, learner.minutesADay);
  return {
    ...of,
    learner: learner.name,
    voice: voiceOf(learner),
    plan: assigned.plan,
    room: origin === null ? null : roomLink(db, learner.id, origin),
    week:
      set.length === 0
        ? null
        : {
            minutesADay: learner.minutesADay,
            note: '',
            lines: set.map(({ assignment, title, time, chunk, where, steps, tempo, minutes }) => ({
              piece: assignment === assignmentId ? null : title,
              chunk,
              where,
              steps,
              tempo: tempo === null ? null : tempoText(time, tempo),
              minutes,
            })),
          },
  };
}

/** A state of a version on paper for each learner who has it, or for the one of them that is chosen; for nobody where nobody has it. */
export function forHolders(
  db: Db,
  work: Work,
  of: State,
  holders: readonly { readonly assignment: string }[],
  chosen: string | null = null,
  origin: string | null = null,
): Promise<PaperFor[]> {
  const taken = chosen === null ? holders : holders.filter((h) => h.assignment === chosen);
  return Promise.all(
    taken.length === 0 ? [forNobody(of)] : taken.map((h) => forLearner(db, work, of, h.assignment, origin)),
  );
}

/** The studio's name and its own line, as they stand on paper and in the header. */
interface StudioNamed {
  readonly name: string;
  readonly ownLine: string;
}

/** Changes them from what they were. Where another window has changed the same to something else, that comes back, and nothing is written. */
export const nameStudio = (
  db: Db,
  wanted: StudioNamed,
  was: Partial<StudioNamed> = {},
): { readonly fields: readonly (keyof StudioNamed)[]; readonly there: StudioNamed } | null =>
  atomically(db, (tx) => {
    const now = studioNamed(tx);
    const { value, conflicts } = merged<StudioNamed>(was, now, wanted);
    if (conflicts.length > 0) return { fields: conflicts, there: now };
    tx.insert(studio)
      .values({ id: 1, ...value })
      .onConflictDoUpdate({ target: studio.id, set: value })
      .run();
    return null;
  });

/** Both, as they are. */
export const studioNamed = (db: Db): StudioNamed =>
  db.select({ name: studio.name, ownLine: studio.ownLine }).from(studio).get() ?? { name: '', ownLine: '' };
