/** Plans of assignments: as proposed until the teacher changes them; and her templates. */
import {
  chunksIn,
  planSchema,
  proposedPlan,
  type Chunk,
  type Plan,
  type PlannedStep,
  type MethodId,
} from '$core/lessons/plan';
import { edited, type PlanEdit } from '$core/lessons/planEdits';
import { mergePlans } from '$core/lessons/planMerge';
import { asc, eq } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { assignment, planTemplate } from '../db/schema';
import type { VersionSummary } from './derive';
import { newId, now } from './ids';

/** The school in which a plan is proposed. */
const USUAL_METHOD: MethodId = 'front to back';

/** The plan of an assignment: the teacher's, or the one that is proposed. */
export const planOf = (plan: Plan | null, summary: VersionSummary): Plan =>
  plan ?? proposedPlan(summary, USUAL_METHOD);

/** Its chunks, found in what was given. `goal` in quarter notes per minute. */
export const plannedChunks = (plan: Plan | null, summary: VersionSummary, goal: number): Chunk[] =>
  chunksIn(planOf(plan, summary), summary, goal);

/** A plan that was changed: what it was before, and what it is now, so that this change alone can be taken back. */
export interface PlanChanged {
  readonly before: Plan | null;
  readonly after: Plan;
}
export type PlanResult = PlanChanged | { readonly refused: string };

const CHANGED =
  'This part of the plan was changed in another window. You now see the saved plan; make your change again.';
const GONE = 'This practice plan isn’t here any more. Look in the trash.';

/** Puts in place of a plan what a change makes of it and of what another window has saved since `was`. */
function changing(
  db: Db,
  assignmentId: string,
  summary: VersionSummary,
  was: Plan | undefined,
  change: (base: Plan) => { readonly plan: Plan | null } | { readonly refused: string },
): PlanResult {
  return atomically(db, (tx) => {
    const row = tx
      .select({ plan: assignment.plan })
      .from(assignment)
      .where(eq(assignment.id, assignmentId))
      .get();
    if (!row) return { refused: GONE };
    const now = planOf(row.plan, summary);
    const base = was ?? now;
    const wanted = change(base);
    if ('refused' in wanted) return wanted;
    const both = mergePlans(base, now, planOf(wanted.plan, summary));
    if ('conflicts' in both) return { refused: CHANGED };
    const isAsProposed = wanted.plan === null && isSame(both.plan, planOf(null, summary));
    const plan = planSchema.parse(both.plan);
    tx.update(assignment)
      .set({ plan: isAsProposed ? null : plan })
      .where(eq(assignment.id, assignmentId))
      .run();
    return { before: row.plan, after: plan };
  });
}

const isSame = (a: Plan, b: Plan): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Changes the plan of an assignment, from what it was on the page that asks (`was`); a sentence where it cannot be, or where another
 * window has changed the same.
 */
export const editPlan = (
  db: Db,
  assignmentId: string,
  edit: PlanEdit,
  summary: VersionSummary,
  was?: Plan,
): PlanResult => changing(db, assignmentId, summary, was, (base) => edited(base, edit, summary));

/** Takes a change of a plan back; what was changed otherwise since then stays. */
export const undoPlanEdit = (
  db: Db,
  assignmentId: string,
  { before, after }: PlanChanged,
  summary: VersionSummary,
): PlanResult => changing(db, assignmentId, summary, after, () => ({ plan: before }));

/** Sets a plan without a page that has seen the one before: where a past is filled in. */
export const setPlan = (db: Db, assignmentId: string, plan: Plan): void =>
  void db.update(assignment).set({ plan }).where(eq(assignment.id, assignmentId)).run();

type TemplateRow = typeof planTemplate.$inferSelect;

export const templates = (db: Db): TemplateRow[] =>
  db.select().from(planTemplate).orderBy(asc(planTemplate.name)).all();

/** Keeps steps under a name; ones of the same name are replaced. */
export const keepTemplate = (db: Db, name: string, method: MethodId, steps: readonly PlannedStep[]): void =>
  atomically(db, (tx) => {
    tx.delete(planTemplate).where(eq(planTemplate.name, name)).run();
    tx.insert(planTemplate).values({ id: newId(), name, method, steps, createdAt: now() }).run();
  });

export const removeTemplate = (db: Db, id: string): boolean =>
  db.delete(planTemplate).where(eq(planTemplate.id, id)).run().changes > 0;
