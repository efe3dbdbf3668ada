import { X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { type Part, beatsText, partName, totalBeats, workedSteps } from '../../../core/arithmetic/steps.ts';
import { compare, mixed, mul, sub, toNumber } from '../../../core/rhythm/fraction.ts';
import { VALUE, lengthOf, valueOfLength } from '../../../core/rhythm/value.ts';
import { valueName } from '../../../core/rhythm/names.ts';
import { NoteSign } from '../../signs/NoteSign.tsx';
import { useKeys } from '../../state/useKeys.ts';
import { ValuePicker } from './ValuePicker.tsx';
import type { ValuesProps } from './ValuesPage.tsx';

type Side = 'left' | 'right';
const SIDES = ['left', 'right'] as const;
const MOST_PARTS = 8;
/** The strips of a side are drawn to this scale: so much of its width is a whole note. */
const WHOLE_PERCENT = 88;

const START: Readonly<Record<Side, readonly Part[]>> = {
  left: [{ kind: 'note', value: { base: 'h', dots: 0 } }],
  right: [{ kind: 'note', value: { base: 'q', dots: 0 } }, { kind: 'note', value: { base: 'e', dots: 0 } }],
};

/** Values on either side of a balance: which side is longer, and by how much. */
export function SumsView({ naming, beat }: ValuesProps) {
  const [sides, setSides] = useState(START);
  const [active, setActive] = useState<Side>('right');
  const [shown, setShown] = useState(true);
  const totals = { left: totalBeats(sides.left, beat), right: totalBeats(sides.right, beat) };
  const tilt = compare(totals.left, totals.right);
  const difference = tilt < 0 ? sub(totals.right, totals.left) : sub(totals.left, totals.right);
  const lighter: Side = tilt > 0 ? 'right' : 'left';
  const missing = tilt === 0 ? undefined : valueOfLength(mul(difference, VALUE[beat].of));
  const change = (side: Side, parts: readonly Part[]) => setSides({ ...sides, [side]: parts });
  useKeys({ ' ': () => setShown(!shown), ArrowLeft: () => setActive('left'), ArrowRight: () => setActive('right'), Backspace: () => change(active, sides[active].slice(0, -1)) });
  const verdict = tilt === 0 ? 'Both sides are as long: true' : `The ${tilt > 0 ? 'left' : 'right'} side is longer by ${beatsText(difference)}: false`;
  return (
    <>
      <p className="big-line" role="status">
        {shown ? verdict : 'True or false: both sides are as long?'}
      </p>
      <div className={`balance ${shown ? (tilt > 0 ? 'tilt-left' : tilt < 0 ? 'tilt-right' : '') : ''}`}>
        {SIDES.map((side) => (
          <section key={side} className={`pan ${active === side ? 'active' : ''}`} aria-label={`The ${side} side`} onClick={() => setActive(side)}>
            <div className="pan-parts">
              {sides[side].map((part, i) => (
                <div key={i} className={`pan-part strip-${part.kind}`} style={{ width: `${toNumber(lengthOf(part.value)) * WHOLE_PERCENT}%` }}>
                  <NoteSign value={part.value} rest={part.kind === 'rest'} />
                  <button type="button" aria-label={`Take away the ${partName(part, naming)}`} onClick={() => change(side, sides[side].filter((_, k) => k !== i))}>
                    <X size={14} aria-hidden />
                  </button>
                </div>
              ))}
              {sides[side].length === 0 && <span className="pan-empty">Add values</span>}
            </div>
            <p className="pan-total">{shown ? beatsText(totals[side]) : '?'}</p>
            {shown && (
              <ol className="steps">
                {workedSteps(sides[side], beat, naming).map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
            )}
          </section>
        ))}
      </div>
      <div className="sum-tools">
        <ValuePicker naming={naming} label={`Add to the ${active} side`} onPick={(part) => sides[active].length < MOST_PARTS && change(active, [...sides[active], part])} />
        <div className="stage-actions">
          <Button size="lg" onClick={() => setShown(!shown)}>
            {shown ? 'Hide the answer' : 'Show the answer'} <kbd>space</kbd>
          </Button>
          <span>
            Adding to the {active} side <kbd>←</kbd> <kbd>→</kbd>
          </span>
          {shown && missing && (
            <Button variant="outline-dark" size="lg" onClick={() => change(lighter, [...sides[lighter], { kind: 'note', value: missing }])}>
              Complete it: {valueName(missing, naming)} ({mixed(difference)})
            </Button>
          )}
        </div>
      </div>
    </>
  );
}
