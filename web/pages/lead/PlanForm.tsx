import { LadderFields } from './LadderFields.tsx';
import { MeasureFields, type MeasureFieldsProps } from './MeasureFields.tsx';
import { PassFields } from './PassFields.tsx';

/** Everything about a plan, to be changed in place. */
export function PlanForm({ rhythm, parts, ...props }: MeasureFieldsProps) {
  return (
    <div className="plan-form">
      <PassFields {...props} />
      <LadderFields {...props} />
      <MeasureFields {...props} rhythm={rhythm} parts={parts} />
    </div>
  );
}
