import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { addPlan, listPlans, planIdTaken, planOf, removePlan, updatePlan } from '../repository/plans.ts';

export async function plansOf(db: Database, teacherId: string): Promise<SavedPlan[]> {
  return listPlans(db, teacherId);
}

export async function savePlan(
  db: Database,
  teacherId: string,
  id: string,
  plan: PlanEdit,
): Promise<'made' | 'changed'> {
  const known = await planOf(db, teacherId, id);
  if (!known && (await planIdTaken(db, id))) throw notFound('plan');
  await (known ? updatePlan : addPlan)(db, teacherId, id, plan);
  return known ? 'changed' : 'made';
}

export async function dropPlan(db: Database, teacherId: string, id: string): Promise<void> {
  if (!(await planOf(db, teacherId, id))) throw notFound('plan');
  await removePlan(db, teacherId, id);
}
