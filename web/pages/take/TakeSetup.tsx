import { Minus, Plus } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Child, ClassDetail, SavedPattern } from '../../../contract/school.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import type { CountOptions } from '../../../core/counting/count.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { SelectField, titled } from '../../ui/SelectField.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { CalibrationPanel } from '../../take/inputs/CalibrationPanel.tsx';
import { MicrophonePanel } from '../../take/inputs/MicrophonePanel.tsx';
import { PracticeChild } from './PracticeChild.tsx';
import { type RecordingTake, RecordingsPanel } from './RecordingsPanel.tsx';
import { TASKS, type Task, type HeardBy } from '../../take/useTakeRun.ts';

const SLOWEST = 30;
const FASTEST = 240;
const STEP = 4;

interface SetupProps {
  readonly room: ClassDetail;
  readonly classes: readonly { id: string; name: string }[];
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
  readonly unfolded: Pattern;
  readonly child: Child;
  readonly bpm: number;
  readonly counts: readonly CountOptions[];
  readonly onClass: (id: string) => void;
  readonly onPattern: (id: string) => void;
  readonly onChild: (id: string) => void;
  readonly onBpm: (bpm: number) => void;
  readonly onStart: () => void;
  readonly onPractise: (child: SimulatedChild) => void;
  readonly way: HeardBy;
  readonly onWay: (way: HeardBy) => void;
  readonly task: Task;
  readonly onTask: (task: Task) => void;
  readonly free: boolean;
  readonly onFree: (free: boolean) => void;
  readonly problem: Error | undefined;
  readonly onRecording: (take: RecordingTake) => number | undefined;
}

const HEARD_BY = [
  ['claps', 'taps'],
  ['held', 'taps, held'],
  ['feet', 'taps and feet'],
  ['microphone', 'microphone'],
] as const;
const CLICKS = [
  ['all', 'all through'],
  ['count-in', 'count-in only'],
] as const;

/** Who claps what, how fast. */
export function TakeSetup({
  room,
  classes,
  patterns,
  pattern,
  unfolded,
  child,
  bpm,
  counts,
  onClass,
  onPattern,
  onChild,
  onBpm,
  onStart,
  onPractise,
  way,
  onWay,
  task,
  onTask,
  free,
  onFree,
  problem,
  onRecording,
}: SetupProps) {
  const [calibrating, setCalibrating] = useState(false);
  const set = (value: number) => onBpm(Math.max(SLOWEST, Math.min(FASTEST, Math.round(value))));
  useKeys(calibrating ? {} : { ' ': onStart, ArrowUp: () => set(bpm + STEP), ArrowDown: () => set(bpm - STEP) });
  const hear = (chosen: string) => {
    onWay(chosen === 'microphone' ? 'microphone' : 'tap');
    onTask(TASKS.find((one) => one === chosen) ?? 'claps');
  };
  const heard = new Set(room.takes.filter(({ patternId }) => patternId === pattern.id).map(({ childId }) => childId));
  return (
    <div className="take-setup">
      <div className="choices">
        <SelectField
          id="take-class"
          label="Class"
          value={room.id}
          options={classes.map(({ id, name }) => [id, name])}
          onChoose={onClass}
        />
        <SelectField
          id="take-pattern"
          label="Pattern"
          value={pattern.id}
          options={titled(patterns)}
          onChoose={onPattern}
        />
        <Form.Group controlId="take-bpm">
          <Form.Label>Tempo, beats a minute</Form.Label>
          <div className="tempo">
            <Button variant="outline-dark" aria-label="Slower" onClick={() => set(bpm - STEP)}>
              <Minus size={18} aria-hidden />
            </Button>
            <Form.Control
              type="number"
              min={SLOWEST}
              max={FASTEST}
              value={bpm}
              onChange={(event) => onBpm(Number(event.target.value))}
              onBlur={() => set(bpm)}
            />
            <Button variant="outline-dark" aria-label="Faster" onClick={() => set(bpm + STEP)}>
              <Plus size={18} aria-hidden />
            </Button>
          </div>
        </Form.Group>
        <SelectField
          id="take-way"
          label="Heard by"
          value={way === 'microphone' ? way : task}
          options={HEARD_BY}
          onChoose={hear}
        />
        <SelectField
          id="take-clicks"
          label="Click"
          value={free ? 'count-in' : 'all'}
          options={CLICKS}
          onChoose={(chosen) => onFree(chosen === 'count-in')}
        />
        <Button size="lg" className="start" onClick={onStart}>
          Start: {child.name} <kbd>space</kbd>
        </Button>
      </div>
      {problem && <Notice problem={problem} />}
      {way === 'microphone' && <MicrophonePanel keeps={room.recordingDays ?? null} onTap={() => onWay('tap')} />}
      {calibrating && <CalibrationPanel way="tap" onDone={() => setCalibrating(false)} />}
      <Ruler pattern={unfolded} counts={counts} />
      <fieldset className="children">
        <legend>Who claps?</legend>
        {room.children.map(({ id, name }) => (
          <label key={id} className={`child-choice ${id === child.id ? 'chosen' : ''}`}>
            <input type="radio" name="child" checked={id === child.id} onChange={() => onChild(id)} />
            {name}
            {heard.has(id) && (
              <span className="heard-before" title="has a take of this pattern">
                ✓<span className="visually-hidden"> has a take of this pattern</span>
              </span>
            )}
          </label>
        ))}
      </fieldset>
      <div className="take-below">
        <PracticeChild naming={namingOf(room)} onPractise={onPractise} />
        <Button size="sm" variant="outline-dark" onClick={() => setCalibrating(true)}>
          Calibrate this device
        </Button>
      </div>
      <RecordingsPanel children={room.children} bpm={bpm} onTake={onRecording} />
    </div>
  );
}
