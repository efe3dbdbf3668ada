import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { COUNT_IN_KINDS, type CountInKind } from '../../../core/leading/countIn.ts';
import {
  ACTIVITIES,
  ACTIVITY_IDS,
  type Activity,
  type Plan,
  type Rung,
  WHO,
  WHO_IDS,
  type Who,
} from '../../../core/leading/plan.ts';

const COUNT_IN_NAMES: Readonly<Record<CountInKind, string>> = {
  measure: 'one measure',
  'two-measures': 'two measures',
  'two-beats': 'two beats',
};
const FACTORS = [0.5, 1, 1.5, 2] as const;
const FACTOR_NAMES: Readonly<Record<number, string>> = {
  0.5: 'half speed',
  1: 'as it is',
  1.5: '1½ times',
  2: 'twice',
};
const CHUNKS = [
  { name: 'all of it', plan: { kind: 'whole' } },
  { name: 'by two measures, then all', plan: { kind: 'joined', by: 2 } },
  { name: 'by four measures, then all', plan: { kind: 'joined', by: 4 } },
] as const;
const RANGE = 'only measures …';

function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}

const replaced = <T,>(list: readonly T[], at: number, item: T) => list.map((old, i) => (i === at ? item : old));

/** Everything about a plan, to be changed in place. */
export function PlanForm({
  plan,
  lastMeasure,
  onChange,
}: {
  plan: Plan;
  lastMeasure: number;
  onChange: (plan: Plan) => void;
}) {
  const { passes, ladder, chunks } = plan;
  const set = (change: Partial<Plan>) => onChange({ ...plan, ...change });
  const setRung = (at: number, change: Partial<Rung>) =>
    set({ ladder: replaced(ladder, at, { ...ladder[at]!, ...change }) });
  const chunkName =
    chunks.kind === 'range'
      ? RANGE
      : (CHUNKS.find((entry) => JSON.stringify(entry.plan) === JSON.stringify(chunks))?.name ?? CHUNKS[0].name);
  return (
    <div className="plan-form">
      <fieldset>
        <legend>Passes</legend>
        {passes.map((pass, i) => (
          <div className="plan-row" key={i}>
            <span className="plan-number">{i + 1}</span>
            <Form.Select
              size="sm"
              aria-label={`Pass ${i + 1}: what`}
              value={pass.activity}
              onChange={(event) =>
                set({ passes: replaced(passes, i, { ...pass, activity: event.target.value as Activity }) })
              }
            >
              {ACTIVITY_IDS.map((id) => (
                <option key={id} value={id}>
                  {ACTIVITIES[id]}
                </option>
              ))}
            </Form.Select>
            <Form.Select
              size="sm"
              aria-label={`Pass ${i + 1}: who`}
              value={pass.who}
              disabled={pass.activity === 'echo'}
              onChange={(event) => set({ passes: replaced(passes, i, { ...pass, who: event.target.value as Who }) })}
            >
              {WHO_IDS.map((id) => (
                <option key={id} value={id}>
                  {WHO[id]}
                </option>
              ))}
            </Form.Select>
            <Button
              size="sm"
              variant="link"
              aria-label={`Pass ${i + 1} earlier`}
              disabled={i === 0}
              onClick={() => set({ passes: moved(passes, i, i - 1) })}
            >
              <ArrowUp size={16} aria-hidden />
            </Button>
            <Button
              size="sm"
              variant="link"
              aria-label={`Pass ${i + 1} later`}
              disabled={i === passes.length - 1}
              onClick={() => set({ passes: moved(passes, i, i + 1) })}
            >
              <ArrowDown size={16} aria-hidden />
            </Button>
            <Button
              size="sm"
              variant="link"
              aria-label={`Remove pass ${i + 1}`}
              disabled={passes.length === 1}
              onClick={() => set({ passes: passes.filter((_, k) => k !== i) })}
            >
              <X size={16} aria-hidden />
            </Button>
          </div>
        ))}
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => set({ passes: [...passes, { activity: 'clap', who: 'together' }] })}
        >
          <Plus size={16} aria-hidden /> Pass
        </Button>
      </fieldset>
      <fieldset>
        <legend>Tempos, one after the other</legend>
        {ladder.map((rung, i) => (
          <div className="plan-row" key={i}>
            <Form.Control
              size="sm"
              type="number"
              aria-label={`Tempo ${i + 1}, beats a minute`}
              value={rung.bpm || ''}
              onChange={(event) => setRung(i, { bpm: Number(event.target.value) })}
            />
            <Form.Select
              size="sm"
              aria-label={`Tempo ${i + 1}: speed`}
              value={rung.factor ?? 1}
              onChange={(event) =>
                setRung(i, { factor: FACTORS.find((factor) => factor === Number(event.target.value)) ?? 1 })
              }
            >
              {FACTORS.map((factor) => (
                <option key={factor} value={factor}>
                  {FACTOR_NAMES[factor]}
                </option>
              ))}
            </Form.Select>
            <span>for</span>
            <Form.Control
              size="sm"
              type="number"
              min={1}
              aria-label={`Tempo ${i + 1}: passes`}
              value={rung.passes || ''}
              onChange={(event) => setRung(i, { passes: Number(event.target.value) })}
            />
            <span>{rung.passes === 1 ? 'pass' : 'passes'}</span>
            <Button
              size="sm"
              variant="link"
              aria-label={`Remove tempo ${i + 1}`}
              disabled={ladder.length === 1}
              onClick={() => set({ ladder: ladder.filter((_, k) => k !== i) })}
            >
              <X size={16} aria-hidden />
            </Button>
          </div>
        ))}
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() =>
            set({ ladder: [...ladder, { bpm: Math.min(240, (ladder.at(-1)?.bpm ?? 60) + 12), passes: 1 }] })
          }
        >
          <Plus size={16} aria-hidden /> Tempo
        </Button>
      </fieldset>
      <fieldset>
        <legend>Measures, rests, count-in</legend>
        <div className="plan-row">
          <Form.Select
            size="sm"
            aria-label="Measures"
            value={chunkName}
            onChange={(event) =>
              set({
                chunks:
                  event.target.value === RANGE
                    ? { kind: 'range', from: 1, to: Math.min(2, lastMeasure) }
                    : CHUNKS.find(({ name }) => name === event.target.value)!.plan,
              })
            }
          >
            {[...CHUNKS.map(({ name }) => name), RANGE].map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Form.Select>
          {chunks.kind === 'range' && (
            <>
              <Form.Control
                size="sm"
                type="number"
                min={1}
                max={lastMeasure}
                aria-label="From measure"
                value={chunks.from || ''}
                onChange={(event) => set({ chunks: { ...chunks, from: Number(event.target.value) } })}
              />
              <span>to</span>
              <Form.Control
                size="sm"
                type="number"
                min={1}
                max={lastMeasure}
                aria-label="To measure"
                value={chunks.to || ''}
                onChange={(event) => set({ chunks: { ...chunks, to: Number(event.target.value) } })}
              />
            </>
          )}
        </div>
        <div className="plan-row">
          <Form.Label htmlFor="plan-rest">Beats of rest between passes</Form.Label>
          <Form.Control
            id="plan-rest"
            size="sm"
            type="number"
            min={0}
            max={32}
            value={plan.restBeats}
            onChange={(event) => set({ restBeats: Number(event.target.value) })}
          />
        </div>
        <div className="plan-row">
          <Form.Label htmlFor="plan-count-in">Count-in</Form.Label>
          <Form.Select
            id="plan-count-in"
            size="sm"
            value={plan.countIn}
            onChange={(event) => set({ countIn: event.target.value as CountInKind })}
          >
            {COUNT_IN_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {COUNT_IN_NAMES[kind]}
              </option>
            ))}
          </Form.Select>
          <Form.Control
            size="sm"
            aria-label="Words of the count-in"
            placeholder="1 2 ready go"
            value={plan.countInWords?.join(' ') ?? ''}
            onChange={(event) => {
              const { countInWords: _words, ...rest } = plan;
              const words = event.target.value.split(' ').slice(0, 24);
              onChange(event.target.value.trim() === '' ? rest : { ...rest, countInWords: words });
            }}
          />
        </div>
        <Form.Check
          type="switch"
          id="plan-each"
          label="Count in every pass"
          checked={plan.countInEach}
          onChange={(event) => set({ countInEach: event.target.checked })}
        />
        <Form.Check
          type="switch"
          id="plan-divided"
          label="Click between the beats too"
          checked={plan.divided}
          onChange={(event) => set({ divided: event.target.checked })}
        />
        <Form.Check
          type="switch"
          id="plan-two"
          label="Two lines: rhythm above, beat below"
          checked={plan.twoLines}
          onChange={(event) => set({ twoLines: event.target.checked })}
        />
      </fieldset>
    </div>
  );
}
