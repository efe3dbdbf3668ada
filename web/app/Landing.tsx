import { useEffect } from 'react';
import { Navigate } from 'react-router';
import { useClasses } from '../api/hooks.ts';
import { useChooseClass } from '../domain/currentClass.ts';
import { useStored } from '../store/stored.ts';
import { HOME } from './routes.ts';

/** Where a visit begins: with the day, but the first time after a colleague shared a class with that class. */
export default function Landing({ teacherId }: { teacherId: string }) {
  const { data, error } = useClasses();
  const [seen, setSeen] = useStored(`shared.${teacherId}`, '');
  const choose = useChooseClass();
  const shared = (data ?? []).filter(({ role }) => role !== 'owner').map(({ id }) => id);
  const unseen = shared.find((id) => !seen.includes(id));
  useEffect(() => {
    if (unseen === undefined) return;
    choose(unseen);
    return () => setSeen(shared.join(' '));
    // What is shared is told by the first that was not seen.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [unseen]);
  if (!data && !error) return null;
  return <Navigate to={unseen === undefined ? HOME : `/classes/${unseen}`} replace />;
}
