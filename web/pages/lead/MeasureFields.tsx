import { perLanguage, t } from '../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import { type ChunkPlan, measureRange } from '../../../core/leading/chunks.ts';
import { COUNT_IN_KINDS, countIn } from '../../../core/leading/countIn.ts';
import { LONGEST_STUDY } from '../../../core/leading/fading.ts';
import type { PartsPlan, Plan } from '../../../core/leading/plan.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { countInName } from '../../../core/wording/leadWords.ts';
import { inNaming } from '../../../core/wording/valueNames.ts';
import { Select } from '../../ui/Select.tsx';
import type { PlanFieldsProps } from './planFields.ts';

export type MeasureFieldsProps = PlanFieldsProps & {
  readonly rhythm: Pattern;
  /** So many sound together. */
  readonly parts: number;
};

const PARTS = perLanguage((): readonly (readonly [PartsPlan, string])[] => [
  ['alone-first', t`Each part alone, then together`],
  ['together', t`All parts together at once`],
]);

/** Which measures, the rests between passes and the count-in. */
export function MeasureFields(props: MeasureFieldsProps) {
  const { plan, naming, onChange } = props;
  const set = (change: Partial<Plan>) => onChange({ ...plan, ...change });
  return (
    <fieldset>
      <legend>{inNaming(t`{Measure+}, rests, count-in`, naming)}</legend>
      {props.parts > 1 && (
        <div className="plan-row">
          <Select
            size="sm"
            label={t`Parts`}
            value={plan.parts ?? 'alone-first'}
            options={PARTS()}
            onChoose={(parts) => set({ parts })}
          />
        </div>
      )}
      <ChunkFields {...props} />
      <div className="plan-row">
        <Form.Label htmlFor="plan-rest">{t`Beats of rest between passes`}</Form.Label>
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
        <Form.Label htmlFor="plan-study">{t`Seconds to look before “you go first”`}</Form.Label>
        <Form.Control
          id="plan-study"
          size="sm"
          type="number"
          min={0}
          max={LONGEST_STUDY}
          value={plan.study ?? 0}
          onChange={(event) => set({ study: Number(event.target.value) })}
        />
      </div>
      <CountInFields {...props} />
      {SWITCHES().map(([id, key, label]) => (
        <Form.Check
          key={id}
          type="switch"
          id={id}
          label={label}
          checked={plan[key] === true}
          onChange={(event) => set({ [key]: event.target.checked })}
        />
      ))}
    </fieldset>
  );
}

const SWITCHES = perLanguage(
  () =>
    [
      ['plan-each', 'countInEach', t`Count in every pass`],
      ['plan-divided', 'divided', t`Click between the beats too`],
      ['plan-two', 'twoLines', t`Two lines: rhythm above, beat below`],
      ['plan-fades', 'fades', t`The counts fade, a step a pass`],
    ] as const,
);

/** How a pattern can be cut up, by the key of its list. */
const CHUNKS = perLanguage(
  () =>
    ({
      all: { name: t`all of it`, plan: { kind: 'whole' } },
      two: { name: t`by two {measure+}, then all`, plan: { kind: 'joined', by: 2 } },
      four: { name: t`by four {measure+}, then all`, plan: { kind: 'joined', by: 4 } },
      lines: { name: t`line by line, then the page`, plan: { kind: 'lines' } },
    }) as const satisfies Readonly<Record<string, { name: string; plan: ChunkPlan }>>,
);
type ChunkKey = keyof ReturnType<typeof CHUNKS>;
const CHUNK_KEYS = Object.keys(CHUNKS()) as ChunkKey[];
const RANGE = 'range';

function keyOf(chunks: ChunkPlan): ChunkKey | typeof RANGE {
  if (chunks.kind === 'range') return RANGE;
  return CHUNK_KEYS.find((key) => JSON.stringify(CHUNKS()[key].plan) === JSON.stringify(chunks)) ?? 'all';
}

function ChunkFields({ plan, naming, rhythm, onChange }: MeasureFieldsProps) {
  const { chunks } = plan;
  const range = measureRange(rhythm);
  const set = (next: ChunkPlan) => onChange({ ...plan, chunks: next });
  const choose = (key: ChunkKey | typeof RANGE) =>
    set(
      key === RANGE
        ? { kind: 'range', from: range.first, to: Math.min(range.first + 1, range.last) }
        : CHUNKS()[key].plan,
    );
  const options = [
    ...CHUNK_KEYS.map((key) => [key, inNaming(CHUNKS()[key].name, naming)] as const),
    [RANGE, inNaming(t`only {measure+} …`, naming)] as const,
  ];
  return (
    <div className="plan-row">
      <Select
        size="sm"
        label={inNaming('{Measure+}', naming)}
        value={keyOf(chunks)}
        options={options}
        onChoose={choose}
      />
      {chunks.kind === 'range' && (
        <>
          <MeasureNumber
            label={inNaming(t`From {measure}`, naming)}
            {...range}
            value={chunks.from}
            onChange={(from) => set({ ...chunks, from })}
          />
          <span>{t`to`}</span>
          <MeasureNumber
            label={inNaming(t`To {measure}`, naming)}
            {...range}
            value={chunks.to}
            onChange={(to) => set({ ...chunks, to })}
          />
        </>
      )}
    </div>
  );
}

interface NumberProps {
  readonly label: string;
  readonly first: number;
  readonly last: number;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

function MeasureNumber({ label, first, last, value, onChange }: NumberProps) {
  return (
    <Form.Control
      size="sm"
      type="number"
      min={first}
      max={last}
      aria-label={label}
      value={value || ''}
      onChange={(event) => onChange(Number(event.target.value))}
    />
  );
}

/** As many words of a count-in as the contract takes. */
const MOST_WORDS = 24;

function CountInFields({ plan, naming, rhythm, onChange }: MeasureFieldsProps) {
  const usual = countIn(rhythm, plan.ladder[0]!.bpm, { kind: plan.countIn }).map(({ word }) => word);
  const changeWords = (text: string) => {
    const { countInWords: _words, ...rest } = plan;
    onChange(text.trim() === '' ? rest : { ...rest, countInWords: text.split(' ').slice(0, MOST_WORDS) });
  };
  return (
    <div className="plan-row">
      <Form.Label htmlFor="plan-count-in">{t`Count-in`}</Form.Label>
      <Select
        id="plan-count-in"
        size="sm"
        value={plan.countIn}
        options={COUNT_IN_KINDS.map((kind) => [kind, countInName(kind, naming)] as const)}
        onChoose={(countIn) => onChange({ ...plan, countIn })}
      />
      <Form.Control
        size="sm"
        aria-label={t`Words of the count-in`}
        placeholder={usual.join(' ')}
        value={plan.countInWords?.join(' ') ?? ''}
        onChange={(event) => changeWords(event.target.value)}
      />
    </div>
  );
}
