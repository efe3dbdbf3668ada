import { t } from '../../core/words/say.ts';
import { Check, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { ChildRoom, ChildTask } from '../../contract/room.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { OPTION_LETTERS } from '../../core/wording/earWords.ts';
import { listed } from '../../core/wording/plurals.ts';
import { capital } from '../../core/wording/valueNames.ts';
import { Ruler } from '../ruler/Ruler.tsx';
import { answer } from './roomApi.ts';
import { useSaid } from './useSaid.ts';

interface QuestionRoundProps {
  readonly room: ChildRoom;
  readonly round: NonNullable<ChildRoom['round']>;
  readonly task: Extract<ChildTask, { kind: 'question' }>;
}

/** A question with its answers at A to D; it may think again until the answer is shown. */
export default function QuestionRound({ room, round, task }: QuestionRoundProps) {
  const [chosen, setChosen] = useState(room.done.option);
  const { say, trouble } = useSaid();
  const { right, reasons } = task;
  const choose = (option: number) => {
    if (right !== null) return;
    setChosen(option);
    say(() => answer(round.number, { option }));
  };
  return (
    <section className="room-question" aria-label={t`Question`}>
      <h1>{task.asked}</h1>
      <div className="room-options">
        {task.options.map((option, i) => (
          <button
            key={i}
            type="button"
            className={`room-option ${optionState(i, chosen, right)}`}
            aria-pressed={chosen === i}
            onClick={() => choose(i)}
          >
            <b>{OPTION_LETTERS[i]}</b>
            {option.rhythm !== null ? <RhythmOption text={option.rhythm} /> : <span>{option.words}</span>}
            {right?.includes(i) && <Check aria-label={t`right`} />}
            {right !== null && chosen === i && !right.includes(i) && <X aria-label={t`not right`} />}
          </button>
        ))}
      </div>
      <p className="room-said" role="status">
        {trouble ?? answerText(chosen, right)}
      </p>
      {reasons.map((reason) => (
        <p key={reason} className="room-reason">
          {capital(reason)}.
        </p>
      ))}
    </section>
  );
}

function optionState(i: number, chosen: number | null, right: readonly number[] | null): string {
  if (right === null) return chosen === i ? 'room-chosen' : '';
  return right.includes(i) ? 'room-right' : '';
}

function answerText(chosen: number | null, right: readonly number[] | null): string {
  if (right === null) return chosen === null ? '' : t`Your answer is in. You may think again.`;
  const letters = listed(right.map((i) => OPTION_LETTERS[i]!));
  if (chosen === null) return t`It is ${letters}.`;
  return right.includes(chosen) ? t`Right: it is ${letters}.` : t`It is ${letters}.`;
}

function RhythmOption({ text }: { readonly text: string }) {
  const parsed = useMemo(() => parseRhythm(text), [text]);
  return (
    <span className="room-rhythm" role="img" aria-label={text}>
      {parsed.ok && <Ruler pattern={parsed.pattern} size="board" fit strips={false} beats={false} />}
    </span>
  );
}
