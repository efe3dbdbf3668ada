import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { useKeys } from '../ui/useKeys.ts';
import { useHeld } from './useHeld.ts';

interface NothingHeardProps {
  readonly onAgain: () => void;
  /** Only where somebody can be away. */
  readonly onAbsent?: (() => void) | undefined;
  readonly onZero: () => void;
}

/** A take in which nothing was heard: nothing is written down before somebody says what it was. */
export function NothingHeard({ onAgain, onAbsent, onZero }: NothingHeardProps) {
  const held = useHeld();
  useKeys({ ' ': held(onAgain), '0': held(onZero), ...(onAbsent ? { x: held(onAbsent) } : {}) });
  return (
    <section className="nothing-heard" aria-label={t`Nothing was heard`}>
      <h2 role="status">{t`Nothing was heard.`}</h2>
      <p>{t`Nothing is written down before you say what it was.`}</p>
      <div className="stage-actions">
        <Button size="lg" onClick={onAgain}>
          {rich`Again ${<kbd>{t`space`}</kbd>}`}
        </Button>
        {onAbsent && (
          <Button size="lg" variant="outline-dark" onClick={onAbsent}>
            {rich`Absent ${<kbd>X</kbd>}`}
          </Button>
        )}
        <Button size="lg" variant="outline-dark" onClick={onZero}>
          {rich`Mark 0 ${<kbd>0</kbd>}`}
        </Button>
      </div>
    </section>
  );
}
