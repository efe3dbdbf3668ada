import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { ArrowRight, Star } from 'lucide-react';
import { useMemo } from 'react';
import type { ChildRoom, ChildTask } from '../../contract/room.ts';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import { markLabel, scaleOf } from '../../core/judging/scale.ts';
import { hardestMeasure } from '../../core/records/nextStep.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { playPattern, unfold } from '../../core/rhythm/place.ts';
import { adviceForChild } from '../../core/wording/advice.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { heardMarks } from '../ruler/heardMarks.ts';
import { Ruler } from '../ruler/Ruler.tsx';
import type { Taken } from '../take/taken.ts';

interface OwnResultProps {
  /** How the class speaks and judges, and how much wider this child's windows are. */
  readonly room: Pick<ChildRoom, 'voice' | 'wider'>;
  readonly task: Pick<Extract<ChildTask, { kind: 'take' }>, 'text' | 'bpm'>;
  readonly pattern: Pattern;
  readonly voice: Voice;
  readonly taken: Taken;
  /** As the server has it, where children see their marks. */
  readonly mark: number | null;
}

/** What this child did, in its words: judged here at once, the same way as on the server. */
export function OwnResult({ room, task, pattern, voice, taken, mark }: OwnResultProps) {
  const { text, bpm } = task;
  const judged = useMemo(
    () => judgeTake({ patternText: text, bpm, onsets: taken.onsets }, { ...room.voice, wider: room.wider }),
    [text, bpm, taken, room.voice, room.wider],
  );
  if (taken.onsets.length === 0 || !judged.ok)
    return (
      <div className="room-still">
        <h1>{t`Nothing was heard. You have the next one.`}</h1>
      </div>
    );
  const { well, task: next } = adviceForChild(judged.result, pattern, voice);
  return (
    <section className="room-result" aria-label={t`Result`}>
      <div role="status">
        <p className="room-well">
          <Star aria-hidden /> {well}
        </p>
        {next && (
          <p className="room-next">
            <ArrowRight aria-hidden /> {next}
          </p>
        )}
      </div>
      <HeardOnRuler pattern={pattern} bpm={bpm} judged={judged} voice={voice} />
      {mark !== null && (
        <p className="room-mark">{rich`Your mark: ${<strong>{markLabel(mark, scaleOf(room.voice))}</strong>}`}</p>
      )}
    </section>
  );
}

interface HeardProps extends Pick<OwnResultProps, 'pattern' | 'voice'> {
  readonly bpm: number;
  readonly judged: Extract<ReturnType<typeof judgeTake>, { ok: true }>;
}

/** The measure that is to be mended, or all of it, with what was heard. */
function HeardOnRuler({ pattern, bpm, judged: { result, windows }, voice }: HeardProps) {
  const shown = useMemo(() => {
    const played = playPattern(pattern).map(({ measure }) => measure.number);
    const hardest = hardestMeasure(result);
    const only = hardest === undefined ? -1 : played.indexOf(hardest);
    const all = unfold(pattern);
    const marks = heardMarks(pattern, bpm, result, windows);
    if (only < 0) return { pattern: all, marks, numbers: played };
    return {
      pattern: { pickup: all.pickup && only === 0, measures: [all.measures[only]!] },
      marks: marks.filter(({ measure }) => measure === only).map((mark) => ({ ...mark, measure: 0 })),
      numbers: [played[only]!],
    };
  }, [pattern, bpm, result, windows]);
  const counts = useMemo(() => [voice.counts], [voice]);
  return (
    <div className="room-ruler">
      <Ruler
        pattern={shown.pattern}
        size="board"
        fit
        strips={false}
        counts={counts}
        heard={shown.marks}
        numbers={shown.numbers}
      />
    </div>
  );
}
