import { counted, t } from '../../../core/words/say.ts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { ArrowDown, ArrowUp, GripVertical, RotateCw } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { standsIn } from '../../../core/planning/slots.ts';
import type { PlannedLesson, TermStep } from '../../../core/planning/term.ts';
import { elementName, stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { lessonPath } from '../../lesson/lessonPath.ts';
import { Sorting } from '../../ui/Sorting.tsx';
import { type Planning, dayOfMoment } from './usePlanning.ts';

interface TermLessonsProps {
  readonly lessons: readonly PlannedLesson[];
  readonly planning: Planning;
  readonly today: string;
  readonly onMove: (from: number, to: number) => void;
  readonly onNotDone: (lesson: number, step: TermStep) => void;
}

const sortId = (at: number) => t`lesson ${at}`;
const dayText = ({ day }: PlannedLesson) => format(parseISO(day), 'EEE d MMM');

/** The lessons of a term in their order; one that is dragged takes another day, and the others follow. */
export function TermLessons({ lessons, planning, today, onMove, onNotDone }: TermLessonsProps) {
  const placeOf = (id: string) => Number(id.split(' ')[1]);
  const past = lessons.filter(({ day }) => day < today).length;
  const [showsPast, setShowsPast] = useState(false);
  const from = showsPast ? 0 : past;
  const shown = lessons.flatMap((lesson, at) => (at < from ? [] : [{ lesson, at }]));
  return (
    <Sorting
      ids={shown.map(({ at }) => sortId(at))}
      titleOf={(id) => dayText(lessons[placeOf(id)]!)}
      onMoved={(id, to) => onMove(placeOf(id), placeOf(to))}
    >
      {past > 0 && (
        <Button
          size="sm"
          variant="outline-dark"
          className="term-past"
          aria-expanded={showsPast}
          onClick={() => setShowsPast(!showsPast)}
        >
          {showsPast ? t`From today on` : t`${counted(past, 'lesson')} before today`}
        </Button>
      )}
      <ol className="term-lessons" aria-label={t`Lessons of the term`}>
        {shown.map(({ lesson: one, at }) => (
          <LessonRow
            key={sortId(at)}
            at={at}
            lesson={one}
            planning={planning}
            over={one.day < today}
            first={at === past}
            last={at === lessons.length - 1}
            onMove={(by) => onMove(at, at + by)}
            onNotDone={(step) => onNotDone(at, step)}
          />
        ))}
      </ol>
    </Sorting>
  );
}

/** Held on its day, or on which other one. */
function heldText(at: number, { day }: PlannedLesson): string {
  return dayOfMoment(at) === day ? t` held` : t` held on ${format(at, 'EEE d MMM')}`;
}

interface RowProps {
  readonly at: number;
  readonly lesson: PlannedLesson;
  readonly planning: Planning;
  readonly over: boolean;
  readonly first: boolean;
  readonly last: boolean;
  readonly onMove: (by: -1 | 1) => void;
  readonly onNotDone: (step: TermStep) => void;
}

function LessonRow({ at, lesson, planning, over, first, last, onMove, onNotDone }: RowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: sortId(at), disabled: over });
  const style = { transform: CSS.Translate.toString(transform), transition };
  const { schoolClass, voice, lessons, met } = planning;
  const kept = lessons.find((one) => standsIn(one, lesson));
  const title = dayText(lesson);
  return (
    <li ref={setNodeRef} style={style} className={over ? 'over' : undefined} aria-label={title}>
      {over ? (
        <span />
      ) : (
        <button type="button" className="grip" aria-label={t`Drag ${title}`} {...attributes} {...listeners}>
          <GripVertical size={16} aria-hidden />
        </button>
      )}
      <strong>
        {kept ? <Link to={lessonPath(schoolClass.id, kept.id)}>{title}</Link> : title}
        {kept?.held && <small className="term-held">{heldText(kept.held.at, lesson)}</small>}
      </strong>
      <span className="term-steps">
        {lesson.steps.map((one) => {
          const says = stepText(one, voice.naming, !over && met.has(one.element));
          return (
            <span key={says} className={`plan-step plan-step-${one.step}`}>
              {says}
              <button
                type="button"
                className="chip-drop"
                title={t`Not done: it moves to the next lesson`}
                aria-label={t`Not done: ${says}`}
                onClick={() => onNotDone(one)}
              >
                <RotateCw size={14} aria-hidden />
              </button>
            </span>
          );
        })}
        {lesson.again.length > 0 && (
          <span>{t`again: ${listed(lesson.again.map((id) => elementName(id, voice.naming)))}`}</span>
        )}
      </span>
      {!over && (
        <span className="term-arrows">
          <Button size="sm" variant="link" aria-label={t`${title} earlier`} disabled={first} onClick={() => onMove(-1)}>
            <ArrowUp size={16} aria-hidden />
          </Button>
          <Button size="sm" variant="link" aria-label={t`${title} later`} disabled={last} onClick={() => onMove(1)}>
            <ArrowDown size={16} aria-hidden />
          </Button>
        </span>
      )}
    </li>
  );
}
