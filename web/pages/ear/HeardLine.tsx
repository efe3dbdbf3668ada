import { perLanguage, t } from '../../../core/words/say.ts';
import type { HearMoment } from '../../audio/useHear.ts';

const ORDINALS = perLanguage(() => [t`once`, t`twice`, t`three times`] as const);

function textOf({ state, word, play }: HearMoment, quiet: string): string {
  if (state === 'count-in') return word ?? '…';
  if (state === 'listen') {
    if (!play || play < 2) return t`Listen`;
    return play === 2 ? t`Listen, for the second time` : t`Listen, for the third time`;
  }
  return state === 'turn' ? t`Your turn` : quiet;
}

/** The one line everybody looks at: what is heard now, or what is asked. */
export function HeardLine({ moment, quiet }: { moment: HearMoment; quiet: string }) {
  return (
    <p className={`big-line heard-${moment.state}`} role="status">
      {textOf(moment, quiet)}
    </p>
  );
}

export const timesText = (plays: number): string => ORDINALS()[plays - 1] ?? t`${plays} times`;
