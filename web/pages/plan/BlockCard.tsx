import { t } from '../../../core/words/say.ts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { v4 as uuid } from 'uuid';
import { type BlockEdit, MOST_IN_BLOCK } from '../../../contract/lesson.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { READY_PLANS } from '../../../core/leading/plan.ts';
import { BLOCK_KINDS, type BlockKind, type BlockTime, type Unmet } from '../../../core/planning/lesson.ts';
import { STEPS, isIn } from '../../../core/planning/term.ts';
import { ELEMENT_IDS } from '../../../core/rhythm/elements.ts';
import { clockText } from '../../../core/wording/leadWords.ts';
import { BLOCK_WORDS, STEP_WORDS, elementName, stepText, unmetText } from '../../../core/wording/planWords.ts';
import { put } from '../../api/client.ts';
import { usePlans } from '../../api/hooks.ts';
import { ownPattern, withOwn } from '../../lesson/blocks.ts';
import { stopsOf } from '../../lesson/stops.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { without } from '../../ui/lists.ts';
import { useSave } from '../../api/useSave.ts';
import { MinutesInput } from './MinutesInput.tsx';
import { type BlockChange, chosenPattern, planIn } from './lessonDraft.ts';
import type { Planning } from './usePlanning.ts';

interface BlockCardProps {
  readonly block: BlockEdit;
  /** Its place, of so many. */
  readonly at: number;
  readonly count: number;
  readonly time: BlockTime;
  readonly unmet: readonly Unmet[];
  readonly planning: Planning;
  readonly patterns: readonly SavedPattern[];
  readonly onChange: (change: BlockChange) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}

/** The package takes 0 for no name at all. */
export const sortId = ({ key }: Pick<BlockEdit, 'key'>) => t`block ${key}`;

/** One block of a lesson: how long, on what, and what of the term is done in it. */
export function BlockCard(props: BlockCardProps) {
  const { block, at, time, unmet, planning } = props;
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: sortId(block) });
  const { title, about } = BLOCK_WORDS()[block.kind];
  const style = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style} className="card-paper block-card" aria-label={`${at + 1}. ${title}`}>
      <div className="block-head">
        <button type="button" className="grip" aria-label={t`Drag ${title}`} {...attributes} {...listeners}>
          <GripVertical size={18} aria-hidden />
        </button>
        <strong>
          {at + 1}. {title}
        </strong>
        <span className="block-about">{about}</span>
        <BlockMinutes {...props} title={title} time={time} />
        <BlockButtons {...props} title={title} />
      </div>
      <BlockMaterial {...props} title={title} />
      {unmet.map((one) => (
        <p key={one.element} className="block-unmet" role="status">
          {unmetText(one, planning.voice.naming)}
        </p>
      ))}
    </li>
  );
}

interface TitledProps extends BlockCardProps {
  readonly title: string;
}

/** How long: typed, or as it is computed. */
function BlockMinutes({ block, time, title, onChange }: TitledProps) {
  const from = { typed: '', computed: t`computed`, usual: t`usual` }[time.from];
  return (
    <label className="block-minutes">
      <MinutesInput
        label={t`Minutes of ${title}`}
        value={block.minutes}
        least={0.5}
        most={240}
        step={0.5}
        placeholder={clockText(time.seconds)}
        onMinutes={(minutes) => onChange({ minutes })}
      />
      <span>
        {t`min`} {from && <small>({from})</small>}
      </span>
    </label>
  );
}

function BlockButtons({ block, title, at, count, planning, patterns, onMove, onRemove }: TitledProps) {
  const [stop] = stopsOf(withOwn([block], patterns), planning.schoolClass.id, '');
  return (
    <span className="block-buttons">
      {stop && block.kind !== 'close' && (
        <Link to={stop.to} state={stop.state} aria-label={t`Open ${title}`}>{t`Open`}</Link>
      )}
      <Button size="sm" variant="link" aria-label={t`${title} up`} disabled={at === 0} onClick={() => onMove(-1)}>
        <ArrowUp size={16} aria-hidden />
      </Button>
      <Button
        size="sm"
        variant="link"
        aria-label={t`${title} down`}
        disabled={at === count - 1}
        onClick={() => onMove(1)}
      >
        <ArrowDown size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="link" aria-label={t`Take ${title} away`} onClick={onRemove}>
        <X size={16} aria-hidden />
      </Button>
    </span>
  );
}

function BlockMaterial(props: TitledProps) {
  const { block, title, planning, patterns, onChange } = props;
  const { naming } = planning.voice;
  return (
    <div className="block-material">
      {block.steps.map((one, i) => (
        <span key={stepText(one, naming)} className={`plan-step plan-step-${one.step}`}>
          {stepText(one, naming)}
          <DropButton
            label={t`Not here: ${stepText(one, naming)}`}
            onDrop={() => onChange({ steps: without(block.steps, i) })}
          />
        </span>
      ))}
      {block.patterns.map((one, i) => (
        <PatternChip
          key={one.patternId}
          chosen={one}
          own={ownPattern(one, patterns)}
          block={title}
          onDrop={() => onChange({ patterns: without(block.patterns, i) })}
        />
      ))}
      {PLAYED.includes(block.kind) && block.patterns.length < MOST_IN_BLOCK && <PatternChoice {...props} />}
      {block.kind !== 'close' && <StepChoice {...props} />}
      {block.kind === 'lead' && <PlanChoice {...props} />}
      {block.kind === 'line-up' && <LineUpFields {...props} />}
      <Form.Control
        size="sm"
        className="block-note"
        aria-label={t`Note for ${title}`}
        placeholder={t`Note`}
        maxLength={200}
        value={block.note ?? ''}
        onChange={({ target }) => onChange({ note: target.value || undefined })}
      />
    </div>
  );
}

