import { Plus } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link, Navigate, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import './patterns.scss';
import type { SavedPattern } from '../../../contract/pattern.ts';

const HERE = '/patterns';

export default function PatternsPage() {
  const { data, error, mutate } = usePatterns();
  const navigate = useNavigate();
  const add = () => void navigate(`/patterns/${uuid()}`);
  useKeys({ ' ': add, n: add });
  const classes = useClasses().data;
  // Nothing is there yet: the first day begins with a class, children and a few patterns at once.
  // Whoever is on the way to another view already goes there.
  if (data?.length === 0 && classes?.length === 0 && location.pathname === HERE)
    return <Navigate to="/first-day" replace />;
  return (
    <>
      <div className="page-head">
        <h1>Patterns</h1>
        <Button onClick={add}>
          <Plus size={18} aria-hidden /> New pattern <kbd>space</kbd>
        </Button>
      </div>
      {error && !data && <Notice problem={error} again={() => void mutate()} />}
      {data?.length === 0 && (
        <div className="empty">No patterns yet. Write the first one: it takes a line such as “4/4 q q e e q”.</div>
      )}
      <ol className="pattern-list">
        {data?.map((pattern) => (
          <PatternCard key={pattern.id} pattern={pattern} />
        ))}
      </ol>
    </>
  );
}

function PatternCard({ pattern: { id, title, text } }: { pattern: SavedPattern }) {
  const parsed = parseRhythm(text);
  return (
    <li>
      <Link to={`/patterns/${id}`} className="pattern-card">
        <strong>{title}</strong>
        {parsed.ok && <MiniNotes pattern={parsed.pattern} />}
        <span className="pattern-text">{text}</span>
      </Link>
    </li>
  );
}
