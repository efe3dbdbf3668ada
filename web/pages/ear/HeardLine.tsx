import type { HearMoment } from '../../audio/useHear.ts';

const ORDINALS = ['once', 'twice', 'three times'] as const;

function textOf({ state, word, play }: HearMoment, quiet: string): string {
  if (state === 'count-in') return word ?? '…';
  if (state === 'listen')
    return play && play > 1 ? `Listen, for the ${play === 2 ? 'second' : 'third'} time` : 'Listen';
  return state === 'turn' ? 'Your turn' : quiet;
}

/** The one line everybody looks at: what is heard now, or what is asked. */
export function HeardLine({ moment, quiet }: { moment: HearMoment; quiet: string }) {
  return (
    <p className={`big-line heard-${moment.state}`} role="status">
      {textOf(moment, quiet)}
    </p>
  );
}

export const timesText = (plays: number): string => ORDINALS[plays - 1] ?? `${plays} times`;
