import { t } from '../../../core/words/say.ts';
import { format } from '../../words/dates.ts';
import Button from 'react-bootstrap/Button';
import type { LessonEdit } from '../../../contract/lesson.ts';
import { durationText } from '../../../core/wording/leadWords.ts';
import { BLOCK_WORDS, stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { notHeld, stepsOf } from './lessonDraft.ts';
import { useMovedOn } from './useTerm.ts';
import type { Planning } from './usePlanning.ts';

interface HeldLineProps {
  readonly lesson: LessonEdit;
  readonly planning: Planning;
  readonly onChange: (lesson: LessonEdit) => void;
}

/** How a lesson went: what was left out, and where that went. */
export function HeldLine({ lesson, planning, onChange }: HeldLineProps) {
  const { held, again = [], blocks, day, starts } = lesson;
  const { left } = stepsOf(lesson);
  const moved = useMovedOn(planning, day, starts, left);
  if (!held) return null;
  const out = blocks.filter(({ key }) => held.leftOut.includes(key)).map(({ kind }) => BLOCK_WORDS()[kind].title);
  return (
    <section className="plan-held" aria-label={t`How it went`}>
      <p>
        <strong>{t`Held on ${format(held.at, 'EEEE d MMMM')}`}</strong>, {durationText(held.seconds)}.{' '}
        {out.length === 0 ? t`Nothing was left out.` : t`Left out: ${listed(out)}.`}{' '}
        {left.length > 0 &&
          moved &&
          t`${listed(left.map((one) => stepText(one, planning.voice.naming)))} moved to
            the next lesson.`}
        {again.length > 0 && t` Held once more on ${listed(again.map(({ at }) => format(at, 'EEEE d MMMM')))}.`}
      </p>
      <Button size="sm" variant="outline-dark" onClick={() => onChange(notHeld(lesson))}>{t`It was not held`}</Button>
    </section>
  );
}
