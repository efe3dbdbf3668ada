import { LadderFields } from './LadderFields.tsx';
import { MeasureFields, type MeasureFieldsProps } from './MeasureFields.tsx';
import { PassFields } from './PassFields.tsx';

/** Everything about a plan, to be changed in place. */
export function PlanForm({ range, ...props }: MeasureFieldsProps) {
  return (
    <div className="plan-form">
      <PassFields {...props} />
      <LadderFields {...props} />
      <MeasureFields {...props} range={range} />
    </div>
  );
}
