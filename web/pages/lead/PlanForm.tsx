import { LadderFields } from './LadderFields.tsx';
import { MeasureFields } from './MeasureFields.tsx';
import { PassFields } from './PassFields.tsx';
import type { PlanFieldsProps } from './planFields.ts';

/** Everything about a plan, to be changed in place. */
export function PlanForm({ lastMeasure, ...props }: PlanFieldsProps & { lastMeasure: number }) {
  return (
    <div className="plan-form">
      <PassFields {...props} />
      <LadderFields {...props} />
      <MeasureFields {...props} lastMeasure={lastMeasure} />
    </div>
  );
}
