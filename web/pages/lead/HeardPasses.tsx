import { inLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { format } from '../../words/dates.ts';
import { printScore } from '../../../core/rhythm/scoreText.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import { classTogetherSentence, onceMoreText, toMend } from '../../../core/wording/classTogetherWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { useHearings } from '../../api/hearings.ts';
import { WidthBar } from '../../leading/WidthBar.tsx';
import { Notice } from '../../ui/Notice.tsx';
import type { ClassHearing } from './useClassHearing.ts';

const milliseconds = (ms: number) => t`${Math.round(ms)} ms`;

interface HeardPassesProps {
  readonly hearing: ClassHearing;
  readonly score: Score;
  readonly voice: Voice;
  readonly classId: string | undefined;
  readonly onOnceMore: (() => void) | undefined;
}

/** What is said to a class after a pass, and how together it was, pass by pass and last time. */
export function HeardPasses({ hearing, score, voice: { naming, language }, classId, onOnceMore }: HeardPassesProps) {
  const { data } = useHearings(hearing.on ? classId : undefined);
  if (hearing.problem) return <Notice problem={hearing.problem} />;
  if (!hearing.on) return null;
  const last = hearing.passes.at(-1);
  if (!last)
    return (
      <p className="lead-heard" role="status">
        {t`The class is heard. The app’s own claps are silent meanwhile; its clicks are told apart.`}
      </p>
    );
  const mend = toMend(last.heard);
  const text = printScore(score);
  const own = new Set(hearing.passes.map(({ id }) => id));
  const before = data?.find((one) => one.patternText === text && !own.has(one.id) && one.heard.widthMs !== undefined);
  return (
    <div className="lead-heard" role="status">
      <p className="lead-heard-said">{inLanguage(language, () => classTogetherSentence(last.heard, naming))}</p>
      <p className="lead-heard-more">
        {mend && onOnceMore && (
          <button type="button" className="btn btn-outline-dark btn-sm" onClick={onOnceMore}>
            {onceMoreText(mend, naming)} <kbd>M</kbd>
          </button>
        )}
        <Widths hearing={hearing} />
        {before?.heard.widthMs !== undefined && (
          <span>
            {format(before.takenAt, 'd MMM')}: {milliseconds(before.heard.widthMs)}
          </span>
        )}
      </p>
    </div>
  );
}

/** A bar a pass, the narrower the better. */
function Widths({ hearing: { passes } }: { hearing: ClassHearing }) {
  const known = passes.flatMap(({ id, heard: { widthMs } }) => (widthMs === undefined ? [] : [{ id, widthMs }]));
  if (known.length === 0) return null;
  return (
    <span className="heard-widths">
      {rich`${(
        <span aria-hidden className="heard-bars">
          {known.map(({ id, widthMs }) => (
            <WidthBar key={id} widthMs={widthMs} />
          ))}
        </span>
      )}Width of a clap: ${known.map(({ widthMs }) => milliseconds(widthMs)).join(', ')}`}
    </span>
  );
}
