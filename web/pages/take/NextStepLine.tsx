import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { NextStep } from '../../../core/records/nextStep.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';

interface NextStepLineProps {
  readonly step: NextStep;
  readonly patternId: string;
  readonly naming: NamingId;
  readonly onBpm: (bpm: number) => void;
}

/** What comes next for this child: two full marks lead on, two low ones back to something easier. */
export function NextStepLine({ step, patternId, naming, onBpm }: NextStepLineProps) {
  switch (step.kind) {
    case 'again':
      return null;
    case 'faster':
      return (
        <p className="next-step">
          Twice full marks.{' '}
          <Button variant="outline-dark" onClick={() => onBpm(step.bpm)}>
            Now at {step.bpm}
          </Button>
        </p>
      );
    case 'next-pattern':
      return <p className="next-step">Twice full marks at the fastest tempo: on to the next pattern.</p>;
    case 'half-speed':
      return (
        <p className="next-step">
          Twice below 3.{' '}
          <Button variant="outline-dark" onClick={() => onBpm(step.bpm)}>
            Now at half speed, {step.bpm}
          </Button>
        </p>
      );
    case 'measure':
      return (
        <p className="next-step">
          Twice below 3.{' '}
          <Link className="btn btn-outline-dark" to={`/lead?pattern=${patternId}&from=${step.measure}&bpm=${step.bpm}`}>
            {inNaming('{Measure}', naming)} {step.measure} alone, at {step.bpm}
          </Link>
        </p>
      );
  }
}
