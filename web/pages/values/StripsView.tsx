import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type ReactNode, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { beatsText, partName } from '../../../core/exercises/valueSums.ts';
import {
  type Changed,
  type Strip,
  colourStrip,
  dotStrip,
  insertStrip,
  joinStrips,
  leftToFill,
  moveStrip,
  removeStrip,
  restStrip,
  soundingStrips,
  splitStrip,
  stripsPattern,
  stripsThatFit,
  tieStrip,
} from '../../../core/exercises/strips.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import { type Fraction, div, frac, toNumber } from '../../../core/rhythm/fraction.ts';
import { COMMON_TIME, type Meter } from '../../../core/rhythm/meter.ts';
import { type NamingId, withArticle } from '../../../core/wording/valueNames.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { type NoteValue, VALUE, VALUES, lengthOf } from '../../../core/rhythm/value.ts';
import { put } from '../../api/client.ts';
import { useRefresh } from '../../api/hooks.ts';
import { playPercussion } from '../../audio/playPercussion.ts';
import { Ruler, useWidth } from '../../ruler/Ruler.tsx';
import { LookAlikes, lookAlikeOf } from '../../ui/signs/LookAlikes.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { type ValuesProps } from './valuesProps.ts';

interface LineChoice {
  readonly title: string;
  readonly meter: Meter;
  readonly measures: number;
}

/** The measures of a meter that make a line of about eight quarters. */
function linesOf(meters: readonly (readonly [upper: number, lower: number, measures: number])[]): LineChoice[] {
  return meters.map(([upper, lower, measures]) => ({
    title: `${upper}/${lower}, ${measures} ${measures === 1 ? 'measure' : 'measures'}`,
    meter: { upper, lower },
    measures,
  }));
}

function lineOf({ meter, measures }: LineChoice): Fraction {
  return frac(meter.upper * measures, meter.lower);
}

const LINES: readonly LineChoice[] = [
  { title: '4 beats', meter: COMMON_TIME, measures: 1 },
  { title: '8 beats', meter: COMMON_TIME, measures: 2 },
  ...linesOf([
    [2, 4, 4],
    [3, 4, 2],
    [2, 2, 2],
    [3, 2, 1],
    [3, 8, 4],
    [6, 8, 2],
    [9, 8, 1],
    [12, 8, 1],
    [5, 4, 1],
    [5, 8, 2],
    [7, 8, 2],
  ]),
];
const TRAY: readonly NoteValue[] = VALUES.filter(({ letter }) => letter !== 't').map(({ letter }) => ({
  base: letter,
  dots: 0,
}));
const HEARD_BPM = 80;

