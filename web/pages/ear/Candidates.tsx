import { counted, t } from '../../../core/words/say.ts';
import { useMemo } from 'react';
import { Check, X } from 'lucide-react';
import type { Question, RuledOut } from '../../../core/exercises/question.ts';
import { OPTION_LETTERS, changeText, ruledOutIn } from '../../../core/wording/earWords.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { shownAmong } from './amongParts.ts';
import type { ReadPattern } from './earSettings.ts';
import { patternIn } from './patternIn.ts';
import type { ClassAnswer } from './useChooseRun.ts';

interface CandidatesProps {
  readonly question: Question;
  /** The parts that what is asked is one of. */
  readonly among?: ReadPattern['among'];
  readonly strips: boolean;
  readonly said: ClassAnswer | undefined;
  /** Those that are ruled out so far. */
  readonly out: readonly RuledOut[];
  /** One is left. */
  readonly done: boolean;
  readonly naming: NamingId;
  readonly onChoose: (option: number) => void;
}

/** How many of the class said this one. */
function saidFor(said: ClassAnswer | undefined, option: number): string {
  if (said?.kind === 'hands') return `${counted(said.hands[option] ?? 0, 'hand')}. `;
  return said?.option === option ? t`Your answer. ` : '';
}

/** Four rhythms at keys A to D; those that cannot be it step back with the reason. */
export function Candidates({ question, among, strips, said, out, done, naming, onChoose }: CandidatesProps) {
  return (
    <div className="candidates" role="group" aria-label={t`Candidates`}>
      {question.options.map(({ answer, change }, i) => {
        const text = answer.is === 'rhythm' ? answer.text : '';
        const fallen = out.find(({ option }) => option === i);
        const right = done && i === question.answer;
        const letter = OPTION_LETTERS[i]!;
        const reason = fallen && `${capital(ruledOutIn(question, fallen, naming))}.`;
        return (
          <div key={text}>
            <button
              type="button"
              className={`candidate ${fallen ? 'out' : right ? 'right' : ''}`}
              aria-label={`${letter}: ${text}${fallen ? t`, ruled out` : right ? t`, it is this one` : ''}`}
              aria-disabled={said !== undefined}
              onClick={() => onChoose(i)}
            >
              <span className="candidate-letter">
                <kbd>{letter}</kbd>
                {fallen && <X aria-hidden />}
                {right && <Check aria-hidden />}
              </span>
              <div className="candidate-ruler">
                <CandidateRuler text={text} among={among} strips={strips} />
              </div>
            </button>
            <p className="candidate-why">
              {saidFor(said, i)}
              {reason} {reason && change && changeText(change, naming)}
            </p>
          </div>
        );
      })}
    </div>
  );
}

/** Drawn again only when what it shows is another. */
function CandidateRuler({ text, among, strips }: { text: string } & Pick<CandidatesProps, 'among' | 'strips'>) {
  const shown = useMemo(() => shownAmong(patternIn(text), among), [text, among]);
  return <Ruler {...shown} size="board" fit notes={!strips} strips={strips} beats={strips} />;
}
