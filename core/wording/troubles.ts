import { perLanguage, t } from '../words/say.ts';
import type { TakeTrouble } from '../judging/takeTrouble.ts';
import type { BarReport } from '../rhythm/barCheck.ts';
import { type Fraction, abs, sub } from '../rhythm/fraction.ts';
import type { Disagreement } from '../rhythm/score.ts';
import { errorSentence } from '../rhythm/text.ts';
import { FASTEST_BPM, MOST_ONSETS, SLOWEST_BPM } from '../timing/limits.ts';
import { beatsText } from './plurals.ts';
import { type NamingId, measureName } from './valueNames.ts';

/** "measure 3 is 1/2 beat short"; undefined for a legal measure. */
export function barTroubleText({ number, total, expected, verdict }: BarReport, naming: NamingId): string | undefined {
  if (verdict !== 'short' && verdict !== 'over') return undefined;
  const off = sub(total, expected);
  const size = abs(off);
  const name = number === 0 ? t`the pickup ${measureName(naming)}` : `${measureName(naming)} ${number}`;
  return verdict === 'short' ? t`${name} is ${beatsText(size)} short` : t`${name} is ${beatsText(size)} too long`;
}

/** "measure 2 of [stamp] has 3 beats, measure 2 of [clap] has 4 beats" */
export function disagreementText({ number, parts: [one, other], lengths: [first, second] }: Disagreement): string {
  const said = (name: string, length: Fraction) => t`measure ${number} of [${name}] has ${beatsText(length)}`;
  return `${said(other, second)}, ${said(one, first)}`;
}

const TAKE_TROUBLES = perLanguage(
  () =>
    ({
      tempo: t`the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute`,
      'too-much': t`so long a pattern with so many claps is too much at once; take fewer measures`,
      start: t`the start must be a number of seconds`,
      onsets: t`every onset must be a number of seconds`,
      'onset-order': t`the onsets must be sorted, earliest first`,
      steps: t`the steps must be sorted numbers of seconds`,
      releases: t`every onset needs its release, not before it (null where it is not known)`,
    }) as const,
);

/** Why a take cannot be judged, in one sentence without its full stop. */
export function takeTroubleText(trouble: TakeTrouble, naming: NamingId): string {
  switch (trouble.code) {
    case 'unreadable':
      return t`the pattern cannot be read: ${errorSentence(trouble.at)}`;
    case 'measure':
      return t`the pattern does not add up: ${barTroubleText(trouble.report, naming)}`;
    case 'too-many-onsets':
      return t`a take has at most ${MOST_ONSETS} onsets; this one has ${trouble.count}`;
    default:
      return TAKE_TROUBLES()[trouble.code];
  }
}
