import { counted, t } from '../../core/words/say.ts';
import { Check, X } from 'lucide-react';
import { type CSSProperties, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Question } from '../../core/exercises/question.ts';
import type { StaffSign } from '../../core/exercises/signs.ts';
import { questionWords } from '../../core/wording/questionWords.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import { useKeys } from '../ui/useKeys.ts';
import { StaffSignView } from './StaffSignView.tsx';

/** Signs are as large as so many of them can be. */
const inSoMany = (signs: number) => ({ '--signs': Math.max(1, signs) }) as CSSProperties;

/** Signs beside each other on one staff. */
export function Staff({ signs }: { signs: readonly StaffSign[] }) {
  return (
    <div className="staff" style={inSoMany(signs.length)}>
      {signs.map((sign, i) => (
        <StaffSignView key={i} {...sign} />
      ))}
    </div>
  );
}

export interface OnStaffProps {
  readonly question: Question;
  readonly naming: NamingId;
  /** The answer, once it is given. */
  readonly given: readonly number[] | undefined;
  readonly onAnswer: (options: readonly number[]) => void;
}

/** Right, wrong or overlooked, once the answer is given. */
function verdictOf(chosen: boolean, right: boolean): { state: string; text: string } | undefined {
  if (chosen && right) return { state: 'right', text: t`right` };
  if (chosen) return { state: 'wrong', text: t`not one` };
  return right ? { state: 'wrong', text: t`this too` } : undefined;
}

/** Every sign of a kind is pressed, then the answer is given. Numbers are their keys. */
export function SpotSigns({ question, given, onAnswer }: OnStaffProps) {
  const [found, setFound] = useState<readonly number[]>([]);
  const { staff = [], answers = [] } = question;
  const press = (i: number) => {
    if (given === undefined) setFound(found.includes(i) ? found.filter((one) => one !== i) : [...found, i]);
  };
  const done = () => onAnswer(found);
  useKeys({ ...Object.fromEntries(staff.map((_, i) => [String(i + 1), () => press(i)])), Enter: done });
  return (
    <>
      <div className="staff" role="group" aria-label={t`Signs`} style={inSoMany(staff.length)}>
        {staff.map((sign, i) => {
          const chosen = (given ?? found).includes(i);
          const verdict = given && verdictOf(chosen, answers.includes(i));
          return (
            <button
              key={i}
              type="button"
              className={`staff-button ${verdict?.state ?? (chosen && !given ? 'chosen' : '')}`}
              aria-pressed={chosen}
              aria-label={t`Sign ${i + 1}${verdict ? `: ${verdict.text}` : ''}`}
              onClick={() => press(i)}
            >
              <StaffSignView {...sign} />
              <span className="staff-mark">
                {!verdict && <kbd>{i + 1}</kbd>}
                {verdict?.state === 'right' && <Check aria-hidden />}
                {verdict?.state === 'wrong' && <X aria-hidden />} {verdict?.text}
              </span>
            </button>
          );
        })}
      </div>
      {given === undefined && (
        <Button size="lg" onClick={done} disabled={found.length === 0}>
          {found.length === 0 ? t`Press each one` : t`That is all: ${found.length}`} <kbd>{t`enter`}</kbd>
        </Button>
      )}
    </>
  );
}

const LETTERS = ['A', 'B', 'C', 'D'] as const;

/** A sign is chosen, then what belongs to it; the next free sign is chosen by itself. */
export function MatchSigns({ question, naming, given, onAnswer }: OnStaffProps) {
  const { staff = [], answers = [] } = question;
  const [pairs, setPairs] = useState<readonly (number | undefined)[]>(() => staff.map(() => undefined));
  const [at, setAt] = useState(0);
  const { options } = questionWords(question, naming);
  const match = (option: number) => {
    if (given !== undefined || option >= options.length) return;
    // What is taken from another sign leaves that one free.
    const made = pairs.map((one, i) => (i === at ? option : one === option ? undefined : one));
    setPairs(made);
    const free = made.findIndex((one) => one === undefined);
    if (free < 0) onAnswer(made.map((one) => one!));
    else setAt(free);
  };
  useKeys({
    ...Object.fromEntries(LETTERS.map((letter, i) => [letter.toLowerCase(), () => match(i)])),
    ...Object.fromEntries(staff.map((_, i) => [String(i + 1), () => setAt(i)])),
  });
  const shown = given ?? pairs;
  return (
    <>
      <div className="staff" role="group" aria-label={t`Signs`} style={inSoMany(staff.length)}>
        {staff.map((sign, i) => {
          const option = shown[i];
          const right = given && option === answers[i];
          const state = given ? (right ? 'right' : 'wrong') : i === at ? 'chosen' : '';
          const name = option === undefined ? '?' : `${LETTERS[option]} ${options[option]}`;
          return (
            <button
              key={i}
              type="button"
              className={`staff-button ${state}`}
              aria-pressed={i === at}
              aria-label={t`Sign ${i + 1}: ${option === undefined ? t`nothing yet` : options[option]}`}
              onClick={() => setAt(i)}
            >
              <StaffSignView {...sign} />
              <span className="staff-mark">
                {given && (right ? <Check aria-label={t`right`} /> : <X aria-label={t`not right`} />)} {name}
              </span>
            </button>
          );
        })}
      </div>
      {given === undefined ? (
        <div className="options">
          {options.map((text, i) => (
            <button key={text} type="button" className="option" onClick={() => match(i)}>
              <kbd>{LETTERS[i]}</kbd> <span>{text}</span>
            </button>
          ))}
        </div>
      ) : (
        <p className="match-lines">
          {t`${counted(answers.filter((option, i) => given[i] === option).length, 'sign')} right`}
        </p>
      )}
    </>
  );
}
