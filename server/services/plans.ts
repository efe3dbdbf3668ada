import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import { type Database, transacted } from '../database.ts';
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
  return transacted(db, async (inside) => {
    const known = await planOf(inside, teacherId, id);
    if (!known && (await planIdTaken(inside, id))) throw notFound('plan');
    await (known ? updatePlan : addPlan)(inside, teacherId, id, plan);
    return known ? 'changed' : 'made';
  });
}

export async function dropPlan(db: Database, teacherId: string, id: string): Promise<void> {
  await transacted(db, async (inside) => {
    if (!(await planOf(inside, teacherId, id))) throw notFound('plan');
    await removePlan(inside, teacherId, id);
  });
}
