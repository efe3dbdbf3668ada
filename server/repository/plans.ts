import { asc, eq } from 'drizzle-orm';
import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import type { Database } from '../database.ts';
import { plans } from '../schema.ts';
import { ownRows } from './ownRows.ts';

const { ofTeacher, ...own } = ownRows(plans);
export const ownPlans = own;

export async function listPlans(db: Database, teacherId: string): Promise<SavedPlan[]> {
  const rows = await db.select().from(plans).where(eq(plans.teacherId, teacherId)).orderBy(asc(plans.title));
  return rows.map(({ id, plan }) => ({ id, ...plan }));
}

export async function findPlan(db: Database, teacherId: string, planId: string): Promise<PlanEdit | undefined> {
  const [row] = await db
    .select({ plan: plans.plan })
    .from(plans)
    .where(ofTeacher(teacherId, planId))
    .limit(1)
    .for('update');
  return row?.plan;
}

export async function addPlan(db: Database, teacherId: string, planId: string, plan: PlanEdit): Promise<void> {
  await db.insert(plans).values({ id: planId, teacherId, title: plan.title, plan });
}

export async function updatePlan(db: Database, teacherId: string, planId: string, plan: PlanEdit): Promise<void> {
  await db.update(plans).set({ title: plan.title, plan }).where(ofTeacher(teacherId, planId));
}
