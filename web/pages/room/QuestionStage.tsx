import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Check } from 'lucide-react';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import type { QuestionTask } from '../../../contract/room.ts';
import type { Question } from '../../../core/exercises/question.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { OPTION_LETTERS } from '../../../core/wording/earWords.ts';
import { capital } from '../../../core/wording/valueNames.ts';
import { Shown } from '../../asking/Shown.tsx';
import { useHear } from '../../audio/useHear.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { type StageProps, Tally, useAnswering } from './stage.tsx';

/** A question to all: played where it is heard, answered on the devices, then a bar a candidate and the reason. */
export function QuestionStage(props: StageProps & { readonly task: QuestionTask }) {
  const { room, task } = props;
  const { seats } = room;
  const answered = seats.filter(({ done }) => done.option !== null).length;
  const { heard } = task;
  const { hear, moment } = useHear();
  const play = () => {
    const read = heard && parseRhythm(heard.text);
    if (heard && read?.ok) void hear(read.pattern, heard.bpm, { plays: 1, turn: false });
  };
  const { isOpen, goOn } = useAnswering(props, play);
  return (
    <section className="room-round" aria-label={t`Question`}>
      <h2 className="room-asked">{task.asked}</h2>
      {task.view !== 'choose' && <AskedAbout facts={task.facts} />}
      <Bars task={task} seats={seats} isOpen={isOpen} answered={answered} />
      {isOpen && (
        <ul className="room-reasons">
          {task.reasons.map((reason) => (
            <li key={reason}>{capital(reason)}.</li>
          ))}
        </ul>
      )}
      <div className="room-foot">
        <Tally count={answered} of={seats.length} what={t`have answered`} />
        {heard && (
          <Button size="lg" variant="outline-dark" onClick={play} aria-pressed={moment.state !== 'quiet'}>
            {rich`Play it ${<kbd>P</kbd>}`}
          </Button>
        )}
        <Button size="lg" onClick={goOn}>
          {isOpen ? t`Go on` : t`Show the answer`} <kbd>{t`space`}</kbd>
        </Button>
      </div>
    </section>
  );
}

interface BarsProps {
  readonly task: QuestionTask;
  readonly seats: StageProps['room']['seats'];
  readonly isOpen: boolean;
  readonly answered: number;
}

/** The candidates; once the answer is shown, how many chose each: a bar and a number, nobody by name. */
function Bars({ task, seats, isOpen, answered }: BarsProps) {
  return (
    <ol className="room-bars">
      {task.options.map((option, i) => {
        const count = seats.filter(({ done }) => done.option === i).length;
        const isRight = isOpen && task.right.includes(i);
        return (
          <li key={i} className={isRight ? 'room-bar room-bar-right' : 'room-bar'}>
            <b>{OPTION_LETTERS[i]}</b>
            <div className="room-bar-what">
              {option.rhythm === null ? option.words : <RhythmOf text={option.rhythm} />}
            </div>
            {isOpen && (
              <>
                <span className="room-bar-line" style={{ width: `${(100 * count) / Math.max(1, answered)}%` }} />
                <span className="room-bar-count">
                  {isRight && <Check aria-label={t`right`} />} {count}
                  <span className="visually-hidden"> {count === 1 ? t`child` : t`children`}</span>
                </span>
              </>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function AskedAbout({ facts }: { readonly facts: string }) {
  const question = useMemo(() => {
    try {
      return JSON.parse(facts) as Question;
    } catch {
      return undefined;
    }
  }, [facts]);
  return question ? (
    <div className="question room-about">
      <Shown question={question} />
    </div>
  ) : null;
}

function RhythmOf({ text }: { readonly text: string }) {
  const read = useMemo(() => parseRhythm(text), [text]);
  return read.ok ? (
    <div className="room-bar-ruler">
      <Ruler pattern={read.pattern} size="board" fit strips={false} beats={false} />
    </div>
  ) : null;
}
