import { perLanguage, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import { NavLink, Navigate, useParams } from 'react-router';
import { NAMINGS, NAMING_IDS, type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { Select } from '../../ui/Select.tsx';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { useStored } from '../../store/stored.ts';
import { BEAT_VALUES, BeatView } from './BeatView.tsx';
import { FoldView } from './FoldView.tsx';
import { QuestionsView } from './QuestionsView.tsx';
import { StripsView } from './StripsView.tsx';
import { SumsView } from './SumsView.tsx';
import '../../asking/lesson.scss';
import './values.scss';

const PARTS = perLanguage(
  () =>
    [
      { id: 'fold', title: t`Fold`, View: FoldView },
      { id: 'strips', title: t`Strips`, View: StripsView },
      { id: 'sums', title: t`Sums`, View: SumsView },
      { id: 'beat', title: t`What gets the beat`, View: BeatView },
      { id: 'questions', title: t`Questions`, View: QuestionsView },
    ] as const,
);

export default function ValuesPage() {
  const { part = 'fold' } = useParams();
  const currentClass = useCurrentClass();
  const [storedBeat, setBeat] = useStored('values.beat', 'q');
  // Only for this visit: what stays is set with the class.
  const [shownNaming, setNaming] = useState<NamingId>();
  const naming = shownNaming ?? namingOf(currentClass);
  const beat = BEAT_VALUES.find((letter) => letter === storedBeat) ?? 'q';
  const chosen = PARTS().find(({ id }) => id === part);
  if (!chosen) return <Navigate to="/values" replace />;
  return (
    <div className="values lesson">
      <div className="page-head">
        <h1 className="visually-hidden">{t`Values`}</h1>
        <nav className="parts" aria-label={t`Parts of the lesson`}>
          {PARTS().map(({ id, title }) => (
            <NavLink key={id} to={`/values/${id}`} className={id === chosen.id ? 'active' : ''}>
              {title}
            </NavLink>
          ))}
        </nav>
        <span className="flex-grow-1" />
        <Select
          size="sm"
          className="w-auto"
          label={t`What gets the beat`}
          value={beat}
          options={BEAT_VALUES.map(
            (letter) => [letter, t`The ${valueName({ base: letter, dots: 0 }, naming)} gets the beat`] as const,
          )}
          onChoose={setBeat}
        />
        <Select
          size="sm"
          className="w-auto"
          label={t`Names`}
          value={naming}
          options={NAMING_IDS.map((id) => [id, NAMINGS()[id].title] as const)}
          onChoose={setNaming}
        />
      </div>
      <chosen.View naming={naming} beat={beat} />
    </div>
  );
}
