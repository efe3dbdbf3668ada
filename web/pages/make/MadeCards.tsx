import { t } from '../../../core/words/say.ts';
import { Check, Lock, Play, Square } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { LEVELS, difficultyOf } from '../../../core/making/level.ts';
import { placePattern } from '../../../core/rhythm/place.ts';
import { levelSentence } from '../../../core/wording/makingWords.ts';
import { type NamingId, measureName } from '../../../core/wording/valueNames.ts';
import { toggled } from '../../ui/lists.ts';
import { MadeNotes } from './MadeNotes.tsx';
import type { MadeCard } from './useMade.ts';

interface CardActions {
  readonly onHear: (card: MadeCard) => void;
  readonly onKeep: (card: MadeCard) => void;
  readonly onShift: (card: MadeCard, by: 1 | -1) => void;
  readonly onAlike: (card: MadeCard) => void;
  readonly onAround: (card: MadeCard, locked: ReadonlySet<number>) => void;
}

interface MadeCardsProps extends CardActions {
  readonly cards: readonly MadeCard[];
  readonly kept: ReadonlySet<number>;
  /** The card that is being heard. */
  readonly heard: number | undefined;
  readonly naming: NamingId;
}

/** Made patterns as small notes, each with what can be done with it. */
export function MadeCards({ cards, kept, heard, naming, ...actions }: MadeCardsProps) {
  return (
    <ol className="made-list">
      {cards.map((card, i) => (
        <MadeItem
          key={card.key}
          card={card}
          number={i + 1}
          kept={kept.has(card.key)}
          heard={heard === card.key}
          naming={naming}
          {...actions}
        />
      ))}
    </ol>
  );
}

interface ItemProps extends CardActions {
  readonly card: MadeCard;
  readonly number: number;
  readonly kept: boolean;
  readonly heard: boolean;
  readonly naming: NamingId;
}

function MadeItem({ card, number, kept, heard, naming, onHear, onKeep, onShift, onAlike, onAround }: ItemProps) {
  const [locked, setLocked] = useState<ReadonlySet<number>>(new Set());
  const { level, pattern, text } = card;
  return (
    <li className={`made-card ${kept ? 'made-kept' : ''}`} aria-label={t`Pattern ${number}`}>
      <div className="made-head">
        <Button size="sm" variant="outline-dark" aria-pressed={heard} onClick={() => onHear(card)}>
          {heard ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />} {heard ? t`Stop` : t`Hear`}
        </Button>
        <span className="made-level" title={levelSentence(difficultyOf(pattern))}>
          {t`level ${level}`}
        </span>
        <Button size="sm" variant={kept ? 'outline-dark' : 'primary'} disabled={kept} onClick={() => onKeep(card)}>
          {kept && <Check size={16} aria-hidden />} {kept ? t`Kept` : t`Keep`}
        </Button>
      </div>
      <MadeNotes pattern={pattern} />
      <p className="pattern-text">{text}</p>
      <div className="made-actions">
        <Button size="sm" variant="link" disabled={level === LEVELS[0]} onClick={() => onShift(card, -1)}>
          {t`Easier`}
        </Button>
        <Button size="sm" variant="link" disabled={level === LEVELS.at(-1)} onClick={() => onShift(card, 1)}>
          {t`Harder`}
        </Button>
        <Button size="sm" variant="link" onClick={() => onAlike(card)}>{t`More like this`}</Button>
      </div>
      {pattern.measures.length > 1 && (
        <Locks
          card={card}
          locked={locked}
          naming={naming}
          onLocked={setLocked}
          onAround={() => onAround(card, locked)}
        />
      )}
    </li>
  );
}

interface LocksProps {
  readonly card: MadeCard;
  readonly locked: ReadonlySet<number>;
  readonly naming: NamingId;
  readonly onLocked: (locked: ReadonlySet<number>) => void;
  readonly onAround: () => void;
}

/** Measures that stay when the others are made anew. */
function Locks({ card, locked, naming, onLocked, onAround }: LocksProps) {
  const measures = placePattern(card.pattern);
  const some = locked.size > 0 && locked.size < measures.length;
  return (
    <div className="made-locks" role="group" aria-label={t`${measureName(naming, true)} that stay`}>
      <Lock size={14} aria-hidden />
      {measures.map(({ number }, index) => (
        <Button
          key={number}
          size="sm"
          variant="outline-dark"
          aria-pressed={locked.has(index)}
          aria-label={t`Keep ${measureName(naming)} ${number}`}
          onClick={() => onLocked(toggled(locked, index))}
        >
          {number}
        </Button>
      ))}
      {some && <Button size="sm" variant="link" onClick={onAround}>{t`Make the others anew`}</Button>}
    </div>
  );
}
