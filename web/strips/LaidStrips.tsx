import { t } from '../../core/words/say.ts';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Strip } from '../../core/exercises/strips.ts';
import { div, toNumber } from '../../core/rhythm/fraction.ts';
import { type NoteValue, VALUE, type ValueLetter, lengthOf } from '../../core/rhythm/value.ts';
import { partName } from '../../core/wording/sumWords.ts';
import { type NamingId, withArticle } from '../../core/wording/valueNames.ts';
import { NoteSign } from '../ui/signs/NoteSign.tsx';
import type { StripLine } from './useStripLine.ts';

interface LaidStripsProps {
  readonly line: StripLine;
  readonly beat: ValueLetter;
  /** Pixels of a whole note. */
  readonly scale: number;
  readonly naming: NamingId;
}

/** The strips on the line, true to length, and the beats under them. */
export function LaidStrips({ line, beat, scale, naming }: LaidStripsProps) {
  const { setNodeRef, isOver } = useDroppable({ id: 'line' });
  const beats = Math.floor(toNumber(div(line.length, VALUE[beat].of)));
  return (
    <>
      <div ref={setNodeRef} className={`strip-line ${isOver ? 'over' : ''}`}>
        {line.strips.map((strip, i) => (
          <Laid
            key={i}
            strip={strip}
            index={i}
            width={toNumber(lengthOf(strip.value)) * scale}
            current={i === line.current}
            naming={naming}
            onChoose={() => line.choose(i)}
          />
        ))}
      </div>
      <div className="line-beats" aria-hidden>
        {Array.from({ length: beats }, (_, i) => (
          <span key={i} style={{ left: i * toNumber(VALUE[beat].of) * scale }}>
            {i + 1}
          </span>
        ))}
      </div>
    </>
  );
}

function dragged(transform: { x: number; y: number } | null): { transform?: string } {
  return transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {};
}

interface LaidProps {
  readonly strip: Strip;
  readonly index: number;
  readonly width: number;
  readonly current: boolean;
  readonly naming: NamingId;
  readonly onChoose: () => void;
}

function Laid({ strip, index, width, current, naming, onChoose }: LaidProps) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: `laid-${index}`, data: { strip: index } });
  const part = partName(strip, naming);
  const name = strip.tied ? t`tied ${part}` : part;
  const classes = [
    'laid',
    `laid-${strip.kind}`,
    strip.second ? 'second' : '',
    strip.tied ? 'tied' : '',
    current ? 'current' : '',
  ];
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={classes.filter(Boolean).join(' ')}
      style={{ width, ...dragged(transform) }}
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

interface TrayStripProps {
  readonly value: NoteValue;
  readonly width: number;
  readonly naming: NamingId;
  readonly onLay: () => void;
}

/** A strip of the tray, to be pressed or dragged onto the line. */
export function TrayStrip({ value, width, naming, onLay }: TrayStripProps) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: `tray-${value.base}`, data: { tray: value } });
  const name = partName({ kind: 'note', value }, naming);
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="laid laid-note"
      style={{ width, ...dragged(transform) }}
      title={name}
      aria-label={t`Lay ${withArticle(name)}, key ${value.base.toUpperCase()}`}
      onClick={onLay}
      {...listeners}
    >
      <NoteSign value={value} />
    </button>
  );
}
