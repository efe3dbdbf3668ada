import { X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { questions } from '../../../core/exercises/questions.ts';
import { type Part, beatsText, partName, totalBeats, workedSteps } from '../../../core/exercises/valueSums.ts';
import { compare, mixed, mul, sub, toNumber } from '../../../core/rhythm/fraction.ts';
import { VALUE, lengthOf, valueOfLength } from '../../../core/rhythm/value.ts';
import { valueName } from '../../../core/wording/valueNames.ts';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { type Keys, useKeys } from '../../ui/useKeys.ts';
import { type AnsweringProps, OptionButtons, Reveal, optionKeys } from './Answering.tsx';
import { ValuePicker } from './ValuePicker.tsx';
import { type ValuesProps } from './valuesProps.ts';

type Side = 'left' | 'right';
const SIDES = ['left', 'right'] as const;
const MOST_PARTS = 8;
/** The strips of a side are drawn to this scale: so much of its width is a whole note. */
const WHOLE_PERCENT = 88;

const START: Readonly<Record<Side, readonly Part[]>> = {
  left: [{ kind: 'note', value: { base: 'h', dots: 0 } }],
  right: [
    { kind: 'note', value: { base: 'q', dots: 0 } },
    { kind: 'note', value: { base: 'e', dots: 0 } },
  ],
};

const ASKED_ABOUT = { values: ['w', 'h', 'q', 'e'], dots: true, ties: false, rests: true } as const;

/** Values on either side of a balance: which side is longer, and by how much. */
export function SumsView({ naming, beat }: ValuesProps) {
  const [sides, setSides] = useState(START);
  const [active, setActive] = useState<Side>('right');
  const [shown, setShown] = useState(true);
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 10_000));
  const [lastAsked, setAsked] = useState<AnsweringProps & Pick<ValuesProps, 'beat'>>();
  // Asked in other words or about another beat it is another question.
  const asked = lastAsked?.beat === beat && lastAsked.naming === naming ? lastAsked : undefined;
  const totals = { left: totalBeats(sides.left, beat), right: totalBeats(sides.right, beat) };
  const tilt = compare(totals.left, totals.right);
  const difference = tilt < 0 ? sub(totals.right, totals.left) : sub(totals.left, totals.right);
  const lighter: Side = tilt > 0 ? 'right' : 'left';
  const missing = tilt === 0 ? undefined : valueOfLength(mul(difference, VALUE[beat].of));
  const change = (side: Side, parts: readonly Part[]) => setSides({ ...sides, [side]: parts });
  const complete = () => missing && change(lighter, [...sides[lighter], { kind: 'note', value: missing }]);
  const ask = () => {
    const [question] = questions({ ...ASKED_ABOUT, beat, naming }, seed, 1, ['true-false', 'balance']);
    setSeed(seed + 1);
    if (!question?.sides) return;
    const [left, right] = question.sides;
    setAsked({ question, chosen: undefined, beat, naming });
    setSides({ left, right });
    setShown(false);
  };
  const choose = (option: number) => {
    if (!asked || asked.chosen !== undefined || option >= asked.question.options.length) return;
    setAsked({ ...asked, chosen: option });
    setShown(true);
    if (asked.question.kind === 'balance') complete();
  };
  const stop = () => {
    setAsked(undefined);
    setShown(true);
  };
  const building: Keys = {
    ' ': () => setShown(!shown),
    ArrowLeft: () => setActive('left'),
    ArrowRight: () => setActive('right'),
    Backspace: () => change(active, sides[active].slice(0, -1)),
  };
  useKeys({ q: ask, ...(asked ? { ...optionKeys(choose), Escape: stop } : building) });
  const open = asked !== undefined && asked.chosen === undefined && asked.question.kind === 'balance';
  const verdict =
    tilt === 0
      ? 'Both sides are as long: true'
      : `The ${tilt > 0 ? 'left' : 'right'} side is longer by ${beatsText(difference)}: false`;
  return (
    <>
      <p className="big-line" role="status">
        {asked && asked.chosen === undefined
          ? asked.question.prompt
          : shown
            ? verdict
            : 'True or false: both sides are as long?'}
      </p>
      <div className={`balance ${shown ? (tilt > 0 ? 'tilt-left' : tilt < 0 ? 'tilt-right' : '') : 'hidden-answer'}`}>
        {SIDES.map((side) => (
          <section
            key={side}
            className={`pan ${active === side ? 'active' : ''}`}
            aria-label={`The ${side} side`}
            onClick={() => setActive(side)}
          >
            <div className="pan-parts">
              {sides[side].map((part, i) => (
                <div
                  key={i}
                  className={`pan-part strip-${part.kind}`}
                  style={shown ? { width: `${toNumber(lengthOf(part.value)) * WHOLE_PERCENT}%` } : undefined}
                >
                  <NoteSign value={part.value} rest={part.kind === 'rest'} />
                  {!asked && (
                    <button
                      type="button"
                      aria-label={`Take away the ${partName(part, naming)}`}
                      onClick={() =>
                        change(
                          side,
                          sides[side].filter((_, k) => k !== i),
                        )
                      }
                    >
                      <X size={14} aria-hidden />
                    </button>
                  )}
                </div>
              ))}
              {side === 'right' && open && <div className="pan-part missing">?</div>}
              {sides[side].length === 0 && <span className="pan-empty">Add values</span>}
            </div>
            <p className="pan-total">{shown ? beatsText(totals[side]) : '?'}</p>
            {shown && !asked && (
              <ol className="steps">
                {workedSteps(sides[side], beat, naming).map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
            )}
          </section>
        ))}
      </div>
      {asked ? (
        <div className="question">
          <OptionButtons question={asked.question} chosen={asked.chosen} onChoose={choose} />
          <Reveal {...asked}>
            <div className="stage-actions">
              <Button size="lg" onClick={ask}>
                Another <kbd>Q</kbd>
              </Button>
              <Button size="lg" variant="outline-dark" onClick={stop}>
                Build one <kbd>Esc</kbd>
              </Button>
            </div>
          </Reveal>
        </div>
      ) : (
        <div className="sum-tools">
          <ValuePicker
            naming={naming}
            label={`Add to the ${active} side`}
            onPick={(part) => sides[active].length < MOST_PARTS && change(active, [...sides[active], part])}
          />
          <div className="stage-actions">
            <Button size="lg" onClick={() => setShown(!shown)}>
              {shown ? 'Hide the answer' : 'Show the answer'} <kbd>space</kbd>
            </Button>
            <Button size="lg" variant="outline-dark" onClick={ask}>
              Ask a question <kbd>Q</kbd>
            </Button>
            <span>
              Adding to the {active} side <kbd>←</kbd> <kbd>→</kbd>
            </span>
            {shown && missing && (
              <Button variant="outline-dark" size="lg" onClick={complete}>
                Complete it: {valueName(missing, naming)} ({mixed(difference)})
              </Button>
            )}
          </div>
        </div>
      )}
    </>
  );
}
