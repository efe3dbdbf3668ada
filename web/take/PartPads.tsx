import { t } from '../../core/words/say.ts';
import type { PointerEvent } from 'react';
import { PartFigure } from '../ruler/PartFigure.tsx';
import type { TakePart } from './takePart.ts';
import type { TakeRun } from './useTakeRun.ts';
import type { Limb } from './taken.ts';

/** Two parts that are tapped at once, and who taps them; the same child may have both. */
export interface Pair {
  readonly parts: readonly [TakePart, TakePart];
  readonly names: readonly [string, string];
}

const PADS: readonly (readonly [limb: Limb, key: string, id: string])[] = [
  ['hands', 'F', 'pad'],
  ['feet', 'J', 'second-pad'],
];

/** A pad a part, left and right, each with its key. */
export function PartPads({ run, pair }: { run: TakeRun; pair: Pair }) {
  const press = (limb: Limb) => (event: PointerEvent) => {
    event.preventDefault();
    run.tap(event.timeStamp, limb, String(event.pointerId));
  };
  const counts = [run.taps, run.second];
  return (
    <div className="pads">
      {PADS.map(([limb, key, id], i) => {
        const part = pair.parts[i]!;
        const waiting = run.state === 'playing' ? (counts[i] === 0 ? t`Tap!` : '') : '…';
        return (
          <div
            key={id}
            className="pad"
            onPointerDown={press(limb)}
            data-testid={id}
            data-beat-one={i === 0 ? run.beatOne : undefined}
          >
            <span className="pad-who">
              <PartFigure name={part.name ?? ''} index={part.index} /> {part.name}
              {pair.names[0] !== pair.names[1] && <strong>{pair.names[i]}</strong>}
            </span>
            <span className="pad-word" role={i === 0 ? 'status' : undefined}>
              {run.word ?? waiting}
            </span>
            <span className="pad-limb">
              <kbd>{key}</kbd>
            </span>
            <span className="pad-taps" aria-hidden>
              {counts[i]! > 0 ? counts[i] : ''}
            </span>
          </div>
        );
      })}
    </div>
  );
}
