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
    <section className="nothing-heard" aria-label="Nothing was heard">
      <h2 role="status">Nothing was heard.</h2>
      <p>Nothing is written down before you say what it was.</p>
      <div className="stage-actions">
        <Button size="lg" onClick={onAgain}>
          Again <kbd>space</kbd>
        </Button>
        {onAbsent && (
          <Button size="lg" variant="outline-dark" onClick={onAbsent}>
            Absent <kbd>X</kbd>
          </Button>
        )}
        <Button size="lg" variant="outline-dark" onClick={onZero}>
          Mark 0 <kbd>0</kbd>
        </Button>
      </div>
    </section>
  );
}
