import { counted, t } from '../words/say.ts';
import type { PartTrouble } from '../making/partsOf.ts';
import { MOST_PARTS, type PartReport } from '../rhythm/score.ts';
import { barTroubleText } from './troubles.ts';
import type { NamingId } from './valueNames.ts';

/** Which measure of which part does not add up: "stamp: measure 2 has …"; undefined where it does. */
export function partBarTrouble(report: PartReport, naming: NamingId): string | undefined {
  const trouble = barTroubleText(report, naming);
  return trouble === undefined || report.part === '' ? trouble : `${report.part}: ${trouble}`;
}

/** Why something cannot be a part, and what to do; one sentence without its full stop. */
export function partTroubleText(trouble: PartTrouble): string {
  switch (trouble.code) {
    case 'too-many':
      return t`a pattern has at most ${MOST_PARTS} parts: take one away first`;
    case 'name':
      return trouble.name.trim() === ''
        ? t`a part needs a name`
        : t`there is a part “${trouble.name}” already: give this one another name`;
    case 'measures':
      return t`${counted(trouble.of[0], 'measure')} do not go into
          ${counted(trouble.of[1], 'measure')}: make them as many`;
    case 'pickup':
      return t`the pickups are not alike: both need the same one, or none`;
    case 'frame':
      return t`measure ${trouble.measure} has another meter or repeat than the other part: make both alike`;
    case 'not-made':
      return t`a part is made for a rhythm of one meter without a pickup: write it by hand`;
    case 'meters':
      return t`so many beats later, bar lines would cut its groups or meters: take whole
          measures, and one meter throughout`;
  }
}
