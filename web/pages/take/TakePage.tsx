import { t } from '../../../core/words/say.ts';
import { useEffect } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Teacher } from '../../../contract/session.ts';
import { useClass, useClasses } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { mayHear, useHearingClass } from '../../domain/currentClass.ts';
import { useStored } from '../../store/stored.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { TakeSession } from './TakeSession.tsx';

/** One child after the other: choose, count in, tap, see, next. */
export default function TakePage({ teacher }: { teacher: Teacher }) {
  const [search] = useSearchParams();
  const [storedPattern, setStoredPattern] = useStored('take.pattern', '');
  const classes = useClasses();
  const room = useHearingClass();
  const patterns = useOfferedPatterns(undefined, room);
  const classId = room?.id;
  const current = useClass(classId);
  const wanted = search.get('pattern') ?? storedPattern;
  const pattern = patterns.data?.find(({ id }) => id === wanted) ?? patterns.data?.[0];
  useEffect(() => {
    if (pattern) setStoredPattern(pattern.id);
  }, [pattern, setStoredPattern]);
  const problem = classes.error ?? patterns.error ?? current.error;
  if (problem && !(current.data && patterns.data)) return <Notice problem={problem} />;
  if (!classes.data || !patterns.data) return <Loading title={t`Take`} />;
  if (!classId)
    return (
      <Empty text={t`First make a class with the names of the children.`} to="/classes" name={t`To the classes`} />
    );
  if (!pattern) return <Empty text={t`First write a rhythm to clap.`} to="/patterns" name={t`To the patterns`} />;
  if (!current.data) return <Loading title={t`Take`} />;
  if (current.data.children.length === 0) {
    const text = t`This class has no children yet. Add their first names or codes.`;
    return <Empty text={text} to={`/classes/${classId}`} name={t`To the class`} />;
  }
  return (
    <TakeSession
      key={classId}
      teacher={teacher}
      schoolClass={current.data}
      classes={classes.data.filter(mayHear)}
      patterns={patterns.data}
      pattern={pattern}
    />
  );
}

function Empty({ text, to, name }: { text: string; to: string; name: string }) {
  return (
    <div className="empty">
      <p>{text}</p>
      <Link className="btn btn-primary" to={to}>
        {name}
      </Link>
    </div>
  );
}
