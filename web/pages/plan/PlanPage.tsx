import { perLanguage, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import { Link, NavLink, Navigate, useParams } from 'react-router';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { useClasses } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Select } from '../../ui/Select.tsx';
import { classOptions, useChooseClass, useCurrentClass } from '../../domain/currentClass.ts';
import { LessonsView } from './LessonsView.tsx';
import { TermView } from './TermView.tsx';
import { usePlanning } from './usePlanning.ts';
import '../../asking/lesson.scss';
import './plan.scss';

const PARTS = perLanguage(
  () =>
    [
      { id: 'lessons', title: t`Lessons`, View: LessonsView },
      { id: 'term', title: t`Term`, View: TermView },
    ] as const,
);

/** The next lesson, and the term it stands in, of the class this device works with. */
export default function PlanPage({ teacher }: { readonly teacher: Teacher }) {
  const { part = 'lessons' } = useParams();
  const classes = useClasses();
  const current = useCurrentClass();
  const chosen = PARTS().find(({ id }) => id === part);
  if (!chosen) return <Navigate to="/plan" replace />;
  if (classes.data?.length === 0)
    return (
      <div className="empty">
        <p>{t`For a plan there must first be a class.`}</p>
        <Link className="btn btn-primary" to="/classes">{t`Add it`}</Link>
      </div>
    );
  if (!classes.data || !current) return <Loading title={t`Plan`} problem={classes.error} />;
  return <Parts key={current.id} {...chosen} classes={classes.data} current={current} teacherId={teacher.id} />;
}

interface PartsProps {
  readonly classes: readonly ClassSummary[];
  readonly current: ClassSummary;
  readonly teacherId: string;
}

function Parts({ id: shown, View, classes, current, teacherId }: ReturnType<typeof PARTS>[number] & PartsProps) {
  const { planning, problem, again } = usePlanning(current.id);
  const choose = useChooseClass();
  const [actions, setActions] = useState<HTMLElement | null>(null);
  return (
    <div className="lesson">
      <div className="page-head">
        <h1 className="visually-hidden">{t`Plan`}</h1>
        <nav className="parts" aria-label={t`Parts of planning`}>
          {PARTS().map(({ id, title }) => (
            <NavLink key={id} to={`/plan/${id}`} className={id === shown ? 'active' : ''}>
              {title}
            </NavLink>
          ))}
        </nav>
        <Select
          size="sm"
          className="w-auto"
          label={t`Class`}
          value={current.id}
          options={classOptions(classes)}
          onChoose={choose}
        />
        <span className="flex-grow-1" />
        <div ref={setActions} className="plan-actions" />
      </div>
      {!planning && <Loading problem={problem} again={again} />}
      {planning && actions && <View planning={planning} teacherId={teacherId} actions={actions} />}
    </div>
  );
}
