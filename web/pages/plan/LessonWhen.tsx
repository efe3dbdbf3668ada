import { t } from '../../../core/words/say.ts';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { LessonEdit } from '../../../contract/lesson.ts';
import { lessonSlots } from '../../../core/planning/slots.ts';
import { stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { MinutesInput } from './MinutesInput.tsx';
import { carried, lessonAt } from './termDraft.ts';
import { useTermDraft } from './useTerm.ts';
import { type Planning, dayOfMoment } from './usePlanning.ts';

interface WhenProps {
  readonly lesson: LessonEdit;
  readonly planning: Planning;
  readonly readOnly: boolean;
  readonly onChange: (part: Partial<LessonEdit>) => void;
}

/**
 * What the term has for a lesson goes along to its other day.
 * @returns why it did not, and what moves the lesson
 */
function useMoved({ lesson, planning, onChange }: WhenProps) {
  const [today] = useState(() => dayOfMoment(Date.now()));
  const { value: term, change } = useTermDraft(planning, today);
  const [stayed, setStayed] = useState<string>();
  // Where it stood in the term last: while a day is typed it is on days that nobody means.
  const [stood, setStood] = useState(-1);
  const move = (part: Partial<Pick<LessonEdit, 'day' | 'starts'>>) => {
    onChange(part);
    setStayed(undefined);
    if (!planning.term || lesson.held) return;
    const slots = lessonSlots(term);
    const at = lessonAt(slots, lesson.day, lesson.starts);
    const from = at < 0 ? stood : at;
    const to = lessonAt(slots, part.day === undefined ? lesson.day : part.day, part.starts ?? lesson.starts);
    setStood(to < 0 ? from : to);
    const steps = term.contents[from] ?? [];
    if (steps.length === 0 || from === to) return;
    if (to >= 0) return change(carried(term, from, to));
    const names = listed(steps.map((one) => stepText(one, planning.voice.naming)));
    const day = format(parseISO(slots[from]!.day), 'EEEE d MMMM');
    setStayed(t`The term has no lesson then: ${names} stays on ${day} in the term.`);
  };
  return { stayed, move };
}

/** On which day, when and how long. */
export function LessonWhen(props: WhenProps) {
  const { lesson, readOnly, onChange } = props;
  const { stayed, move } = useMoved(props);
  return (
    <>
      <div className="lesson-when">
        <Form.Group controlId="lesson-day">
          <Form.Label>{t`Day`}</Form.Label>
          <Form.Control
            type="date"
            value={lesson.day ?? ''}
            readOnly={readOnly}
            onChange={({ target }) => move({ day: target.value || null })}
          />
        </Form.Group>
        <Form.Group controlId="lesson-starts">
          <Form.Label>{t`Begins`}</Form.Label>
          <Form.Control
            type="time"
            value={lesson.starts ?? ''}
            readOnly={readOnly}
            onChange={({ target }) => move({ starts: target.value || null })}
          />
        </Form.Group>
        <div className="lesson-length">
          <span aria-hidden>{t`Minutes`}</span>
          <MinutesInput
            label={t`Minutes of the lesson`}
            value={lesson.minutes}
            least={5}
            most={240}
            onMinutes={(minutes) => minutes !== undefined && onChange({ minutes })}
          />
        </div>
        {lesson.day && <span className="lesson-weekday">{format(parseISO(lesson.day), 'EEEE')}</span>}
      </div>
      {stayed !== undefined && (
        <p className="plan-missing" role="status">
          {stayed}
        </p>
      )}
    </>
  );
}
