import { t } from '../../../core/words/say.ts';
import { Minus, Plus } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Bpm } from '../../../core/timing/units.ts';

const SLOWEST: Bpm = 30;
const FASTEST: Bpm = 240;
/** At a key or button. */
export const TEMPO_STEP: Bpm = 4;

/** A whole tempo that children can clap at. */
export function sensibleTempo(bpm: Bpm): Bpm {
  return Math.max(SLOWEST, Math.min(FASTEST, Math.round(bpm)));
}

/** The tempo, to be typed or stepped. */
export function TempoField({ bpm, onBpm }: { bpm: Bpm; onBpm: (bpm: Bpm) => void }) {
  return (
    <Form.Group controlId="take-bpm">
      <Form.Label>{t`Tempo, beats a minute`}</Form.Label>
      <div className="tempo">
        <Button variant="outline-dark" aria-label={t`Slower`} onClick={() => onBpm(sensibleTempo(bpm - TEMPO_STEP))}>
          <Minus size={18} aria-hidden />
        </Button>
        <Form.Control
          type="number"
          min={SLOWEST}
          max={FASTEST}
          value={bpm}
          onChange={(event) => onBpm(Number(event.target.value))}
          onBlur={() => onBpm(sensibleTempo(bpm))}
        />
        <Button variant="outline-dark" aria-label={t`Faster`} onClick={() => onBpm(sensibleTempo(bpm + TEMPO_STEP))}>
          <Plus size={18} aria-hidden />
        </Button>
      </div>
    </Form.Group>
  );
}
