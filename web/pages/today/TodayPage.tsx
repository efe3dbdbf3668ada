import { t } from '../../../core/words/say.ts';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Navigate } from 'react-router';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { stepsOfWeek, todayOf } from '../../../core/planning/today.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { ClassButton } from './ClassButton.tsx';
import { LeftOver } from './LeftOver.tsx';
import { NextLesson } from './NextLesson.tsx';
import { type ClassFacts, useClassFacts, useDayAndMinute } from './useDay.ts';
import './today.scss';

/** Where a visit begins: the lesson that is on or next, every class at one press, and what was left over. */
export default function TodayPage({ teacher }: { readonly teacher: Teacher }) {
  const classes = useClasses();
  const patterns = usePatterns();
  const [facts, setFacts] = useState<ReadonlyMap<string, ClassFacts>>(new Map());
  const found = useCallback((id: string, one: ClassFacts) => setFacts((before) => new Map([...before, [id, one]])), []);
  // Nothing is there yet: the first day begins with a class, children and a few patterns at once.
  if (patterns.data?.length === 0 && classes.data?.length === 0) return <Navigate to="/first-day" replace />;
  if (!classes.data) return <Loading title={t`Today`} problem={classes.error} again={() => void classes.mutate()} />;
  if (classes.data.length === 0) return <NoClass />;
  const isThere = classes.data.every(({ id }) => facts.has(id));
  return (
    <>
      {classes.data.map(({ id }) => (
        <Asking key={id} classId={id} onFound={found} />
      ))}
      {isThere ? <Day teacher={teacher} classes={classes.data} facts={facts} /> : <Loading title={t`Today`} />}
    </>
  );
}

interface AskingProps {
  readonly classId: string;
  readonly onFound: (id: string, facts: ClassFacts) => void;
}

/** Asks for what is known of one class: how many there are is not known before. */
function Asking({ classId, onFound }: AskingProps) {
  const facts = useClassFacts(classId);
  useEffect(() => {
    if (facts) onFound(classId, facts);
  }, [classId, facts, onFound]);
  return null;
}

function NoClass() {
  return (
    <div className="empty">
      <h1 className="visually-hidden">{t`Today`}</h1>
      <p>{t`With a class and the names of its children, each day begins here.`}</p>
      <Link className="btn btn-primary" to="/first-day">{t`Set up a class`}</Link>
    </div>
  );
}

interface DayProps {
  readonly teacher: Teacher;
  readonly classes: readonly ClassSummary[];
  readonly facts: ReadonlyMap<string, ClassFacts>;
}

function Day({ teacher, classes, facts }: DayProps) {
  const { day, now } = useDayAndMinute();
  const { lessons, next } = useMemo(() => {
    const known = classes.map(({ id }) => {
      const { term, lessons: kept } = facts.get(id)!;
      return { classId: id, term, lessons: kept };
    });
    return todayOf(known, day, now);
  }, [classes, facts, day, now]);
  const due = (id: string) => lessons.filter(({ classId }) => classId === id);
  // In the order of the day; the others follow as they are listed.
  const order = [...new Set([...lessons.map(({ classId }) => classId), ...classes.map(({ id }) => id)])];
  const partly = [...facts.values()].some((one) => one.partly);
  return (
    <div className="today">
      <h1>{format(parseISO(day), 'EEEE d MMMM')}</h1>
      <NextLesson teacherId={teacher.id} next={next} classes={classes} day={day} now={now} />
      <section aria-labelledby="today-classes">
        <h2 id="today-classes">{classes.length === 1 ? t`Class` : t`Classes`}</h2>
        <ul className="today-classes">
          {order.map((id) => (
            <ClassButton
              key={id}
              room={classes.find((one) => one.id === id)!}
              lessons={due(id)}
              steps={stepsOfWeek(facts.get(id)!, day)}
              isNext={next?.classId === id}
            />
          ))}
        </ul>
      </section>
      <LeftOver teacherId={teacher.id} classes={classes} facts={facts} />
      {partly && <p role="status">{t`Some of it is not on this device and could not be asked for just now.`}</p>}
    </div>
  );
}
