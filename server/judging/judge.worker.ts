import { judgeTake } from '../../core/judging/judgeTake.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { MOST_COMPARED } from '../../core/timing/limits.ts';
import { takeTroubleText } from '../../core/wording/troubles.ts';
import { namingOf } from '../../core/wording/voice.ts';
import { judgedColumns } from './judgedColumns.ts';
import type { JudgingClass, PlayedInClass, Tried } from './judges.ts';

/** Judges takes one after the other, each as its class has it. Runs in a thread of its own. */
export default function judgeAll(takes: readonly PlayedInClass[]): Tried[] {
  return takes.map(({ played, settings }) => tried(settings, played));
}

function tried(settings: JudgingClass, played: PlayedInClass['played']): Tried {
  const judged = judgeTake(played, settings, parseRhythm, MOST_COMPARED);
  if (!judged.ok) return { trouble: takeTroubleText(judged.trouble, namingOf(settings)) };
  return judgedColumns(judged, settings.ages);
}
