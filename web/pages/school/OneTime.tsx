import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { t } from '../../../core/words/say.ts';

interface OneTimeProps {
  readonly code: string;
  /** What to do with it. */
  readonly children: ReactNode;
  readonly onDone: () => void;
}

/** A code that is shown only now, until it was handed over. */
export function OneTime({ code, children, onDone }: OneTimeProps) {
  return (
    <section className="one-time" role="status">
      <p>{children}</p>
      <output>{code}</output>
      <Button variant="outline-dark" onClick={onDone}>{t`Done`}</Button>
    </section>
  );
}
