import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { NavLink, Navigate, useParams } from 'react-router';
import { VALUES } from '../../../core/rhythm/value.ts';
import { NAMINGS, NAMING_IDS, type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../api/currentClass.ts';
import { useStored } from '../../ui/stored.ts';
import { BeatView } from './BeatView.tsx';
import { FoldView } from './FoldView.tsx';
import { QuestionsView } from './QuestionsView.tsx';
import { StripsView } from './StripsView.tsx';
import { SumsView } from './SumsView.tsx';
import './values.scss';
const PARTS = [
  { id: 'fold', title: 'Fold', View: FoldView },
  { id: 'strips', title: 'Strips', View: StripsView },
  { id: 'sums', title: 'Sums', View: SumsView },
  { id: 'beat', title: 'What gets the beat', View: BeatView },
  { id: 'questions', title: 'Questions', View: QuestionsView },
] as const;

export default function ValuesPage() {
  const { part = 'fold' } = useParams();
  const room = useCurrentClass();
  const [storedBeat, setBeat] = useStored('values.beat', 'q');
  // Only for this visit: what stays is set with the class.
  const [shownNaming, setNaming] = useState<NamingId>();
  const naming = shownNaming ?? namingOf(room);
  const beat = VALUES.find(({ letter }) => letter === storedBeat)?.letter ?? 'q';
  const chosen = PARTS.find(({ id }) => id === part);
  if (!chosen) return <Navigate to="/values" replace />;
  return (
    <div className="values">
      <div className="page-head">
        <h1 className="visually-hidden">Values</h1>
        <nav className="parts" aria-label="Parts of the lesson">
          {PARTS.map(({ id, title }) => (
            <NavLink key={id} to={`/values/${id}`} className={id === chosen.id ? 'active' : ''}>
              {title}
            </NavLink>
          ))}
        </nav>
        <span className="flex-grow-1" />
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="What gets the beat"
          value={beat}
          onChange={(event) => setBeat(event.target.value)}
        >
          {VALUES.filter(({ letter }) => letter !== 't').map(({ letter }) => (
            <option key={letter} value={letter}>
              The {valueName({ base: letter, dots: 0 }, naming)} gets the beat
            </option>
          ))}
        </Form.Select>
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="Names"
          value={naming}
          onChange={(event) => setNaming(event.target.value as NamingId)}
        >
          {NAMING_IDS.map((id) => (
            <option key={id} value={id}>
              {NAMINGS[id].title}
            </option>
          ))}
        </Form.Select>
      </div>
      <chosen.View naming={naming} beat={beat} />
    </div>
  );
}
