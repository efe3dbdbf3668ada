import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { div } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { VALUE } from '../../../core/rhythm/value.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { put } from '../../api/client.ts';
import { StripBoard, hearStrips } from '../../strips/StripBoard.tsx';
import { LINES, lineName } from '../../strips/stripLines.ts';
import { type StripLine, useStripLine } from '../../strips/useStripLine.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { useSave } from '../../api/useSave.ts';
import type { ValuesProps } from './valuesProps.ts';

const HEARD_BPM = 80;

/** A tray of strips true to length, and a line to lay them on, end to end. */
export function StripsView({ naming, beat }: ValuesProps) {
  const line = useStripLine();
  const [asNotes, setAsNotes] = useState(false);
  const turn = () => setAsNotes(!asNotes);
  const { pattern, strips, left, trouble } = line;
  useKeys({ ' ': () => pattern && hearStrips(pattern, strips, HEARD_BPM) });
  return (
    <>
      <p className="big-line" role="status">
        {trouble || (left.n === 0 ? t`The line is full` : t`${beatsText(div(left, VALUE[beat].of))} left to fill`)}
      </p>
      <StripBoard line={line} naming={naming} beat={beat} asNotes={asNotes} onNotes={turn} />
      <StripTools line={line} naming={naming} beat={beat} asNotes={asNotes} onNotes={turn} />
    </>
  );
}

interface ToolsProps extends Pick<ValuesProps, 'naming' | 'beat'> {
  readonly line: StripLine;
  readonly asNotes: boolean;
  readonly onNotes: () => void;
}

function StripTools({ line, naming, beat, asNotes, onNotes }: ToolsProps) {
  const { pattern, strips, chosenLine } = line;
  const navigate = useNavigate();
  const [id] = useState(() => uuid());
  const keeping = useSave((text: string) => put(`/patterns/${id}`, { title: t`From strips`, text }), '/patterns');
  const save = async (made: Pattern) => {
    if (await keeping.save(printRhythm(made))) await navigate(`/patterns/${id}`);
  };
  return (
    <>
      {keeping.problem && <Notice problem={keeping.problem} />}
      <div className="stage-actions">
        <Button size="lg" disabled={!pattern} onClick={() => pattern && hearStrips(pattern, strips, HEARD_BPM)}>
          {rich`Hear it ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <Button size="lg" variant={asNotes ? 'dark' : 'outline-dark'} aria-pressed={asNotes} onClick={onNotes}>
          {rich`As notes ${<kbd>N</kbd>}`}
        </Button>
        <Select
          className="w-auto"
          label={t`Length of the line`}
          value={String(chosenLine)}
          options={LINES.map((one, i) => [String(i), lineName(one, beat, naming)] as const)}
          onChoose={(chosen) => line.chooseLine(Number(chosen))}
        />
        <Button
          variant="outline-dark"
          disabled={!pattern || keeping.saving}
          onClick={() => pattern && void save(pattern)}
        >
          {t`Save as a pattern`}
        </Button>
        <Button variant="outline-dark" disabled={strips.length === 0} onClick={line.clear}>{t`Clear`}</Button>
      </div>
    </>
  );
}