/** A tray of strips true to length, and a line to lay them on, end to end. */
export function StripsView({ naming, beat }: ValuesProps) {
  const [chosen, setChosen] = useState(0);
  const [strips, setStrips] = useState<readonly Strip[]>([]);
  const [at, setAt] = useState(0);
  const [asNotes, setAsNotes] = useState(false);
  const [said, setSaid] = useState('');
  const [ref, width] = useWidth();
  const refresh = useRefresh();
  const navigate = useNavigate();
  const { meter } = LINES[chosen]!;
  const line = lineOf(LINES[chosen]!);
  const scale = width / toNumber(line);
  const left = leftToFill(strips, line);
  const pattern = stripsPattern(strips, meter);
  const counts = useMemo(() => [{ school: 'numbers' as const, beat }], [beat]);
  const current = Math.min(at, strips.length - 1);
  const chooseLine = (next: number) => {
    setChosen(next);
    setStrips(stripsThatFit(strips, lineOf(LINES[next]!)));
  };
  const make = (change: Changed, next = current) => {
    setSaid(change.ok ? '' : `That does not work: ${change.reason}.`);
    if (!change.ok) return;
    setStrips(change.strips);
    setAt(Math.max(0, Math.min(next, change.strips.length - 1)));
  };
  const lay = (value: NoteValue, place = strips.length) =>
    make(insertStrip(strips, place, { kind: 'note', value }, line), place);
  const change = (how: (strips: readonly Strip[], at: number) => Changed, next?: number) =>
    strips.length > 0 && make(how(strips, current), next);
  /** As claps; the strips of the other colour as a wood block. */
  const hear = () => {
    if (!pattern) return;
    const sounding = soundingStrips(strips);
    void playPercussion(
      scheduleOf(pattern, HEARD_BPM).notes.map(({ time }, i) => ({
        time,
        sound: sounding[i]?.second ? 'wood' : 'clap',
      })),
    );
  };
  const save = async () => {
    if (!pattern) return;
    const id = uuid();
    await put(`/patterns/${id}`, { title: 'From strips', text: printRhythm(pattern) });
    await refresh('/patterns');
    await navigate(`/patterns/${id}`);
  };
  const actions: readonly { key: string; name: string; run: () => void }[] = [
    { key: 'x', name: 'Split in two', run: () => change(splitStrip) },
    { key: 'j', name: 'Join with the next', run: () => change(joinStrips) },
    { key: 't', name: 'Tie to the one before', run: () => change(tieStrip) },
    { key: '.', name: 'Dot', run: () => change((list, i) => dotStrip(list, i, line)) },
    { key: 'r', name: 'Rest', run: () => change(restStrip) },
    { key: 'c', name: 'Other colour', run: () => change(colourStrip) },
  ];
  useKeys({
    ...Object.fromEntries(TRAY.map((value) => [value.base, () => lay(value)])),
    ...Object.fromEntries(actions.map(({ key, run }) => [key, run])),
    ArrowLeft: (event) =>
      event.shiftKey
        ? current > 0 && make(moveStrip(strips, current, current - 1), current - 1)
        : setAt(Math.max(0, current - 1)),
    ArrowRight: (event) =>
      event.shiftKey
        ? current < strips.length - 1 && make(moveStrip(strips, current, current + 1), current + 1)
        : setAt(Math.min(strips.length - 1, current + 1)),
    Backspace: () => change(removeStrip),
    Delete: () => change(removeStrip),
    n: () => setAsNotes(!asNotes),
    ' ': hear,
  });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const dropped = ({ active, over, delta, activatorEvent }: DragEndEvent) => {
    if (!over) return;
    const box = over.rect;
    const x = (activatorEvent as PointerEvent).clientX + delta.x - box.left;
    let place = 0;
    for (let end = 0; place < strips.length; place++) {
      const own = toNumber(lengthOf(strips[place]!.value)) * scale;
      if (x < end + own / 2) break;
      end += own;
    }
    const { tray, strip } = active.data.current as { tray?: NoteValue; strip?: number };
    if (tray) lay(tray, place);
    else if (strip !== undefined)
      make(moveStrip(strips, strip, place > strip ? place - 1 : place), place > strip ? place - 1 : place);
  };
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <p className="big-line" role="status">
        {said || (left.n === 0 ? 'The line is full' : `${beatsText(div(left, VALUE[beat].of))} left to fill`)}
      </p>
      <div ref={ref} className={`line-box ${asNotes && pattern ? 'as-notes' : ''}`}>
        <Line>
          {strips.map((strip, i) => (
            <Laid
              key={i}
              strip={strip}
              index={i}
              width={toNumber(lengthOf(strip.value)) * scale}
              current={i === current}
              naming={naming}
              onChoose={() => setAt(i)}
            />
          ))}
        </Line>
        <div className="line-beats" aria-hidden>
          {Array.from({ length: Math.floor(toNumber(div(line, VALUE[beat].of))) }, (_, i) => (
            <span key={i} style={{ left: i * toNumber(VALUE[beat].of) * scale }}>
              {i + 1}
            </span>
          ))}
        </div>
      </div>
      {asNotes && pattern && <Ruler pattern={pattern} counts={counts} />}
      <div className="strip-actions" role="group" aria-label="Change the chosen strip">
        {actions.map(({ key, name, run }) => (
          <Button key={key} variant="outline-dark" disabled={strips.length === 0} onClick={run}>
            {name} <kbd>{key.toUpperCase()}</kbd>
          </Button>
        ))}
        <Button variant="outline-dark" disabled={strips.length === 0} onClick={() => change(removeStrip)}>
          Take away <kbd>⌫</kbd>
        </Button>
      </div>
      <div className="strip-hint">
        <LookAlikes naming={naming} which={strips[current] && lookAlikeOf(strips[current])} />
      </div>
      <div className="tray" role="group" aria-label="Tray of strips">
        {TRAY.map((value) => (
          <TrayStrip
            key={value.base}
            value={value}
            width={toNumber(VALUE[value.base].of) * scale}
            naming={naming}
            onLay={() => lay(value)}
          />
        ))}
      </div>
      <div className="stage-actions">
        <Button size="lg" disabled={!pattern} onClick={hear}>
          Hear it <kbd>space</kbd>
        </Button>
        <Button
          size="lg"
          variant={asNotes ? 'dark' : 'outline-dark'}
          aria-pressed={asNotes}
          onClick={() => setAsNotes(!asNotes)}
        >
          As notes <kbd>N</kbd>
        </Button>
        <Form.Select
          className="w-auto"
          aria-label="Length of the line"
          value={chosen}
          onChange={({ target }) => chooseLine(Number(target.value))}
        >
          {LINES.map(({ title }, i) => (
            <option key={title} value={i}>
              {title}
            </option>
          ))}
        </Form.Select>
        <Button variant="outline-dark" disabled={!pattern} onClick={() => void save()}>
          Save as a pattern
        </Button>
        <Button variant="outline-dark" disabled={strips.length === 0} onClick={() => setStrips([])}>
          Clear
        </Button>
      </div>
    </DndContext>
  );
}

function Line({ children }: { children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'line' });
  return (
    <div ref={setNodeRef} className={`strip-line ${isOver ? 'over' : ''}`}>
      {children}
    </div>
  );
}

function moved(transform: { x: number; y: number } | null): { transform?: string } {
  return transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {};
}

function Laid({
  strip,
  index,
  width,
  current,
  naming,
  onChoose,
}: {
  strip: Strip;
  index: number;
  width: number;
  current: boolean;
  naming: NamingId;
  onChoose: () => void;
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: `laid-${index}`, data: { strip: index } });
  const name = `${strip.tied ? 'tied ' : ''}${partName(strip, naming)}`;
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={`laid laid-${strip.kind} ${strip.second ? 'second' : ''} ${strip.tied ? 'tied' : ''} ${current ? 'current' : ''}`}
      style={{ width, ...moved(transform) }}
      aria-label={`${index + 1}: ${name}`}
      aria-pressed={current}
      onClick={onChoose}
      {...listeners}
    >
      {strip.value.dots > 0 && <span className="dot-part" style={{ width: `${100 / 3}%` }} />}
      <NoteSign value={strip.value} rest={strip.kind === 'rest'} />
    </button>
  );
}

function TrayStrip({
  value,
  width,
  naming,
  onLay,
}: {
  value: NoteValue;
  width: number;
  naming: NamingId;
  onLay: () => void;
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: `tray-${value.base}`, data: { tray: value } });
  const name = partName({ kind: 'note', value }, naming);
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="laid laid-note"
      style={{ width, ...moved(transform) }}
      title={name}
      aria-label={`Lay ${withArticle(name)}, key ${value.base.toUpperCase()}`}
      onClick={onLay}
      {...listeners}
    >
      <NoteSign value={value} />
    </button>
  );
}
