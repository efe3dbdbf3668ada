import { t } from '../../../core/words/say.ts';
import { ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { TermStep } from '../../../core/planning/term.ts';
import type { DueLesson } from '../../../core/planning/today.ts';
import { stepText } from '../../../core/wording/planWords.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useChooseClass } from '../../domain/currentClass.ts';

interface ClassButtonProps {
  readonly room: ClassSummary;
  /** Of today. */
  readonly lessons: readonly DueLesson<SavedLesson>[];
  /** What of the term is due this week. */
  readonly steps: readonly TermStep[];
  readonly isNext: boolean;
}

/** A class at one press: from then on all views are about it. */
export function ClassButton({ room, lessons, steps, isNext }: ClassButtonProps) {
  const choose = useChooseClass();
  const naming = namingOf(room);
  return (
    <li>
      <Link
        className={`today-class ${isNext ? 'today-class-next' : ''}`}
        to={`/classes/${room.id}`}
        onClick={() => choose(room.id)}
      >
        <strong>
          {room.name}&nbsp;
          <ChevronRight size={16} aria-hidden />
        </strong>
        <span>{lessons.length === 0 ? t`no lesson today` : lessons.map(lessonText).join(', ')}</span>
        {steps.length > 0 && (
          <span className="today-due">
            <span className="visually-hidden">{t`Due this week:`} </span>
            {steps.map((step) => stepText(step, naming)).join(', ')}
          </span>
        )}
      </Link>
    </li>
  );
}

function lessonText({ starts, lesson }: DueLesson<SavedLesson>): string {
  const state = !lesson ? t`not prepared` : lesson.held ? t`held` : t`prepared`;
  return `${starts ?? t`today`} ${state}`;
}
