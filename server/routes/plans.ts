import { Router } from 'express';
import { PlanEdit } from '../../contract/plan.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { addPlan, listPlans, planIdTaken, planOf, removePlan, updatePlan } from '../repository/plans.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

export function planRoutes(db: Database): Router {
  const edit = bodyOf(PlanEdit);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await listPlans(db, teacherIn(response).id));
    })
    .put('/:planId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const id = idOf(request, 'planId', 'plan');
      const plan = edit(request);
      const known = await planOf(db, teacherId, id);
      if (!known && (await planIdTaken(db, id))) throw notFound('plan');
      await (known ? updatePlan : addPlan)(db, teacherId, id, plan);
      response.status(known ? 200 : 201).json({ id, ...plan });
    })
    .delete('/:planId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const id = idOf(request, 'planId', 'plan');
      if (!(await planOf(db, teacherId, id))) throw notFound('plan');
      await removePlan(db, teacherId, id);
      response.status(204).end();
    });
}
