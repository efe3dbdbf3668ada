import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { createPortal } from 'react-dom';
import { Link, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { LessonEdit, SavedLesson } from '../../../contract/lesson.ts';
import type { PatternEdit } from '../../../contract/pattern.ts';
import { LESSON_TEMPLATES, type LessonTemplate } from '../../../core/planning/lesson.ts';
import { standsIn } from '../../../core/planning/slots.ts';
import type { PlannedLesson } from '../../../core/planning/term.ts';
import { TEMPLATE_WORDS, elementName, leftText, stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { put } from '../../api/client.ts';
import { usePatterns } from '../../api/hooks.ts';
import { timesOf } from '../../lesson/blocks.ts';
import { lessonPath } from '../../lesson/lessonPath.ts';
import { Notice } from '../../ui/Notice.tsx';
import { mayHear } from '../../domain/currentClass.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { useSave } from '../../api/useSave.ts';
import { lessonOf } from './lessonDraft.ts';
import { preparedDay } from './prepareDay.ts';
import { planned } from './termDraft.ts';
import { type PlanViewProps, type Planning, dayOfMoment } from './usePlanning.ts';

/** So many days of the term are shown ahead. */
const AHEAD = 3;

/** The days of the term that are next, each with its lesson where there is one. */
function useComing({ term, lessons, met }: Planning) {
  const [today] = useState(() => dayOfMoment(Date.now()));
  return useMemo(() => {
    if (!term) return [];
    const all = planned(term, met).lessons;
    const first = all.findIndex(({ day }) => day >= today);
    if (first < 0) return [];
    return all.slice(first, first + AHEAD).map((slot, i) => ({
      slot,
      lesson: lessons.find((one) => standsIn(one, slot)),
      before: all.slice(0, first + i).flatMap(({ steps }) => steps.map(({ element }) => element)),
    }));
  }, [term, lessons, met, today]);
}

/** Stores a new lesson, with the patterns that were made for it, and opens it. */
function useNewLesson(classId: string) {
  const navigate = useNavigate();
  const saving = useSave(
    async ({
      id,
      lesson,
      made,
    }: {
      id: string;
      lesson: LessonEdit;
      made: readonly (readonly [string, PatternEdit])[];
    }) => {
      for (const [patternId, edit] of made) await put(`/patterns/${patternId}`, edit);
      await put(`/classes/${classId}/lessons/${id}`, lesson);
    },
    '/patterns',
    `/classes/${classId}`,
  );
  const make = async (lesson: LessonEdit, made: readonly (readonly [string, PatternEdit])[] = []) => {
    const id = uuid();
    if (await saving.save({ id, lesson, made })) await navigate(lessonPath(classId, id));
  };
  return { make, saving: saving.saving, problem: saving.problem };
}

type Coming = ReturnType<typeof useComing>[number];

/** Prepares the lesson of a day, and says what the main button does. */
function usePrepared(planning: Planning, coming: readonly Coming[]) {
  const { schoolClass, voice, met } = planning;
  const patterns = usePatterns();
  const navigate = useNavigate();
  const { make, saving, problem } = useNewLesson(schoolClass.id);
  const mayPlan = mayHear(schoolClass);
  const prepare = ({ slot, before }: Coming) => {
    if (!patterns.data) return;
    const known = [...new Set([...met.keys(), ...before])];
    const { lesson, made } = preparedDay(slot, known, patterns.data, voice.naming, t`${schoolClass.name}, lessons`);
    void make(lesson, made);
  };
  const next = coming.find(({ lesson }) => !lesson?.held);
  const goOn = () => {
    if (next?.lesson) void navigate(lessonPath(schoolClass.id, next.lesson.id));
    else if (next && mayPlan) prepare(next);
    else if (mayPlan) void make(lessonOf('something-new', TEMPLATE_WORDS()['something-new'].title));
  };
  const says = next?.lesson ? t`Open the next lesson` : next ? t`Prepare the next lesson` : t`New lesson`;
  const main = mayPlan || next?.lesson ? says : undefined;
  return { main, goOn, prepare, make, mayPlan, problem, busy: saving || !patterns.data };
}

/** Lessons: those of the next days, those without a day, and those that were held. */
export function LessonsView({ planning, actions }: PlanViewProps) {
  const { schoolClass, lessons, term } = planning;
  const coming = useComing(planning);
  const { main, goOn, prepare, make, mayPlan, problem, busy } = usePrepared(planning, coming);
  useKeys({ ' ': goOn });
  const shownAbove = new Set(coming.map(({ lesson }) => lesson?.id));
  return (
    <>
      {main !== undefined &&
        createPortal(
          <Button size="lg" disabled={busy} onClick={goOn}>
            {main} <kbd>{t`space`}</kbd>
          </Button>,
          actions,
        )}
      {problem && <Notice problem={problem} />}
      {coming.length > 0 && (
        <ul className="plan-days" aria-label={t`Next days`}>
          {coming.map((day) => (
            <li key={`${day.slot.day} ${day.slot.starts}`} className="card-paper plan-day">
              <DayHead {...day.slot} />
              <DayContents {...day.slot} planning={planning} />
              {day.lesson && <LessonLink lesson={day.lesson} planning={planning} />}
              {!day.lesson && mayPlan && (
                <Button variant="outline-dark" disabled={busy} onClick={() => prepare(day)}>{t`Prepare it`}</Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {!term && mayPlan && (
        <div className="plan-hint">{rich`Say when ${schoolClass.name} has lessons and what is new this term, and each
            lesson is prepared from it:
            ${<Link to="/plan/term">{t`plan the term`}</Link>}.`}</div>
      )}
      {mayPlan && <Templates disabled={busy} onMake={(lesson) => void make(lesson)} />}
      <Listed lessons={lessons.filter(({ id }) => !shownAbove.has(id))} planning={planning} />
    </>
  );
}

function DayHead({ day, starts, minutes }: PlannedLesson) {
  return (
    <h2>
      {format(parseISO(day), 'EEEE d MMMM')} <small>{t`${starts}, ${minutes} min`}</small>
    </h2>
  );
}

function DayContents({ steps, again, planning }: PlannedLesson & { planning: Planning }) {
  const { naming } = planning.voice;
  return (
    <p>
      {steps.length === 0 && again.length === 0 && t`Nothing new: practise.`}
      {steps.map((one) => (
        <span key={stepText(one, naming)} className={`plan-step plan-step-${one.step}`}>
          {stepText(one, naming, planning.met.has(one.element))}
        </span>
      ))}
      {again.length > 0 && t`again: ${listed(again.map((id) => elementName(id, naming)))}`}
    </p>
  );
}

function LessonLink({ lesson, planning: { schoolClass, voice } }: { lesson: SavedLesson; planning: Planning }) {
  const { id, title, minutes, blocks, held, day } = lesson;
  const times = useMemo(
    () => timesOf(blocks, schoolClass.children.length, voice.counts),
    [blocks, schoolClass.children.length, voice],
  );
  const left = minutes * 60 - times.reduce((all, { seconds }) => all + seconds, 0);
  return (
    <Link className="plan-lesson" to={lessonPath(schoolClass.id, id)}>
      <strong>{title}</strong>
      <span>
        {day && `${format(parseISO(day), 'd MMM')} · `}
        {t`${blocks.length} blocks, ${minutes} min: ${leftText(left)}`}
        {held && t` · held on ${format(held.at, 'd MMM')}`}
        {held && held.leftOut.length > 0 && t`, ${held.leftOut.length} left out`}
      </span>
    </Link>
  );
}

function Templates({ disabled, onMake }: { disabled: boolean; onMake: (lesson: LessonEdit) => void }) {
  return (
    <section aria-label={t`New lesson`}>
      <h2>{t`A lesson from the start`}</h2>
      <ul className="plan-templates">
        {(Object.keys(LESSON_TEMPLATES) as LessonTemplate[]).map((template) => {
          const { title, about } = TEMPLATE_WORDS()[template];
          return (
            <li key={template}>
              <button type="button" disabled={disabled} onClick={() => onMake(lessonOf(template, title))}>
                <strong>{title}</strong>
                <span>{about}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Listed({ lessons, planning }: { lessons: readonly SavedLesson[]; planning: Planning }) {
  const groups = [
    [t`Ready`, lessons.filter(({ held }) => !held)],
    [t`Held`, lessons.filter(({ held }) => held)],
  ] as const;
  return groups.map(
    ([name, some]) =>
      some.length > 0 && (
        <section key={name} aria-label={name}>
          <h2>{name}</h2>
          <ul className="plan-lessons">
            {some.map((lesson) => (
              <li key={lesson.id}>
                <LessonLink lesson={lesson} planning={planning} />
              </li>
            ))}
          </ul>
        </section>
      ),
  );
}
