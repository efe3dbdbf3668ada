import { counted, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { div } from '../../../core/rhythm/fraction.ts';
import { type Meter, beatOf } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { addedUp } from '../../../core/sheets/material.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { type NamingId, measureName } from '../../../core/wording/valueNames.ts';
import { StripBoard } from '../../strips/StripBoard.tsx';
import { useStripLine } from '../../strips/useStripLine.ts';
import { Select } from '../../ui/Select.tsx';

/** A line on the screen holds no more measures. */
const MOST_LAID = 4;

/** How many measures can be laid so that they go into all of them: all, or some that come again. */
export function laidMeasures(measures: number): number[] {
  return Array.from({ length: MOST_LAID }, (_, i) => i + 1).filter((some) => measures % some === 0);
}

interface StripsPartProps {
  readonly meter: Meter;
  /** Of the rhythm that the part goes with. */
  readonly measures: number;
  readonly naming: NamingId;
  readonly onAdd: (pattern: Pattern) => void;
}

/** A part laid in strips of paper, beside a rhythm; fewer measures than that has come again to its end. */
export default function StripsPart({ measures, naming, ...props }: StripsPartProps) {
  const choices = laidMeasures(measures);
  const [chosen, setChosen] = useState(String(choices.at(-1)));
  const name = (n: number) => {
    const some = counted(n, measureName(naming), measureName(naming, true));
    return n === measures ? some : t`${some}, again to the end`;
  };
  return (
    <div className="strips-part">
      <Select
        className="w-auto"
        label={t`How much is laid`}
        value={chosen}
        options={choices.map((n) => [String(n), name(n)] as const)}
        onChoose={setChosen}
      />
      <LaidPart key={chosen} {...props} naming={naming} measures={Number(chosen)} />
    </div>
  );
}

function LaidPart({ meter, measures, naming, onAdd }: StripsPartProps) {
  const line = useStripLine({ meter, measures });
  const [asNotes, setAsNotes] = useState(false);
  const { length } = beatOf(meter);
  const beat = addedUp(meter);
  const { pattern, left, trouble } = line;
  return (
    <>
      <p role="status">
        {trouble || (left.n === 0 ? t`The line is full` : t`${beatsText(div(left, length))} left to fill`)}
      </p>
      <StripBoard line={line} naming={naming} beat={beat} asNotes={asNotes} onNotes={() => setAsNotes(!asNotes)} />
      <Button disabled={!pattern || left.n > 0} onClick={() => pattern && onAdd(pattern)}>{t`Add this part`}</Button>
    </>
  );
}
