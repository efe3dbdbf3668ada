import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import { addPlan, findPlan, listPlans, ownPlans, updatePlan } from '../repository/plans.ts';
import type { KeptService } from './kept.ts';

/** How patterns are led. */
export const PLANS: KeptService<PlanEdit, SavedPlan> = {
  store: { word: 'plan', list: listPlans, ...ownPlans, find: findPlan, add: addPlan, update: updatePlan },
};
