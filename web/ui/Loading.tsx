import { t } from '../../core/words/say.ts';
import { useEffect, useState } from 'react';
import { Notice } from './Notice.tsx';
import './loading.scss';

/** What is there sooner is shown at once: a frame that comes and goes is only restless. */
const SOON_MS = 300;

interface LoadingProps {
  /** What the view is called; left out where that stands above already. */
  readonly title?: string;
  /** Why it does not come. */
  readonly problem?: Error | undefined;
  readonly again?: (() => void) | undefined;
}

/** A view whose data are not there yet: its name and its frame, or what went wrong. */
export function Loading({ title, problem, again }: LoadingProps) {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), SOON_MS);
    return () => clearTimeout(timer);
  }, []);
  if (problem) return again ? <Notice problem={problem} again={again} /> : <Notice problem={problem} />;
  if (!late) return null;
  return (
    <div>
      {title && <h1>{title}</h1>}
      <p role="status">{t`Loading …`}</p>
      <div className="loading-frame" aria-hidden />
    </div>
  );
}
