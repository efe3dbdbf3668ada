import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import type { CountOptions } from '../../core/counting/count.ts';
import { type Strip, soundingStrips } from '../../core/exercises/strips.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { type NoteValue, VALUE, type ValueLetter, lengthOf } from '../../core/rhythm/value.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { type NamingId, capital, valueName } from '../../core/wording/valueNames.ts';
import { playPercussion } from '../audio/playPercussion.ts';
import { Ruler } from '../ruler/Ruler.tsx';
import { useWidth } from '../ruler/useWidth.ts';
import { LookAlikes, lookAlikeOf } from '../ui/signs/LookAlikes.tsx';
import { useKeys } from '../ui/useKeys.ts';
import { LaidStrips, TrayStrip } from './LaidStrips.tsx';
import { TRAY } from './stripLines.ts';
import type { StripLine } from './useStripLine.ts';
import './strips.scss';

/** As claps; the strips of the other colour as a wood block. @param bpm  beats of the meter a minute */
export function hearStrips(pattern: Pattern, strips: readonly Strip[], bpm: number): void {
  const sounding = soundingStrips(strips);
  const hits = scheduleOf(pattern, bpm).notes.map(({ time }, i) => ({
    time,
    sound: sounding[i]?.second ? ('wood' as const) : ('clap' as const),
  }));
  void playPercussion(hits);
}

function useStripKeys(
  line: StripLine,
  tray: readonly NoteValue[],
  only: readonly string[] | undefined,
  onNotes: () => void,
  naming: NamingId,
): void {
  const { current } = line;
  const missing = (what: string) => () => line.refuse(t`${capital(what)} cannot be used here: open up the tray first.`);
  useKeys({
    // A key that does nothing looks broken: it says what is not there.
    ...Object.fromEntries(TRAY.map(({ base }) => [base, missing(valueName({ base, dots: 0 }, naming, true))])),
    ...Object.fromEntries(line.actions.map(({ key, name }) => [key, missing(`“${name}”`)])),
    ...Object.fromEntries(tray.map((value) => [value.base, () => line.lay(value)])),
    ...Object.fromEntries(
      line.actions.filter(({ key }) => !only || only.includes(key)).map(({ key, run }) => [key, run]),
    ),
    ArrowLeft: ({ shiftKey }) => (shiftKey ? line.move(current, current - 1) : line.choose(current - 1)),
    ArrowRight: ({ shiftKey }) => (shiftKey ? line.move(current, current + 1) : line.choose(current + 1)),
    Backspace: line.remove,
    Delete: line.remove,
    n: onNotes,
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

interface BoardProps {
  readonly line: StripLine;
  readonly naming: NamingId;
  /** The value that gets the beat. */
  readonly beat: ValueLetter;
  readonly asNotes: boolean;
  readonly onNotes: () => void;
  /** The strips there are to lay; all values where it is left out. */
  readonly tray?: readonly NoteValue[];
  /** Keys of what can be done with a strip; everything where it is left out. */
  readonly actions?: readonly string[] | undefined;
}

/** A line to lay strips on, end to end, what can be done with the chosen one, and a tray true to length. */
export function StripBoard({ line, naming, beat, asNotes, onNotes, tray = TRAY, actions }: BoardProps) {
  const [ref, width] = useWidth();
  const scale = width / toNumber(line.length);
  const counts = useMemo((): readonly CountOptions[] => [{ school: 'numbers', beat }], [beat]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useStripKeys(line, tray, actions, onNotes, naming);
  const dropped = ({ active, over, delta, activatorEvent }: DragEndEvent) => {
    if (!over) return;
    const x = (activatorEvent as PointerEvent).clientX + delta.x - over.rect.left;
    const place = dropPlace(line.strips, x, scale);
    const { tray: fromTray, strip } = active.data.current as { tray?: NoteValue; strip?: number };
    if (fromTray) line.lay(fromTray, place);
    else if (strip !== undefined) line.move(strip, place > strip ? place - 1 : place);
  };
  const { strips, current, pattern } = line;
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={dropped}
      accessibility={{ screenReaderInstructions: { draggable: t`The keys beside it move it too.` } }}
    >
      <div ref={ref} className={`line-box ${asNotes && pattern ? 'as-notes' : ''}`}>
        <LaidStrips line={line} beat={beat} scale={scale} naming={naming} />
      </div>
      {asNotes && pattern && <Ruler pattern={pattern} counts={counts} />}
      <StripActions line={line} only={actions} />
      <div className="strip-hint">
        <LookAlikes naming={naming} which={strips[current] && lookAlikeOf(strips[current])} />
      </div>
      <div className="tray" role="group" aria-label={t`Tray of strips`}>
        {tray.map((value) => {
          const wide = toNumber(VALUE[value.base].of) * scale;
          return (
            <TrayStrip key={value.base} value={value} width={wide} naming={naming} onLay={() => line.lay(value)} />
          );
        })}
      </div>
    </DndContext>
  );
}

function StripActions({
  line: { actions, strips, remove },
  only,
}: {
  line: StripLine;
  only: readonly string[] | undefined;
}) {
  const none = strips.length === 0;
  return (
    <div className="strip-actions" role="group" aria-label={t`Change the chosen strip`}>
      {actions
        .filter(({ key }) => !only || only.includes(key))
        .map(({ key, name, run }) => (
          <Button key={key} variant="outline-dark" disabled={none} onClick={run}>
            {name} <kbd>{key.toUpperCase()}</kbd>
          </Button>
        ))}
      <Button variant="outline-dark" disabled={none} onClick={remove}>
        {rich`Take away ${<kbd>⌫</kbd>}`}
      </Button>
    </div>
  );
}
