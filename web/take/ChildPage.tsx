import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { ArrowRight, Star } from 'lucide-react';
import { type ReactNode, useEffect } from 'react';
import Button from 'react-bootstrap/Button';
import { createPortal } from 'react-dom';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { adviceForChild } from '../../core/wording/advice.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { useKeys } from '../ui/useKeys.ts';
import { PlayBack } from './PlayBack.tsx';
import type { ShownTake } from './shownTake.ts';

interface ChildPageProps {
  readonly take: ShownTake;
  readonly pattern: Pattern;
  readonly voice: Voice;
  /** The measure it is about, or all of it, with what was heard. */
  readonly ruler: ReactNode;
  readonly onClose: () => void;
}

/**
 * A result as a child sees it, over the whole window: what went well, the one thing to do, and the place on the ruler.
 * The keys of the view below still work; nothing of it is seen or reached.
 */
export function ChildPage({ take, pattern, voice, ruler, onClose }: ChildPageProps) {
  const { well, task } = adviceForChild(take.result, pattern, voice);
  useKeys({ Escape: onClose });
  useEffect(() => {
    const under = document.querySelector('.shell');
    under?.setAttribute('inert', '');
    return () => under?.removeAttribute('inert');
  }, []);
  return createPortal(
    <section className="child-page" aria-label={t`For the child`}>
      <div className="child-words" role="status">
        <p className="child-well">
          <Star aria-hidden /> {well}
        </p>
        {task && (
          <p className="child-task">
            <ArrowRight aria-hidden /> {task}
          </p>
        )}
      </div>
      <div className="child-ruler">{ruler}</div>
      <div className="child-tools no-print">
        <PlayBack take={take} pattern={pattern} />
        <Button variant="link" onClick={onClose}>
          {rich`For the teacher ${<kbd>{t`Esc`}</kbd>}`}
        </Button>
      </div>
    </section>,
    document.body,
  );
}
