import { counted, t } from '../../../core/words/say.ts';
import { useMemo } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';

interface CardProps {
  readonly saved: SavedPattern;
  /** What it sounds like, where that is known and another one does. */
  readonly soundsLike?: string | undefined;
  /** Undefined while nothing is chosen. */
  readonly chosen?: boolean;
  readonly onChoose?: () => void;
}

/** A pattern of the list: the way to its page. */
export function PatternCard({ saved, soundsLike, chosen, onChoose }: CardProps) {
  const { id, title, text, folder } = saved;
  // While words are typed the list is drawn at every letter: the notes are laid out anew only for another text.
  const parsed = useMemo(() => parseScore(text), [text]);
  return (
    <li className={chosen === undefined ? '' : 'pattern-choice'}>
      {chosen !== undefined && (
        <Form.Check type="checkbox" aria-label={t`Take out ${title}`} checked={chosen} onChange={onChoose} />
      )}
      <Link to={`/patterns/${id}`} className="pattern-card">
        <strong>{title}</strong>
        {parsed.ok && <MiniNotes pattern={parsed.score.parts[0]!.pattern} parts={parsed.score.parts} />}
        <span className="pattern-text">{text}</span>
        {folder !== undefined && <span className="pattern-folder">{folder}</span>}
        {soundsLike !== undefined && <span className="pattern-like">{t`Sounds like “${soundsLike}”`}</span>}
      </Link>
    </li>
  );
}

/** How many there are of what is looked for. */
export function Found({ count }: { count: number }) {
  return <p role="status">{count === 0 ? t`None like this.` : counted(count, 'pattern')}</p>;
}
