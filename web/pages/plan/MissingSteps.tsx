import { t } from '../../../core/words/say.ts';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import type { LessonEdit } from '../../../contract/lesson.ts';
import { BLOCK_OF } from '../../../core/planning/prepare.ts';
import { isIn } from '../../../core/planning/term.ts';
import { stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { addBlock, changeBlock } from './lessonDraft.ts';
import { lessonAt, planned } from './termDraft.ts';
import type { Planning } from './usePlanning.ts';

interface MissingProps {
  readonly lesson: LessonEdit;
  readonly planning: Planning;
  readonly onChange: (lesson: LessonEdit) => void;
}

/** What the term has for this day and the lesson has not: something moved here since it was prepared. */
export function MissingSteps({ lesson, planning: { term, met, voice }, onChange }: MissingProps) {
  const lessons = useMemo(() => (term ? planned(term, met).lessons : []), [term, met]);
  const day = lessons[lessonAt(lessons, lesson.day, lesson.starts)];
  const own = lesson.blocks.flatMap(({ steps }) => steps);
  const missing = (day?.steps ?? []).filter((one) => !isIn(own, one));
  const elsewhere = own.flatMap((one) => {
    const other = lessons.find((slot) => isIn(slot.steps, one));
    return day && other && other !== day && !isIn(day.steps, one) ? [{ one, other }] : [];
  });
  if ((missing.length === 0 && elsewhere.length === 0) || lesson.held) return null;
  const add = () => {
    let next = lesson;
    for (const one of missing) {
      const block = next.blocks.find(({ kind }) => kind === BLOCK_OF[one.step]);
      next = block
        ? changeBlock(next, block.key, { steps: [...block.steps, one] })
        : addBlock(next, BLOCK_OF[one.step], [one]);
    }
    onChange(next);
  };
  const away = elsewhere.map(({ one }) => one);
  const takeOut = () => {
    let next = lesson;
    for (const { key, steps } of lesson.blocks)
      next = changeBlock(next, key, { steps: steps.filter((one) => !isIn(away, one)) });
    onChange(next);
  };
  return (
    <>
      {missing.length > 0 && (
        <p className="plan-missing">
          {t`The term has more for this day:
            ${listed(missing.map((one) => stepText(one, voice.naming)))}.`}{' '}
          <Button size="sm" variant="outline-dark" onClick={add}>{t`Put it in`}</Button>
        </p>
      )}
      {elsewhere.length > 0 && (
        <p className="plan-missing">
          {t`In the term on another day: ${listed(
            elsewhere.map(
              ({ one, other }) => t`${stepText(one, voice.naming)} on ${format(parseISO(other.day), 'd MMM')}`,
            ),
          )}.`}{' '}
          <Button size="sm" variant="outline-dark" onClick={takeOut}>{t`Take it out here`}</Button>
        </p>
      )}
    </>
  );
}
