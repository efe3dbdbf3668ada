import { perLanguage, t } from '../../core/words/say.ts';
import type { FallbackProps } from 'react-error-boundary';
import { Notice } from '../ui/Notice.tsx';

/** What a browser says when a part of the page is not there (any more): it was renewed, or the network is away. */
const NOT_LOADED = /dynamically imported module|module script|Importing a module|preload/i;

const PART_MISSING = perLanguage(
  () => t`A part of this page could not be loaded: the network is away, or Clapboard was renewed
    while the page was open. Nothing is lost: load the page again.`,
);
const BROKEN = perLanguage(
  () => t`Something went wrong in this view. What you did is kept; load the page again, or go to
  another view.`,
);

/** Instead of a view that cannot be shown. */
export function Broken({ error }: FallbackProps) {
  const missing = NOT_LOADED.test(error instanceof Error ? error.message : '');
  return (
    <Notice
      problem={{ message: missing ? PART_MISSING() : BROKEN() }}
      again={() => location.reload()}
      verb={t`Load again`}
    />
  );
}
