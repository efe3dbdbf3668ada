import { type MouseEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TakeDetail } from '../../../contract/take.ts';
import type { Seconds } from '../../../core/timing/units.ts';
import { put } from '../../api/client.ts';
import { outlineOf } from '../../audio/outlines.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../ui/useSave.ts';
import { OutlinePath } from './OutlinePath.tsx';

interface Clap {
  readonly time: Seconds;
  readonly struck: boolean;
}

const MARGIN: Seconds = 0.3;

/** Claps that were found wrongly are struck out, missing ones added; then the take is judged again, and says so. */
export function ClapEditor({ take }: { take: TakeDetail }) {
  const [claps, setClaps] = useState<readonly Clap[]>(() => take.onsets.map((time) => ({ time, struck: false })));
  const judging = useSave(
    (onsets: readonly Seconds[]) => put(`/takes/${take.id}/onsets`, { onsets }),
    '/takes',
    '/classes',
  );
  const add = (time: Seconds) => {
    const clap = { time: Math.round(time * 1e4) / 1e4, struck: false };
    setClaps([...claps, clap].sort((a, b) => a.time - b.time));
  };
  const toggle = (at: number) =>
    setClaps(claps.map((clap, i) => (i === at ? { ...clap, struck: !clap.struck } : clap)));
  const onsets = claps.filter(({ struck }) => !struck).map(({ time }) => time);
  const changed = JSON.stringify(onsets) !== JSON.stringify(take.onsets);
  return (
    <details className="clap-editor no-print">
      <summary>Correct the claps</summary>
      <p>Choose a clap to strike it out or take it back; click an empty place to add one.</p>
      <ClapTrack takeId={take.id} claps={claps} onAdd={add} onToggle={toggle} />
      <div className="override-form">
        <AddClap onAdd={add} />
        <Button size="sm" disabled={!changed} onClick={() => void judging.save(onsets)}>
          Judge again
        </Button>
      </div>
      {judging.problem && <Notice problem={judging.problem} />}
    </details>
  );
}

interface TrackProps {
  readonly takeId: string;
  readonly claps: readonly Clap[];
  readonly onAdd: (time: Seconds) => void;
  readonly onToggle: (at: number) => void;
}

function ClapTrack({ takeId, claps, onAdd, onToggle }: TrackProps) {
  const outline = outlineOf(takeId);
  const times = claps.map(({ time }) => time);
  const [from, to] = [Math.min(0, ...times) - MARGIN, Math.max(1, ...times) + MARGIN];
  const addHere = (event: MouseEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const box = event.currentTarget.getBoundingClientRect();
    onAdd(from + ((event.clientX - box.left) / box.width) * (to - from));
  };
  return (
    <div className="clap-track" onClick={addHere} role="presentation">
      {outline && <OutlinePath outline={outline} span={{ from, to }} />}
      {claps.map(({ time, struck }, i) => (
        <button
          key={`${time} ${i}`}
          type="button"
          className={struck ? 'clap struck' : 'clap'}
          style={{ left: `${((time - from) / (to - from)) * 100}%` }}
          aria-pressed={struck}
          aria-label={`Clap at ${time.toFixed(2)} seconds${struck ? ', struck out' : ''}`}
          onClick={() => onToggle(i)}
        />
      ))}
    </div>
  );
}

function AddClap({ onAdd }: { onAdd: (time: Seconds) => void }) {
  const [typed, setTyped] = useState('');
  const seconds = Number(typed.replace(',', '.'));
  const add = () => {
    onAdd(seconds);
    setTyped('');
  };
  return (
    <>
      <Form.Control
        size="sm"
        inputMode="decimal"
        aria-label="Seconds of a clap to add"
        placeholder="seconds"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button
        size="sm"
        variant="outline-dark"
        disabled={typed.trim() === '' || !Number.isFinite(seconds)}
        onClick={add}
      >
        Add a clap
      </Button>
    </>
  );
}
