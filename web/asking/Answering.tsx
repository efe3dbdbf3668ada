import { t } from '../../core/words/say.ts';
import { Check, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { MISCONCEPTIONS, type MistakeId } from '../../core/exercises/misconceptions.ts';
import type { Question } from '../../core/exercises/question.ts';
import { misconceptionText, questionWords } from '../../core/wording/questionWords.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import { type LookAlike, LookAlikes } from '../ui/signs/LookAlikes.tsx';
import './questions.scss';

const LETTERS = ['A', 'B', 'C', 'D'] as const;

export interface AnsweringProps {
  readonly naming: NamingId;
  readonly question: Question;
  /** The option chosen, once there is one. */
  readonly chosen: number | undefined;
}

function optionState(i: number, isRight: boolean, chosen: number | undefined): string {
  if (chosen === undefined) return '';
  if (isRight) return 'right';
  return i === chosen ? 'wrong' : 'other';
}

/** The options of a question at keys A to D; once one is chosen, which was right. */
export function OptionButtons({
  question,
  naming,
  chosen,
  onChoose,
}: AnsweringProps & { onChoose: (option: number) => void }) {
  const { options } = questionWords(question, naming);
  const right = question.answers ?? [question.answer];
  return (
    <div className="options">
      {options.map((text, i) => (
        <button
          key={text}
          type="button"
          className={`option ${optionState(i, right.includes(i), chosen)}`}
          aria-disabled={chosen !== undefined}
          onClick={() => onChoose(i)}
        >
          <kbd>{LETTERS[i]}</kbd> <span>{text}</span>
          {chosen !== undefined && right.includes(i) && <Check aria-label={t`right`} />}
          {chosen === i && !right.includes(i) && <X aria-label={t`not right`} />}
        </button>
      ))}
    </div>
  );
}

/** The keys of the options, for `useKeys`. */
export function optionKeys(onChoose: (option: number) => void): Readonly<Record<string, () => void>> {
  return Object.fromEntries(LETTERS.map((letter, i) => [letter.toLowerCase(), () => onChoose(i)]));
}

/** Once an option is chosen: what was misunderstood, and the worked steps; then `children`. */
export function Reveal({ question, chosen, naming, children }: AnsweringProps & { children: ReactNode }) {
  return (
    <div className="reveal" role="status">
      {chosen !== undefined && (
        <>
          <WhyWrong question={question} chosen={chosen} naming={naming} />
          <ol className="steps">
            {questionWords(question, naming).steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {children}
        </>
      )}
    </div>
  );
}

/** The two signs that were mistaken for each other, where a misconception is about such. */
function lookAlikesBehind(id: MistakeId | undefined): LookAlike | undefined {
  return MISCONCEPTIONS.find((one) => one.id === id)?.mistakes;
}

function WhyWrong({ question, chosen, naming }: AnsweringProps & { chosen: number }) {
  const given = question.options[chosen];
  const wrong = given && (question.answers ?? [question.answer]).includes(chosen) ? undefined : given;
  const id = wrong?.misconception;
  const text = id
    ? misconceptionText(id, naming)
    : question.staff
      ? t`Look once more.`
      : t`Nearly: add it up once more.`;
  const mistaken = lookAlikesBehind(id) ?? (question.staccato && 'dots');
  return (
    <>
      {wrong && <p className="misconception">{text}</p>}
      <LookAlikes naming={naming} which={mistaken} />
    </>
  );
}
