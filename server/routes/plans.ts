import { Router } from 'express';
import { PlanEdit } from '../../contract/plan.ts';
import type { Database } from '../database.ts';
import { dropPlan, plansOf, savePlan } from '../services/plans.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { teacherIn } from './session.ts';

export function planRoutes(db: Database): Router {
  const edit = bodyOf(PlanEdit);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await plansOf(db, teacherIn(response).id));
    })
    .put('/:planId', async (request, response) => {
      const id = idOf(request, 'planId', 'plan');
      const plan = edit(request);
      const done = await savePlan(db, teacherIn(response).id, id, plan);
      response.status(statusOf(done)).json({ id, ...plan });
    })
    .delete('/:planId', async (request, response) => {
      await dropPlan(db, teacherIn(response).id, idOf(request, 'planId', 'plan'));
      response.status(204).end();
    });
}
