import { and, asc, eq } from 'drizzle-orm';
import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import type { Database } from '../database.ts';
import { plans } from '../schema.ts';

const ofTeacher = (teacherId: string, planId: string) => and(eq(plans.id, planId), eq(plans.teacherId, teacherId));

export async function listPlans(db: Database, teacherId: string): Promise<SavedPlan[]> {
  const rows = await db.select().from(plans).where(eq(plans.teacherId, teacherId)).orderBy(asc(plans.title));
  return rows.map(({ id, plan }) => ({ id, ...plan }));
}

export async function planOf(db: Database, teacherId: string, planId: string): Promise<boolean> {
  return (await db.select({ id: plans.id }).from(plans).where(ofTeacher(teacherId, planId)).limit(1)).length > 0;
}

export async function planIdTaken(db: Database, planId: string): Promise<boolean> {
  return (await db.select({ id: plans.id }).from(plans).where(eq(plans.id, planId)).limit(1)).length > 0;
}

export async function addPlan(db: Database, teacherId: string, planId: string, plan: PlanEdit): Promise<void> {
  await db.insert(plans).values({ id: planId, teacherId, title: plan.title, plan });
}

export async function updatePlan(db: Database, teacherId: string, planId: string, plan: PlanEdit): Promise<void> {
  await db.update(plans).set({ title: plan.title, plan }).where(ofTeacher(teacherId, planId));
}

export async function removePlan(db: Database, teacherId: string, planId: string): Promise<void> {
  await db.delete(plans).where(ofTeacher(teacherId, planId));
}
