import { t } from '../../core/words/say.ts';
import { Suspense, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { lazyAgain } from '../ui/lazyAgain.ts';
import type { OtherWaysProps } from './OtherWayList.tsx';
import './otherWays.scss';

/** Loaded when it is asked for: most patterns are looked at without. */
const OtherWayList = lazyAgain(() => import('./OtherWayList.tsx'));

/** "Another way to write it": patterns that sound the same when clapped; folded until asked for. */
export function OtherWays(props: OtherWaysProps) {
  const [open, setOpen] = useState(false);
  return (
    <section className="other-ways no-print">
      <Button variant="outline-dark" aria-expanded={open} onClick={() => setOpen(!open)}>
        {t`Another way to write it`}
      </Button>
      {open && (
        <Suspense fallback={null}>
          <OtherWayList {...props} />
        </Suspense>
      )}
    </section>
  );
}
