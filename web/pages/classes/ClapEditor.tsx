import { type MouseEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TakeDetail } from '../../../contract/take.ts';
import { put } from '../../api/client.ts';
import { outlineOf } from '../../audio/outlines.ts';
import { Notice } from '../../ui/Notice.tsx';

interface Clap {
  readonly time: number;
  readonly struck: boolean;
}

const MARGIN = 0.3;
const HEIGHT = 70;

/** Claps that were found wrongly are struck out, missing ones added; then the take is judged again, and says so. */
export function ClapEditor({ take, onChanged }: { take: TakeDetail; onChanged: () => Promise<unknown> }) {
  const [claps, setClaps] = useState<readonly Clap[]>(() => take.onsets.map((time) => ({ time, struck: false })));
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<Error>();
  const outline = outlineOf(take.id);
  const from = Math.min(0, ...claps.map(({ time }) => time)) - MARGIN;
  const to = Math.max(1, ...claps.map(({ time }) => time)) + MARGIN;
  const place = (time: number) => `${((time - from) / (to - from)) * 100}%`;
  const add = (time: number) =>
    setClaps([...claps, { time: Math.round(time * 1e4) / 1e4, struck: false }].sort((a, b) => a.time - b.time));
  const addHere = (event: MouseEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const box = event.currentTarget.getBoundingClientRect();
    add(from + ((event.clientX - box.left) / box.width) * (to - from));
  };
  const onsets = claps.filter(({ struck }) => !struck).map(({ time }) => time);
  const changed = JSON.stringify(onsets) !== JSON.stringify(take.onsets);
  const save = async () => {
    try {
      setProblem(undefined);
      await put(`/takes/${take.id}/onsets`, { onsets });
      await onChanged();
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const seconds = Number(typed.replace(',', '.'));
  return (
    <details className="clap-editor no-print">
      <summary>Correct the claps</summary>
      <p>Choose a clap to strike it out or take it back; click an empty place to add one.</p>
      <div className="clap-track" style={{ height: HEIGHT }} onClick={addHere} role="presentation">
        {outline && (
          <OutlinePath peaks={outline.peaks} step={outline.stepSeconds} start={outline.from} from={from} to={to} />
        )}
        {claps.map(({ time, struck }, i) => (
          <button
            key={`${time} ${i}`}
            type="button"
            className={struck ? 'clap struck' : 'clap'}
            style={{ left: place(time) }}
            aria-pressed={struck}
            aria-label={`Clap at ${time.toFixed(2)} seconds${struck ? ', struck out' : ''}`}
            onClick={() => setClaps(claps.map((clap, k) => (k === i ? { ...clap, struck: !clap.struck } : clap)))}
          />
        ))}
      </div>
      <div className="override-form">
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
          onClick={() => {
            add(seconds);
            setTyped('');
          }}
        >
          Add a clap
        </Button>
        <Button size="sm" disabled={!changed} onClick={() => void save()}>
          Judge again
        </Button>
      </div>
      {problem && <Notice problem={problem} />}
    </details>
  );
}

function OutlinePath({
  peaks,
  step,
  start,
  from,
  to,
}: {
  peaks: Float32Array;
  step: number;
  start: number;
  from: number;
  to: number;
}) {
  const width = 1000;
  const most = peaks.reduce((a, b) => Math.max(a, b), 0.05);
  const heights = Array.from({ length: width }, (_, x) => {
    const at = (pixel: number) => Math.floor((from + (pixel / width) * (to - from) - start) / step);
    let peak = 0;
    for (let k = Math.max(0, at(x)); k < Math.min(peaks.length, Math.max(at(x) + 1, at(x + 1))); k++)
      peak = Math.max(peak, peaks[k]!);
    return (peak / most) * 48;
  });
  const path = `M${heights.map((y, x) => `${x} ${50 - y}`).join(' L')} L${heights
    .map((y, x) => `${x} ${50 + y}`)
    .reverse()
    .join(' L')} Z`;
  return (
    <svg className="clap-outline" viewBox={`0 0 ${width} 100`} preserveAspectRatio="none" aria-hidden>
      <path d={path} />
    </svg>
  );
}
