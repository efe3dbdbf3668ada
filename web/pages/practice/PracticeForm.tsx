import { t } from '../../../core/words/say.ts';
import { Trash2 } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { PracticeEdit, PracticeItem } from '../../../contract/practice.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { replaced, without } from '../../ui/lists.ts';
import { daysOf, sameWeekdays } from './calendar.ts';
import { NumberField } from '../../ui/NumberField.tsx';
import { minutesOf } from './weekPlan.ts';

const MOST_ITEMS = 12;

interface PracticeFormProps {
  readonly schoolClass: ClassDetail;
  readonly patterns: readonly SavedPattern[];
  readonly start: PracticeEdit;
  readonly problem: Error | undefined;
  readonly onSave: (week: PracticeEdit) => Promise<void>;
  readonly onCancel: () => void;
}

/** What is practised, when and by whom; how many minutes that is on each day is said at once. */
export function PracticeForm({ schoolClass, patterns, start, problem, onSave, onCancel }: PracticeFormProps) {
  const [{ starts, plan }, setWeek] = useState(start);
  const days = daysOf(starts);
  const minutes = minutesOf(plan.items);
  const set = (change: Partial<PracticeEdit['plan']>) => setWeek({ starts, plan: { ...plan, ...change } });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onSave({ starts, plan: { ...plan, title: plan.title.trim() } });
  };
  const complete = plan.items.every((item) => item.days.length > 0) && plan.children?.length !== 0;
  return (
    <Form className="card-paper practice-form" onSubmit={submit} aria-label={t`Practice week`}>
      <HeadFields week={{ starts, plan }} onWeek={setWeek} />
      {plan.items.map((item, i) => (
        <ItemFields
          key={i}
          number={i + 1}
          item={item}
          patterns={patterns}
          days={days}
          onItem={(next) => set({ items: replaced(plan.items, i, next) })}
          onDrop={plan.items.length > 1 ? () => set({ items: without(plan.items, i) }) : undefined}
        />
      ))}
      {plan.items.length < MOST_ITEMS && (
        <Button
          variant="outline-dark"
          onClick={() => set({ items: [...plan.items, { ...plan.items.at(-1)!, ...nextOf(patterns, plan.items) }] })}
        >
          {t`One more rhythm`}
        </Button>
      )}
      <WhoPractises schoolClass={schoolClass} chosen={plan.children} onChosen={(children) => set({ children })} />
      <p role="status" className="minutes">
        {days
          .map(({ title }, day) => (minutes[day] ? t`${title.slice(0, 3)} ${minutes[day]} min` : undefined))
          .filter(Boolean)
          .join(' · ')}
      </p>
      {problem && <Notice problem={problem} />}
      <div className="class-form-actions">
        <Button type="submit" disabled={!complete}>{t`Keep this week`}</Button>
        <Button variant="outline-dark" onClick={onCancel}>{t`Cancel`}</Button>
      </div>
    </Form>
  );
}

interface HeadProps {
  readonly week: PracticeEdit;
  readonly onWeek: (week: PracticeEdit) => void;
}

function withWeekdays(plan: PracticeEdit['plan'], starts: string, from: string): PracticeEdit['plan'] {
  return { ...plan, items: plan.items.map((item) => ({ ...item, days: sameWeekdays(item.days, starts, from) })) };
}

function HeadFields({ week: { starts, plan }, onWeek }: HeadProps) {
  return (
    <div className="practice-head">
      <Form.Group controlId="practice-title">
        <Form.Label>{t`Name`}</Form.Label>
        <Form.Control
          value={plan.title}
          required
          maxLength={60}
          onChange={(event) => onWeek({ starts, plan: { ...plan, title: event.target.value } })}
        />
      </Form.Group>
      <Form.Group controlId="practice-starts">
        <Form.Label>{t`First day`}</Form.Label>
        <Form.Control
          type="date"
          value={starts}
          required
          onChange={({ target }) => {
            if (target.value) onWeek({ starts: target.value, plan: withWeekdays(plan, target.value, starts) });
          }}
        />
      </Form.Group>
    </div>
  );
}

