import { Suspense, lazy, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Pattern } from '../../core/rhythm/pattern.ts';

/** Loaded when it is asked for: most patterns are looked at without. */
const OtherWayList = lazy(() => import('./OtherWayList.tsx'));

export interface OtherWaysProps {
  readonly pattern: Pattern;
  /** Takes one of them in place of the pattern, where that can be done. */
  readonly onUse?: (text: string) => void;
}

/** "Another way to write it": patterns that sound the same when clapped; folded until asked for. */
export function OtherWays(props: OtherWaysProps) {
  const [open, setOpen] = useState(false);
  return (
    <section className="other-ways no-print">
      <Button variant="outline-dark" aria-expanded={open} onClick={() => setOpen(!open)}>
        Another way to write it
      </Button>
      {open && (
        <Suspense fallback={null}>
          <OtherWayList {...props} />
        </Suspense>
      )}
    </section>
  );
}
