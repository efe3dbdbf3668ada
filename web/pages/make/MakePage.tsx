import { perLanguage, t } from '../../../core/words/say.ts';
import { useEffect, useState } from 'react';
import { NavLink, Navigate, useParams, useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { usePatterns } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { EveryFillView } from './EveryFillView.tsx';
import { NewOnesView } from './NewOnesView.tsx';
import { SETTINGS, focusIn } from './makeSettings.ts';
import '../../asking/lesson.scss';
import './make.scss';

const PARTS = perLanguage(
  () =>
    [
      { id: 'new', title: t`New ones`, View: NewOnesView },
      { id: 'all', title: t`All of them`, View: EveryFillView },
    ] as const,
);

/** The next rhythm: made to order, or every one there is. */
export default function MakePage() {
  const { part = 'new' } = useParams();
  const { data, error, mutate } = usePatterns();
  const [search, setSearch] = useSearchParams();
  const asked = search.get('focus');
  useEffect(() => {
    if (asked === null) return;
    // What it is to be made for came with the address; from here on it can be changed.
    if (focusIn(asked)) SETTINGS.write({ ...SETTINGS.read(), focus: asked });
    setSearch({}, { replace: true });
  }, [asked, setSearch]);
  const chosen = PARTS().find(({ id }) => id === part);
  if (!chosen) return <Navigate to="/make" replace />;
  if (!data) return <Loading title={t`Make`} problem={error} again={() => void mutate()} />;
  return <Parts patterns={data} {...chosen} />;
}

function Parts({
  id: current,
  View,
  patterns,
}: ReturnType<typeof PARTS>[number] & { patterns: readonly SavedPattern[] }) {
  const schoolClass = useCurrentClass();
  // Where the main button of the part stands.
  const [actions, setActions] = useState<HTMLElement | null>(null);
  return (
    <div className="lesson">
      <div className="page-head">
        <h1 className="visually-hidden">{t`Make`}</h1>
        <nav className="parts" aria-label={t`Ways to make patterns`}>
          {PARTS().map(({ id, title }) => (
            <NavLink key={id} to={`/make/${id}`} className={id === current ? 'active' : ''}>
              {title}
            </NavLink>
          ))}
        </nav>
        <div className="make-main" ref={setActions} />
      </div>
      {actions && (
        <View actions={actions} patterns={patterns} schoolClass={schoolClass} naming={namingOf(schoolClass)} />
      )}
    </div>
  );
}
