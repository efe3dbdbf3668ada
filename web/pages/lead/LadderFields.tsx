import { perLanguage, t } from '../../../core/words/say.ts';
import { Plus, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Rung } from '../../../core/leading/plan.ts';
import { capital } from '../../../core/wording/valueNames.ts';
import { Select } from '../../ui/Select.tsx';
import { replaced, without } from '../../ui/lists.ts';
import type { PlanFieldsProps } from './planFields.ts';

const FACTORS = perLanguage(
  () =>
    [
      ['0.5', t`half speed`],
      ['1', t`as it is`],
      ['1.5', t`1½ times`],
      ['2', t`twice`],
    ] as const,
);
/** A new rung is so much faster, up to a tempo that a class can follow. */
const FASTER = 12;
const FASTEST = 240;
const USUAL_BPM = 60;

/** The tempos, one after the other. */
export function LadderFields({ plan, onChange }: PlanFieldsProps) {
  const { ladder } = plan;
  const set = (next: readonly Rung[]) => onChange({ ...plan, ladder: next });
  const add = () => {
    const bpm = Math.min(FASTEST, (ladder.at(-1)?.bpm ?? USUAL_BPM) + FASTER);
    set([...ladder, { bpm, passes: 1 }]);
  };
  return (
    <fieldset>
      <legend>{t`Tempos, one after the other`}</legend>
      {ladder.map((rung, i) => (
        <RungRow
          key={i}
          rung={rung}
          name={t`tempo ${i + 1}`}
          last={ladder.length === 1}
          onChange={(change) => set(replaced(ladder, i, { ...rung, ...change }))}
          onRemove={() => set(without(ladder, i))}
        />
      ))}
      <Button size="sm" variant="outline-dark" onClick={add}>
        <Plus size={16} aria-hidden /> {t`Tempo`}
      </Button>
    </fieldset>
  );
}

interface RowProps {
  readonly rung: Rung;
  readonly name: string;
  readonly last: boolean;
  readonly onChange: (change: Partial<Rung>) => void;
  readonly onRemove: () => void;
}

function RungRow({ rung, name, last, onChange, onRemove }: RowProps) {
  const factor = (chosen: string) => ({ factor: Number(chosen) as NonNullable<Rung['factor']> });
  return (
    <div className="plan-row">
      <Form.Control
        size="sm"
        type="number"
        aria-label={capital(t`${name}, beats a minute`)}
        value={rung.bpm || ''}
        onChange={(event) => onChange({ bpm: Number(event.target.value) })}
      />
      <Select
        size="sm"
        label={capital(t`${name}: speed`)}
        value={String(rung.factor ?? 1)}
        options={FACTORS()}
        onChoose={(chosen) => onChange(factor(chosen))}
      />
      <span>{t`for`}</span>
      <Form.Control
        size="sm"
        type="number"
        min={1}
        aria-label={capital(t`${name}: passes`)}
        value={rung.passes || ''}
        onChange={(event) => onChange({ passes: Number(event.target.value) })}
      />
      <span>{rung.passes === 1 ? t`pass` : t`passes`}</span>
      <Button size="sm" variant="link" aria-label={t`Remove ${name}`} disabled={last} onClick={onRemove}>
        <X size={16} aria-hidden />
      </Button>
    </div>
  );
}
