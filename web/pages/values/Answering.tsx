import { Check, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { MISCONCEPTION, type MisconceptionId } from '../../../core/exercises/misconceptions.ts';
import type { Question } from '../../../core/exercises/questions.ts';
import { type NamingId, withValueNames } from '../../../core/wording/valueNames.ts';
import { type LookAlike, LookAlikes } from '../../ui/signs/LookAlikes.tsx';

const LETTERS = ['A', 'B', 'C', 'D'] as const;

export interface AnsweringProps {
  readonly naming: NamingId;
  readonly question: Question;
  /** The option chosen, once there is one. */
  readonly chosen: number | undefined;
}

/** The options of a question at keys A to D; once one is chosen, which was right. */
export function OptionButtons({
  question: { options, answer },
  chosen,
  onChoose,
}: Omit<AnsweringProps, 'naming'> & { onChoose: (option: number) => void }) {
  return (
    <div className="options">
      {options.map(({ text }, i) => (
        <button
          key={text}
          type="button"
          className={`option ${chosen === undefined ? '' : i === answer ? 'right' : i === chosen ? 'wrong' : 'other'}`}
          aria-disabled={chosen !== undefined}
          onClick={() => onChoose(i)}
        >
          <kbd>{LETTERS[i]}</kbd> <span>{text}</span>
          {chosen !== undefined && i === answer && <Check aria-label="right" />}
          {chosen === i && i !== answer && <X aria-label="not right" />}
        </button>
      ))}
    </div>
  );
}

/** The keys of the options, for `useKeys`. */
export function optionKeys(onChoose: (option: number) => void): Readonly<Record<string, () => void>> {
  return Object.fromEntries(LETTERS.map((letter, i) => [letter.toLowerCase(), () => onChoose(i)]));
}

/** The signs that were mistaken for each other behind a wrong option. */
const MISTAKEN: Partial<Readonly<Record<MisconceptionId, LookAlike>>> = {
  'dot-one-beat': 'dots',
  'dot-whole-copy': 'dots',
  'dot-ignored': 'dots',
  'staccato-lengthens': 'dots',
  'whole-half-swapped': 'rests',
};

/** Once an option is chosen: what was misunderstood, and the worked steps; then `children`. */
export function Reveal({ question, chosen, naming, children }: AnsweringProps & { children: ReactNode }) {
  const wrong = chosen !== undefined && chosen !== question.answer ? question.options[chosen] : undefined;
  return (
    <div className="reveal" role="status">
      {chosen !== undefined && (
        <>
          {wrong && (
            <p className="misconception">
              {wrong.misconception
                ? withValueNames(MISCONCEPTION[wrong.misconception].sentence, naming)
                : 'Nearly: add it up once more.'}
            </p>
          )}
          <LookAlikes
            naming={naming}
            which={(wrong?.misconception && MISTAKEN[wrong.misconception]) ?? (question.staccato && 'dots')}
          />
          <ol className="steps">
            {question.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {children}
        </>
      )}
    </div>
  );
}
