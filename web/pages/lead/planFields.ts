import type { Plan } from '../../../core/leading/plan.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';

/** What every part of the plan's form works with. */
export interface PlanFieldsProps {
  readonly plan: Plan;
  readonly naming: NamingId;
  readonly onChange: (plan: Plan) => void;
}
