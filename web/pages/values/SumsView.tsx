import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { mixed, toNumber } from '../../../core/rhythm/fraction.ts';
import { lengthOf } from '../../../core/rhythm/value.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { questionWords } from '../../../core/wording/questionWords.ts';
import { partName, workedSteps } from '../../../core/wording/sumWords.ts';
import { type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { type Keys, useKeys } from '../../ui/useKeys.ts';
import { OptionButtons, Reveal, optionKeys } from '../../asking/Answering.tsx';
import { ValuePicker } from './ValuePicker.tsx';
import { type Balance, MOST_PARTS, SIDES, type Side, useBalance } from './useBalance.ts';
import type { ValuesProps } from './valuesProps.ts';
import './sums.scss';

/** The strips of a side are drawn to this scale: so much of its width is a whole note. */
const WHOLE_PERCENT = 88;

/** Values on either side of a balance: which side is longer, and by how much. */
export function SumsView({ naming, beat }: ValuesProps) {
  const balance = useBalance(beat);
  const { sides, active, shown, asked, tilt, change, ask, choose, stop, setActive, setShown } = balance;
  const building: Keys = {
    ' ': () => setShown(!shown),
    ArrowLeft: () => setActive('left'),
    ArrowRight: () => setActive('right'),
    Backspace: () => change(active, sides[active].slice(0, -1)),
  };
  useKeys({ q: ask, ...(asked ? { ...optionKeys(choose), Escape: stop } : building) });
  const tips = tilt > 0 ? 'tilt-left' : tilt < 0 ? 'tilt-right' : '';
  return (
    <>
      <p className="big-line" role="status">
        {headline(balance, naming)}
      </p>
      <div className={`balance ${shown ? tips : 'hidden-answer'}`}>
        {SIDES.map((side) => (
          <Pan key={side} side={side} balance={balance} naming={naming} beat={beat} />
        ))}
      </div>
      {asked ? (
        <div className="question">
          <OptionButtons {...asked} naming={naming} onChoose={choose} />
          <Reveal {...asked} naming={naming}>
            <div className="stage-actions">
              <Button size="lg" onClick={ask}>
                {rich`Another ${<kbd>Q</kbd>}`}
              </Button>
              <Button size="lg" variant="outline-dark" onClick={stop}>
                {rich`Build one ${<kbd>{t`Esc`}</kbd>}`}
              </Button>
            </div>
          </Reveal>
        </div>
      ) : (
        <BuildTools balance={balance} naming={naming} />
      )}
    </>
  );
}

function headline({ asked, shown, tilt, difference }: Balance, naming: NamingId): string {
  if (asked && asked.chosen === undefined) return questionWords(asked.question, naming).prompt;
  if (!shown) return t`True or false: both sides are as long?`;
  if (tilt === 0) return t`Both sides are as long: true`;
  return tilt > 0
    ? t`Not equal: the left is longer by ${beatsText(difference)}`
    : t`Not equal: the right is longer by ${beatsText(difference)}`;
}

/** One side of the balance. A press anywhere in it makes it the one that is added to; for keys there are the arrows. */
function Pan({ side, balance, naming, beat }: ValuesProps & { side: Side; balance: Balance }) {
  const { sides, active, shown, asked, totals, change, setActive } = balance;
  const parts = sides[side];
  const open = asked?.chosen === undefined && asked?.question.asked.kind === 'balance';
  const style = (length: number) => (shown ? { width: `${length * WHOLE_PERCENT}%` } : undefined);
  return (
    <div
      role="group"
      className={`pan ${active === side ? 'active' : ''}`}
      aria-label={t`The ${side} side`}
      onPointerDown={() => setActive(side)}
    >
      <div className="pan-parts">
        {parts.map((part, i) => (
          <div key={i} className={`pan-part strip-${part.kind}`} style={style(toNumber(lengthOf(part.value)))}>
            <NoteSign value={part.value} rest={part.kind === 'rest'} />
            {!asked && (
              <button
                type="button"
                aria-label={t`Take away the ${partName(part, naming)}`}
                onClick={() =>
                  change(
                    side,
                    parts.filter((_, k) => k !== i),
                  )
                }
              >
                <X size={14} aria-hidden />
              </button>
            )}
          </div>
        ))}
        {side === 'right' && open && <div className="pan-part missing">?</div>}
        {parts.length === 0 && <span className="pan-empty">{t`Add values`}</span>}
      </div>
      <p className="pan-total">{shown ? beatsText(totals[side]) : '?'}</p>
      {shown && !asked && (
        <ol className="steps">
          {workedSteps(parts, beat, naming).map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
    </div>
  );
}

function BuildTools({ balance, naming }: { balance: Balance; naming: NamingId }) {
  const { sides, active, shown, missing, difference, change, complete, ask, setShown } = balance;
  return (
    <div className="sum-tools">
      <ValuePicker
        naming={naming}
        label={t`Add to the ${active} side`}
        onPick={(part) => sides[active].length < MOST_PARTS && change(active, [...sides[active], part])}
      />
      <div className="stage-actions">
        <Button size="lg" onClick={() => setShown(!shown)}>
          {shown ? t`Hide the answer` : t`Show the answer`} <kbd>{t`space`}</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" onClick={ask}>
          {rich`Ask a question ${<kbd>Q</kbd>}`}
        </Button>
        <span>{rich`Adding to the ${active} side ${<kbd>←</kbd>} ${<kbd>→</kbd>}`}</span>
        {shown && missing && (
          <Button variant="outline-dark" size="lg" onClick={complete}>
            {t`Complete it: ${valueName(missing, naming)} (${mixed(difference)})`}
          </Button>
        )}
      </div>
    </div>
  );
}
