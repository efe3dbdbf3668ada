import { t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { Notice } from '../ui/Notice.tsx';
import type { Correction } from './useCorrection.ts';

interface BarProps {
  readonly correction: Correction;
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly onClose: () => void;
}

/** What can be done with the claps, while the ruler shows them. */
export function CorrectionBar({ correction, pattern, bpm, onClose }: BarProps) {
  const { changed, result, places, add, reset, save, problem } = correction;
  const addMissing = () => {
    const missing = result.notes.find(({ verdict }) => verdict === 'missed');
    const note = scheduleOf(pattern, bpm).notes[missing?.index ?? 0];
    if (!places || !note) return;
    add(places.timeOf({ measure: note.place.played, onset: toNumber(note.event.onset) }));
  };
  return (
    <div className="correction no-print">
      <p>{rich`Press a clap to strike it out or take it back, drag it or use ${<kbd>←</kbd>}
          ${<kbd>→</kbd>} to move it, press an empty place to add one.`}</p>
      <Button size="sm" variant="outline-dark" onClick={addMissing}>{t`Add a clap`}</Button>
      <Button size="sm" variant="outline-dark" disabled={!changed} onClick={reset}>{t`As it was heard`}</Button>
      <Button size="sm" disabled={!changed} onClick={save}>{t`Keep these claps`}</Button>
      <Button size="sm" variant="outline-dark" onClick={onClose}>{t`Close`}</Button>
      {problem && <Notice problem={problem} />}
    </div>
  );
}
