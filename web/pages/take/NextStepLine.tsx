import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { NextStep, RepeatedStep } from '../../../core/records/nextStep.ts';
import { slipText } from '../../../core/wording/nextStepWords.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';

interface NextStepLineProps {
  readonly step: NextStep;
  readonly patternId: string;
  readonly naming: NamingId;
  readonly onBpm: (bpm: number) => void;
  /** Takes the feet in as well, at the same tempo. */
  readonly onFeet: () => void;
}

/** What comes next for this child, and why, with the button that does it. */
export function NextStepLine(props: NextStepLineProps) {
  const { step, onBpm } = props;
  switch (step.kind) {
    case 'again':
      return null;
    case 'next-pattern':
      return <p className="next-step">Twice full marks at the fastest tempo: on to the next pattern.</p>;
    case 'faster':
    case 'half-speed':
      return (
        <p className="next-step">
          {step.kind === 'faster' ? 'Twice full marks.' : 'Twice below 3.'}{' '}
          <Button variant="outline-dark" onClick={() => onBpm(step.bpm)}>
            {step.kind === 'faster' ? `Now at ${step.bpm}` : `Now at half speed, ${step.bpm}`}
          </Button>
        </p>
      );
    case 'measure':
      return (
        <p className="next-step">
          Twice below 3. <MeasureAlone {...props} {...step} />
        </p>
      );
    default:
      return (
        <p className="next-step">
          {slipText(step, props.naming)}. <Against {...props} step={step} />
        </p>
      );
  }
}

/** What stands against a misreading that comes again and again. */
function Against({ step, patternId, naming, onFeet }: NextStepLineProps & { readonly step: RepeatedStep }) {
  switch (step.kind) {
    case 'place':
      return <MeasureAlone {...step} patternId={patternId} naming={naming} />;
    case 'made':
      return (
        <Link className="btn btn-outline-dark" to={`/make?focus=misreading+${step.code}`}>
          Make a rhythm for it
        </Link>
      );
    case 'feet':
      return (
        <Button variant="outline-dark" onClick={onFeet}>
          Now with the feet on the beat
        </Button>
      );
    case 'half-click':
    case 'listen':
      return (
        <Link className="btn btn-outline-dark" to={`/lead?pattern=${patternId}`}>
          {step.kind === 'listen' ? 'Lead it once more' : 'Lead it with half of the clicks'}
        </Link>
      );
  }
}

interface MeasureAloneProps {
  readonly measure: number;
  readonly bpm: number;
  readonly patternId: string;
  readonly naming: NamingId;
}

function MeasureAlone({ measure, bpm, patternId, naming }: MeasureAloneProps) {
  return (
    <Link className="btn btn-outline-dark" to={`/lead?pattern=${patternId}&from=${measure}&bpm=${bpm}`}>
      {inNaming('{Measure}', naming)} {measure} alone, at {bpm}
    </Link>
  );
}
