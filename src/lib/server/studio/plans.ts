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
import { asc, eq } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { assignment, planTemplate } from '../db/schema';
import type { VersionSummary } from './derive';
import { newId, now } from './ids';

/** The school in which a plan is proposed. */
export const USUAL_METHOD: MethodId = 'front to back';

/** The plan of an assignment: the teacher's, or the one that is proposed. */
export const planOf = (plan: Plan | null, summary: VersionSummary): Plan =>
  plan ?? proposedPlan(summary, USUAL_METHOD);

/** Its chunks, found in what was given. `goal` in quarter notes per minute. */
export const plannedChunks = (plan: Plan | null, summary: VersionSummary, goal: number): Chunk[] =>
  chunksIn(planOf(plan, summary), summary, goal);

/** Changes the plan of an assignment; the one before comes back, or a sentence that says why it could not be changed. */
export const editPlan = (
  db: Db,
  assignmentId: string,
  edit: PlanEdit,
  summary: VersionSummary,
): { readonly before: Plan | null } | { readonly refused: string } =>
  atomically(db, (tx) => {
    const row = tx
      .select({ plan: assignment.plan })
      .from(assignment)
      .where(eq(assignment.id, assignmentId))
      .get();
    if (!row) return { refused: 'This assignment is no longer there.' };
    const change = edited(planOf(row.plan, summary), edit, summary);
    if ('refused' in change) return change;
    tx.update(assignment)
      .set({ plan: planSchema.parse(change.plan) })
      .where(eq(assignment.id, assignmentId))
      .run();
    return { before: row.plan };
  });

/** Puts a plan in place of the one there is; null for the proposed one. */
export const setPlan = (db: Db, assignmentId: string, plan: Plan | null): void =>
  void db.update(assignment).set({ plan }).where(eq(assignment.id, assignmentId)).run();

export type TemplateRow = typeof planTemplate.$inferSelect;

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