/** Blocks that are done with patterns. */
const PLAYED: readonly BlockKind[] = BLOCK_KINDS.filter((kind) => kind !== 'know' && kind !== 'close');

function DropButton({ label, onDrop }: { readonly label: string; readonly onDrop: () => void }) {
  return (
    <button type="button" className="chip-drop" aria-label={label} onClick={onDrop}>
      <X size={14} aria-hidden />
    </button>
  );
}

interface PatternChipProps {
  readonly chosen: BlockEdit['patterns'][number];
  /** Undefined where it is not among the teacher’s patterns any more, or never was. */
  readonly own: SavedPattern | undefined;
  readonly block: string;
  readonly onDrop: () => void;
}

/** A pattern of a block; one that is not the teacher’s can be kept from here. */
function PatternChip({ chosen: { title, text }, own, block, onDrop }: PatternChipProps) {
  const keeping = useSave(() => put(`/patterns/${uuid()}`, { title, text }), '/patterns');
  return (
    <span className={own ? 'pattern-chip' : 'pattern-chip chip-missing'}>
      {own ? <Link to={`/patterns/${own.id}`}>{title}</Link> : t`${title}: not among your patterns`}
      {!own && (
        <Button size="sm" variant="link" disabled={keeping.saving} onClick={() => void keeping.save()}>
          {t`Keep it`}
        </Button>
      )}
      <DropButton label={t`Not in ${block}: ${title}`} onDrop={onDrop} />
      {keeping.problem && <Notice problem={keeping.problem} />}
    </span>
  );
}

function PatternChoice({ block, title, patterns, onChange }: TitledProps) {
  const more = patterns.filter(
    ({ id, archived }) => !archived && !block.patterns.some(({ patternId }) => patternId === id),
  );
  return (
    <Select
      size="sm"
      className="w-auto"
      label={t`A pattern for ${title}`}
      value=""
      options={[['', t`Add a pattern …`] as const, ...more.map((one) => [one.id, one.title] as const)]}
      onChoose={(id) => {
        const pattern = patterns.find((one) => one.id === id);
        if (pattern) onChange({ patterns: [...block.patterns, chosenPattern(pattern)] });
      }}
    />
  );
}

/** What is new, read, written or heard in it. */
function StepChoice({ block, title, planning, onChange }: TitledProps) {
  const options = STEPS.flatMap((step) =>
    ELEMENT_IDS.filter((element) => !isIn(block.steps, { element, step })).map(
      (element) =>
        [`${element} ${step}`, `${elementName(element, planning.voice.naming)}: ${STEP_WORDS()[step]}`] as const,
    ),
  );
  const choose = (value: string) => {
    const [element, step] = [
      ELEMENT_IDS.find((id) => value.startsWith(`${id} `)),
      STEPS.find((one) => value.endsWith(` ${one}`)),
    ];
    if (element && step) onChange({ steps: [...block.steps, { element, step }] });
  };
  return (
    <Select
      size="sm"
      className="step-choice"
      label={t`New in ${title}, or of the term`}
      value=""
      options={[['', t`New …`], ...options]}
      onChoose={choose}
    />
  );
}

/** By which plan it is led. */
function PlanChoice({ block, title, onChange }: TitledProps) {
  const { data: own = [] } = usePlans();
  const plans = [...READY_PLANS(), ...own];
  const chosen = plans.find((plan) => plan.title === block.plan?.title);
  return (
    <Select
      size="sm"
      className="w-auto"
      label={t`Plan for ${title}`}
      value={chosen?.id ?? ''}
      options={[
        ...(chosen ? [] : [['', block.plan?.title ?? t`as it was led last`] as const]),
        ...plans.map(({ id, title: name }) => [id, name] as const),
      ]}
      onChoose={(id) => {
        const found = plans.find((plan) => plan.id === id);
        if (found) onChange({ plan: planIn(found) });
      }}
    />
  );
}

const TEMPOS = ['50', '60', '66', '72', '76', '84', '92', '100', '108'] as const;
const TRIES = ['1', '2', '3'] as const;

function LineUpFields({ block, title, onChange }: TitledProps) {
  const { bpm = 76, tries = 1 } = block.lineUp ?? {};
  const tempos = TEMPOS.includes(String(bpm) as (typeof TEMPOS)[number]) ? TEMPOS : [...TEMPOS, String(bpm)];
  return (
    <>
      <Select
        size="sm"
        className="w-auto"
        label={t`Tempo of ${title}`}
        value={String(bpm)}
        options={tempos.map((one) => [one, t`${one} beats a minute`] as const)}
        onChoose={(one) => onChange({ lineUp: { bpm: Number(one), tries } })}
      />
      <Select
        size="sm"
        className="w-auto"
        label={t`Tries in ${title}`}
        value={String(tries)}
        options={TRIES.map((one) => [one, one === '1' ? t`1 try` : t`${one} tries`] as const)}
        onChoose={(one) => onChange({ lineUp: { bpm, tries: Number(one) } })}
      />
    </>
  );
}
