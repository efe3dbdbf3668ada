import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { type Strip, soundingStrips } from '../../../core/exercises/strips.ts';
import { div, toNumber } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { type NoteValue, VALUE, lengthOf } from '../../../core/rhythm/value.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { put } from '../../api/client.ts';
import { playPercussion } from '../../audio/playPercussion.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { useWidth } from '../../ruler/useWidth.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { LookAlikes, lookAlikeOf } from '../../ui/signs/LookAlikes.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { useSave } from '../../ui/useSave.ts';
import { LaidStrips, TrayStrip } from './LaidStrips.tsx';
import { LINES, TRAY, lineName } from './stripLines.ts';
import { type StripLine, useStripLine } from './useStripLine.ts';
import type { ValuesProps } from './valuesProps.ts';
import './strips.scss';

const HEARD_BPM = 80;

/** As claps; the strips of the other colour as a wood block. */
function hear(pattern: Pattern, strips: readonly Strip[]): void {
  const sounding = soundingStrips(strips);
  const hits = scheduleOf(pattern, HEARD_BPM).notes.map(({ time }, i) => ({
    time,
    sound: sounding[i]?.second ? ('wood' as const) : ('clap' as const),
  }));
  void playPercussion(hits);
}

function useStripKeys(line: StripLine, onNotes: () => void): void {
  const { current } = line;
  useKeys({
    ...Object.fromEntries(TRAY.map((value) => [value.base, () => line.lay(value)])),
    ...Object.fromEntries(line.actions.map(({ key, run }) => [key, run])),
    ArrowLeft: ({ shiftKey }) => (shiftKey ? line.move(current, current - 1) : line.choose(current - 1)),
    ArrowRight: ({ shiftKey }) => (shiftKey ? line.move(current, current + 1) : line.choose(current + 1)),
    Backspace: line.remove,
    Delete: line.remove,
    n: onNotes,
    ' ': () => line.pattern && hear(line.pattern, line.strips),
  });
}

/** Before which strip something was dropped. @param x  pixels from the left end of the line */
function dropPlace(strips: readonly Strip[], x: number, scale: number): number {
  let end = 0;
  for (let place = 0; place < strips.length; place++) {
    const own = toNumber(lengthOf(strips[place]!.value)) * scale;
    if (x < end + own / 2) return place;
    end += own;
  }
  return strips.length;
}

/** A tray of strips true to length, and a line to lay them on, end to end. */
export function StripsView({ naming, beat }: ValuesProps) {
  const line = useStripLine();
  const [asNotes, setAsNotes] = useState(false);
  const [ref, width] = useWidth();
  const scale = width / toNumber(line.length);
  const counts = useMemo(() => [{ school: 'numbers' as const, beat }], [beat]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useStripKeys(line, () => setAsNotes(!asNotes));
  const dropped = ({ active, over, delta, activatorEvent }: DragEndEvent) => {
    if (!over) return;
    const x = (activatorEvent as PointerEvent).clientX + delta.x - over.rect.left;
    const place = dropPlace(line.strips, x, scale);
    const { tray, strip } = active.data.current as { tray?: NoteValue; strip?: number };
    if (tray) line.lay(tray, place);
    else if (strip !== undefined) line.move(strip, place > strip ? place - 1 : place);
  };
  const { strips, current, pattern, left, trouble } = line;
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <p className="big-line" role="status">
        {trouble || (left.n === 0 ? 'The line is full' : `${beatsText(div(left, VALUE[beat].of))} left to fill`)}
      </p>
      <div ref={ref} className={`line-box ${asNotes && pattern ? 'as-notes' : ''}`}>
        <LaidStrips line={line} beat={beat} scale={scale} naming={naming} />
      </div>
      {asNotes && pattern && <Ruler pattern={pattern} counts={counts} />}
      <StripActions line={line} />
      <div className="strip-hint">
        <LookAlikes naming={naming} which={strips[current] && lookAlikeOf(strips[current])} />
      </div>
      <div className="tray" role="group" aria-label="Tray of strips">
        {TRAY.map((value) => {
          const wide = toNumber(VALUE[value.base].of) * scale;
          return (
            <TrayStrip key={value.base} value={value} width={wide} naming={naming} onLay={() => line.lay(value)} />
          );
        })}
      </div>
      <StripTools line={line} naming={naming} asNotes={asNotes} onNotes={() => setAsNotes(!asNotes)} />
    </DndContext>
  );
}

function StripActions({ line: { actions, strips, remove } }: { line: StripLine }) {
  const none = strips.length === 0;
  return (
    <div className="strip-actions" role="group" aria-label="Change the chosen strip">
      {actions.map(({ key, name, run }) => (
        <Button key={key} variant="outline-dark" disabled={none} onClick={run}>
          {name} <kbd>{key.toUpperCase()}</kbd>
        </Button>
      ))}
      <Button variant="outline-dark" disabled={none} onClick={remove}>
        Take away <kbd>⌫</kbd>
      </Button>
    </div>
  );
}

interface ToolsProps {
  readonly line: StripLine;
  readonly naming: NamingId;
  readonly asNotes: boolean;
  readonly onNotes: () => void;
}

function StripTools({ line, naming, asNotes, onNotes }: ToolsProps) {
  const { pattern, strips, chosenLine } = line;
  const navigate = useNavigate();
  const [id] = useState(() => uuid());
  const keeping = useSave((text: string) => put(`/patterns/${id}`, { title: 'From strips', text }), '/patterns');
  const save = async (made: Pattern) => {
    if (await keeping.save(printRhythm(made))) await navigate(`/patterns/${id}`);
  };
  return (
    <>
      {keeping.problem && <Notice problem={keeping.problem} />}
      <div className="stage-actions">
        <Button size="lg" disabled={!pattern} onClick={() => pattern && hear(pattern, strips)}>
          Hear it <kbd>space</kbd>
        </Button>
        <Button size="lg" variant={asNotes ? 'dark' : 'outline-dark'} aria-pressed={asNotes} onClick={onNotes}>
          As notes <kbd>N</kbd>
        </Button>
        <Select
          className="w-auto"
          label="Length of the line"
          value={String(chosenLine)}
          options={LINES.map((one, i) => [String(i), lineName(one, naming)] as const)}
          onChoose={(chosen) => line.chooseLine(Number(chosen))}
        />
        <Button
          variant="outline-dark"
          disabled={!pattern || keeping.saving}
          onClick={() => pattern && void save(pattern)}
        >
          Save as a pattern
        </Button>
        <Button variant="outline-dark" disabled={strips.length === 0} onClick={line.clear}>
          Clear
        </Button>
      </div>
    </>
  );
}
