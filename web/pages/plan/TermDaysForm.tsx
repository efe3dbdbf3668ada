import { counted, perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { Select } from '../../ui/Select.tsx';
import { replaced, without } from '../../ui/lists.ts';
import { MinutesInput } from './MinutesInput.tsx';

interface TermDaysProps {
  readonly term: TermPlanEdit;
  /** How many lessons that makes. */
  readonly count: number;
  readonly onChange: (part: Partial<TermPlanEdit>) => void;
}

const WEEKDAYS = perLanguage(
  () => [t`Monday`, t`Tuesday`, t`Wednesday`, t`Thursday`, t`Friday`, t`Saturday`, t`Sunday`] as const,
);

interface DayFieldProps {
  readonly label: string;
  readonly value: string;
  readonly min?: string;
  readonly onDay: (day: string) => void;
}

/** A day that is not complete yet changes nothing. */
function DayField({ label, value, min, onDay }: DayFieldProps) {
  return (
    <Form.Control
      size="sm"
      type="date"
      aria-label={label}
      value={value}
      min={min}
      onChange={({ target }) => /^[12]\d{3}-/.test(target.value) && onDay(target.value)}
    />
  );
}

/** From when to when, on which days of the week, and when there are holidays. */
export function TermDaysForm(props: TermDaysProps) {
  const { term, count, onChange } = props;
  const { from, until } = term;
  return (
    <section className="term-days" aria-label={t`Days of the term`}>
      <h2>{rich`Days ${<small>{counted(count, 'lesson')}</small>}`}</h2>
      <FromTo of={t`the term`} from={from} until={until} onChange={(days) => onChange(days)} />
      <WeeklyLessons {...props} />
      <Holidays {...props} />
    </section>
  );
}

interface FromToProps {
  readonly of: string;
  readonly from: string;
  readonly until: string;
  readonly onChange: (days: { from: string; until: string }) => void;
  readonly children?: ReactNode;
}

/** The last day is never before the first. */
function FromTo({ of, from, until, onChange, children }: FromToProps) {
  return (
    <div className="term-row">
      <DayField
        label={t`First day of ${of}`}
        value={from}
        onDay={(day) => onChange({ from: day, until: day > until ? day : until })}
      />
      <span>{t`to`}</span>
      <DayField
        label={t`Last day of ${of}`}
        value={until}
        min={from}
        onDay={(day) => day >= from && onChange({ from, until: day })}
      />
      {children}
    </div>
  );
}

function WeeklyLessons({ term: { slots }, onChange }: TermDaysProps) {
  return (
    <>
      {slots.map((slot, i) => (
        <WeeklyLesson
          key={i}
          name={`lesson ${i + 1}`}
          slot={slot}
          onSlot={(next) => onChange({ slots: replaced(slots, i, next) })}
          onDrop={() => onChange({ slots: without(slots, i) })}
        />
      ))}
      {slots.length < MOST_SLOTS && (
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => onChange({ slots: [...slots, { ...(slots.at(-1) ?? USUAL), weekday: nextDay(slots) }] })}
        >
          <Plus size={16} aria-hidden /> {t`Another lesson a week`}
        </Button>
      )}
    </>
  );
}

interface WeeklyLessonProps {
  readonly name: string;
  readonly slot: Slot;
  readonly onSlot: (slot: Slot) => void;
  readonly onDrop: () => void;
}

function WeeklyLesson({ name, slot, onSlot, onDrop }: WeeklyLessonProps) {
  return (
    <div className="term-row">
      <Select
        size="sm"
        className="w-auto"
        label={t`Day of ${name}`}
        value={String(slot.weekday)}
        options={WEEKDAYS().map((day, number) => [String(number), day] as const)}
        onChoose={(day) => onSlot({ ...slot, weekday: Number(day) })}
      />
      <Form.Control
        size="sm"
        type="time"
        aria-label={t`Begin of ${name}`}
        value={slot.starts}
        onChange={({ target }) => target.value && onSlot({ ...slot, starts: target.value })}
      />
      <MinutesInput
        label={t`Minutes of ${name}`}
        value={slot.minutes}
        least={5}
        most={240}
        onMinutes={(minutes) => minutes !== undefined && onSlot({ ...slot, minutes })}
      />
      <span>{t`min`}</span>
      <DropButton label={t`Take ${name} away`} onDrop={onDrop} />
    </div>
  );
}

function Holidays({ term: { holidays, until }, onChange }: TermDaysProps) {
  return (
    <>
      <h3>{t`Holidays`}</h3>
      {holidays.map((one, i) => (
        <FromTo
          key={i}
          of={t`holidays ${i + 1}`}
          {...one}
          onChange={(days) => onChange({ holidays: replaced(holidays, i, days) })}
        >
          <DropButton
            label={t`Take holidays ${i + 1} away`}
            onDrop={() => onChange({ holidays: without(holidays, i) })}
          />
        </FromTo>
      ))}
      {holidays.length < MOST_HOLIDAYS && (
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => onChange({ holidays: [...holidays, { from: until, until }] })}
        >
          <Plus size={16} aria-hidden /> {t`Holidays`}
        </Button>
      )}
    </>
  );
}

function DropButton({ label, onDrop }: { readonly label: string; readonly onDrop: () => void }) {
  return (
    <Button size="sm" variant="link" className="term-drop" aria-label={label} onClick={onDrop}>
      <X size={16} aria-hidden />
    </Button>
  );
}

type Slot = TermPlanEdit['slots'][number];
const MOST_SLOTS = 14;
const MOST_HOLIDAYS = 30;
const USUAL = { starts: '09:40', minutes: 40 } as const;

/** A day of the week on which there is no lesson yet. */
function nextDay(slots: TermPlanEdit['slots']): number {
  const free = [0, 1, 2, 3, 4].find((day) => !slots.some(({ weekday }) => weekday === day));
  return free ?? 0;
}
