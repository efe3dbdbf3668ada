import { t } from '../../../core/words/say.ts';
import { type Dispatch, type SetStateAction, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { PlanEdit, SavedPlan } from '../../../contract/plan.ts';
import type { Plan } from '../../../core/leading/plan.ts';
import { put, remove } from '../../api/client.ts';
import { BothVersions } from '../../domain/BothVersions.tsx';
import { MadeBy, ToShelf } from '../../domain/ToShelf.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useEditing } from '../../api/useEditing.ts';
import { useSave } from '../../api/useSave.ts';

/** A plan as it is sent; words that are still being typed are left out. */
function editOf({ title, countInWords, ...plan }: Plan & { readonly id?: string }): PlanEdit {
  const { id: _id, ...parts } = plan;
  const words = countInWords?.filter((word) => word !== '');
  const own = words?.length ? { countInWords: words } : {};
  return structuredClone({ ...parts, ...own, title: title.trim() || t`My plan` }) as PlanEdit;
}

interface KeepPlanProps {
  readonly plan: Plan;
  /** A plan of the teacher's own, as it was when it was begun to be changed; undefined for one that ships. */
  readonly own: (Plan & { readonly id: string }) | undefined;
  readonly onChange: Dispatch<SetStateAction<Plan>>;
  readonly onKept: (id: string) => void;
  readonly onRemoved: () => void;
}

/** Keeps a plan under a name, or removes it. */
export function KeepPlan({ plan, own, onChange, onKept, onRemoved }: KeepPlanProps) {
  const [kept, setKept] = useState<Plan>();
  const adopt = (now: PlanEdit) => {
    // What was changed while it was being saved stays.
    onChange((current) => (current === plan ? now : current));
    setKept(now);
  };
  const keeping = useSave((to: string) => put(`/plans/${to}`, editOf(plan)), '/plans');
  const removal = useSave((from: string) => remove(`/plans/${from}`), '/plans');
  const keepAsNew = async () => {
    const to = uuid();
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
      <legend>{t`Keep this plan`}</legend>
      <div className="plan-row">
        <Form.Control
          aria-label={t`Name of the plan`}
          value={plan.title}
          maxLength={60}
          onChange={(event) => onChange({ ...plan, title: event.target.value })}
        />
        {own && <SaveChanges key={own.id} plan={plan} own={own} onKept={adopt} />}
        <Button variant="outline-dark" onClick={() => void keepAsNew()}>{t`Save as new`}</Button>
        {own && <Button variant="outline-dark" onClick={() => void removeIt(own.id)}>{t`Remove`}</Button>}
        {own && <ToShelf kind="plan" id={own.id} />}
        <MadeBy from={plan.from} />
        <span role="status">{kept === plan ? t`Saved` : ''}</span>
      </div>
      {problem && <Notice problem={problem} />}
    </fieldset>
  );
}

interface SaveProps {
  readonly plan: Plan;
  readonly own: Plan & { readonly id: string };
  readonly onKept: (now: PlanEdit) => void;
}

/** Saves what was changed of an own plan; what another device changed of it meanwhile stays. */
function SaveChanges({ plan, own, onKept }: SaveProps) {
  const editing = useEditing<PlanEdit>(`/plans/${own.id}`, editOf(own), ['/plans'], (now) => {
    const edit = editOf(now as SavedPlan);
    onKept(edit);
    return edit;
  });
  return (
    <>
      <Button variant="outline-dark" disabled={editing.saving} onClick={() => void editing.save(editOf(plan))}>
        {t`Save`}
      </Button>
      {editing.clash && <BothVersions clash={editing.clash} onChosen={(theirs) => void editing.settle(theirs)} />}
      {editing.problem && <Notice problem={editing.problem} />}
    </>
  );
}