/** A pattern that is not practised yet. */
function nextOf(patterns: readonly SavedPattern[], items: readonly PracticeItem[]) {
  const { id, title, text } = patterns.find((one) => !items.some((item) => item.patternId === one.id)) ?? patterns[0]!;
  return { patternId: id, title, text };
}

interface ItemProps {
  readonly number: number;
  readonly item: PracticeItem;
  readonly patterns: readonly SavedPattern[];
  readonly days: readonly { readonly title: string }[];
  readonly onItem: (item: PracticeItem) => void;
  readonly onDrop: (() => void) | undefined;
}

function ItemFields({ number, item, patterns, days, onItem, onDrop }: ItemProps) {
  const choose = (id: string) => {
    const found = patterns.find((one) => one.id === id);
    if (found) onItem({ ...item, patternId: id, title: found.title, text: found.text });
  };
  const listed = patterns.some(({ id }) => id === item.patternId);
  const options = [...(listed ? [] : [item.patternId]), ...patterns.map(({ id }) => id)];
  const toggle = (day: number, on: boolean) =>
    onItem({ ...item, days: on ? [...item.days, day].sort() : item.days.filter((one) => one !== day) });
  return (
    <fieldset className="practice-item">
      <legend>{t`Rhythm ${number}`}</legend>
      <SelectField
        id={`practice-pattern-${number}`}
        label={t`Pattern`}
        value={item.patternId}
        options={options.map((id) => [id, patterns.find((one) => one.id === id)?.title ?? item.title] as const)}
        onChoose={choose}
      />
      <NumberField
        id={`practice-times-${number}`}
        label={t`Times a day`}
        value={item.times}
        least={1}
        most={20}
        onValue={(times) => onItem({ ...item, times })}
      />
      <NumberField
        id={`practice-bpm-${number}`}
        label={t`Beats a minute`}
        value={item.bpm}
        least={20}
        most={240}
        onValue={(bpm) => onItem({ ...item, bpm })}
      />
      <div className="practice-days" role="group" aria-label={t`Days`}>
        {days.map(({ title }, day) => (
          <Form.Check
            key={day}
            inline
            type="checkbox"
            id={`practice-day-${number}-${day}`}
            label={title.slice(0, 3)}
            checked={item.days.includes(day)}
            onChange={(event) => toggle(day, event.target.checked)}
          />
        ))}
      </div>
      {onDrop && (
        <Button variant="outline-dark" onClick={onDrop} aria-label={t`Leave out rhythm ${number}`}>
          <Trash2 size={16} aria-hidden />
        </Button>
      )}
    </fieldset>
  );
}

interface WhoProps {
  readonly schoolClass: ClassDetail;
  readonly chosen: readonly string[] | null;
  readonly onChosen: (children: string[] | null) => void;
}

function WhoPractises({ schoolClass: { children }, chosen, onChosen }: WhoProps) {
  const toggle = (id: string, on: boolean) =>
    onChosen(on ? [...(chosen ?? []), id] : (chosen ?? []).filter((one) => one !== id));
  return (
    <fieldset className="exempt">
      <legend>{t`Who practises`}</legend>
      <Form.Check
        type="checkbox"
        id="practice-all"
        label={t`The whole class`}
        checked={chosen === null}
        onChange={(event) => onChosen(event.target.checked ? null : [])}
      />
      {chosen !== null &&
        children.map(({ id, name }) => (
          <Form.Check
            key={id}
            type="checkbox"
            id={`practice-${id}`}
            label={name}
            checked={chosen.includes(id)}
            onChange={(event) => toggle(id, event.target.checked)}
          />
        ))}
    </fieldset>
  );
}
