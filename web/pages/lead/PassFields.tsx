import { t } from '../../../core/words/say.ts';
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { ACTIVITY_IDS, type PlannedPass, WHO_IDS } from '../../../core/leading/plan.ts';
import { WHO_NAMES, activityName } from '../../../core/wording/leadWords.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';
import { Select } from '../../ui/Select.tsx';
import { moved, replaced, without } from '../../ui/lists.ts';
import type { PlanFieldsProps } from './planFields.ts';

/** The passes, in order. */
export function PassFields({ plan, naming, onChange }: PlanFieldsProps) {
  const { passes } = plan;
  const set = (next: readonly PlannedPass[]) => onChange({ ...plan, passes: next });
  return (
    <fieldset>
      <legend>{t`Passes`}</legend>
      {passes.map((pass, i) => (
        <PassRow
          key={i}
          pass={pass}
          place={i}
          count={passes.length}
          naming={naming}
          onChange={(next) => set(replaced(passes, i, next))}
          onMove={(to) => set(moved(passes, i, to))}
          onRemove={() => set(without(passes, i))}
        />
      ))}
      <Button size="sm" variant="outline-dark" onClick={() => set([...passes, { activity: 'clap', who: 'together' }])}>
        <Plus size={16} aria-hidden /> {t`Pass`}
      </Button>
    </fieldset>
  );
}

interface RowProps {
  readonly pass: PlannedPass;
  readonly place: number;
  readonly count: number;
  readonly naming: NamingId;
  readonly onChange: (pass: PlannedPass) => void;
  readonly onMove: (to: number) => void;
  readonly onRemove: () => void;
}

function PassRow({ pass, place, count, naming, onChange, onMove, onRemove }: RowProps) {
  const name = t`pass ${place + 1}`;
  return (
    <div className="plan-row">
      <span className="plan-number">{place + 1}</span>
      <Select
        size="sm"
        label={capital(t`${name}: what`)}
        value={pass.activity}
        options={ACTIVITY_IDS.map((id) => [id, activityName(id, naming)] as const)}
        onChoose={(activity) => onChange({ ...pass, activity })}
      />
      <Select
        size="sm"
        label={capital(t`${name}: who`)}
        value={pass.who}
        disabled={pass.activity === 'echo'}
        options={WHO_IDS.map((id) => [id, WHO_NAMES()[id]] as const)}
        onChoose={(who) => onChange({ ...pass, who })}
      />
      <Button
        size="sm"
        variant="link"
        aria-label={capital(t`${name} earlier`)}
        disabled={place === 0}
        onClick={() => onMove(place - 1)}
      >
        <ArrowUp size={16} aria-hidden />
      </Button>
      <Button
        size="sm"
        variant="link"
        aria-label={capital(t`${name} later`)}
        disabled={place === count - 1}
        onClick={() => onMove(place + 1)}
      >
        <ArrowDown size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="link" aria-label={t`Remove ${name}`} disabled={count === 1} onClick={onRemove}>
        <X size={16} aria-hidden />
      </Button>
    </div>
  );
}
