import type { PlanEdit, SavedPlan } from '../../contract/plan.ts';
import { addPlan, listPlans, planIdTaken, planOf, removePlan, updatePlan } from '../repository/plans.ts';
import type { KeptService } from './kept.ts';

/** How patterns are led. */
export const PLANS: KeptService<PlanEdit, SavedPlan> = {
  store: {
    word: 'plan',
    list: listPlans,
    has: planOf,
    isTaken: planIdTaken,
    add: addPlan,
    update: updatePlan,
    remove: removePlan,
  },
};
