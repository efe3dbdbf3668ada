import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { PlanEdit } from '../../../contract/plan.ts';
import type { Plan } from '../../../core/leading/plan.ts';
import { put, remove } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../ui/useSave.ts';

/** A plan as it is sent; words that are still being typed are left out. */
function editOf(plan: Plan): PlanEdit {
  const { title, passes, chunks, ladder, restBeats, countIn, countInWords, countInEach, divided, twoLines } = plan;
  const words = countInWords?.filter((word) => word !== '');
  const own = words?.length ? { countInWords: words } : {};
  const named = title.trim() || 'My plan';
  const edit = { title: named, passes, chunks, ladder, restBeats, countIn, ...own, countInEach, divided, twoLines };
  return structuredClone(edit) as PlanEdit;
}

interface KeepPlanProps {
  readonly plan: Plan;
  /** Of a plan of the teacher's own; undefined for one that ships. */
  readonly id: string | undefined;
  readonly onChange: (plan: Plan) => void;
  readonly onKept: (id: string) => void;
  readonly onRemoved: () => void;
}

/** Keeps a plan under a name, or removes it. */
export function KeepPlan({ plan, id, onChange, onKept, onRemoved }: KeepPlanProps) {
  const [kept, setKept] = useState<Plan>();
  const keeping = useSave((to: string) => put(`/plans/${to}`, editOf(plan)), '/plans');
  const removal = useSave((from: string) => remove(`/plans/${from}`), '/plans');
  const keep = async (to: string) => {
    if (!(await keeping.save(to))) return;
    onKept(to);
    setKept(plan);
  };
  const removeIt = async (from: string) => {
    if (await removal.save(from)) onRemoved();
  };
  const problem = keeping.problem ?? removal.problem;
  return (
    <fieldset>
      <legend>Keep this plan</legend>
      <div className="plan-row">
        <Form.Control
          aria-label="Name of the plan"
          value={plan.title}
          maxLength={60}
          onChange={(event) => onChange({ ...plan, title: event.target.value })}
        />
        {id !== undefined && (
          <Button variant="outline-dark" onClick={() => void keep(id)}>
            Save
          </Button>
        )}
        <Button variant="outline-dark" onClick={() => void keep(uuid())}>
          Save as new
        </Button>
        {id !== undefined && (
          <Button variant="outline-dark" onClick={() => void removeIt(id)}>
            Remove
          </Button>
        )}
        <span role="status">{kept === plan ? 'Saved' : ''}</span>
      </div>
      {problem && <Notice problem={problem} />}
    </fieldset>
  );
}
