import { t } from '../../core/words/say.ts';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { NextStep } from '../../core/records/nextStep.ts';
import { nextStepSentence, slipText } from '../../core/wording/nextStepWords.ts';
import { calibrationPath } from './inputs/calibration.ts';
import { type NamingId, inNaming } from '../../core/wording/valueNames.ts';

interface NextStepLineProps {
  readonly step: NextStep;
  readonly patternId: string;
  readonly naming: NamingId;
  /** Where another child, tempo or way is asked for: the view in which takes are made. */
  readonly to: string;
  /** Does so where the takes are made already, and no way there is needed. */
  readonly onSet?: ((change: AskedTake) => void) | undefined;
}

/** How the next take is to be. */
export interface AskedTake {
  readonly bpm?: number;
  /** The feet are taken in as well. */
  readonly task?: 'feet';
  /** Every other beat is clicked. */
  readonly clicks?: 'half';
}

/** What comes next for this child, and why, with the button that does it. */
export function NextStepLine(props: NextStepLineProps) {
  const { step, naming } = props;
  if (step.kind === 'again') return null;
  return (
    <p className="next-step">
      {reasonOf(step, naming)} <NextStepButton {...props} />
    </p>
  );
}

function reasonOf(step: Exclude<NextStep, { kind: 'again' }>, naming: NamingId): string {
  switch (step.kind) {
    case 'next-pattern':
      return nextStepSentence(step, naming);
    case 'faster':
      return t`Twice full marks.`;
    case 'half-speed':
    case 'measure':
      return t`Twice not right yet.`;
    default:
      return `${slipText(step, naming)}.`;
  }
}

/** The button of a next step; nothing where there is none but to clap once more, or another pattern. */
export function NextStepButton(props: NextStepLineProps) {
  const { step, patternId, naming } = props;
  switch (step.kind) {
    case 'again':
    case 'next-pattern':
      return null;
    case 'faster':
    case 'half-speed':
      return (
        <Now {...props} change={{ bpm: step.bpm }}>
          {step.kind === 'faster' ? t`Now at ${step.bpm}` : t`Now at half speed, ${step.bpm}`}
        </Now>
      );
    case 'measure':
    case 'place':
      return (
        <Link className={BUTTON} to={`/lead?pattern=${patternId}&from=${step.measure}&bpm=${step.bpm}`}>
          {t`${inNaming('{Measure}', naming)} ${step.measure} alone, at ${step.bpm}`}
        </Link>
      );
    case 'made':
      return <Link className={BUTTON} to={`/make?focus=misreading+${step.code}`}>{t`Make a rhythm for it`}</Link>;
    case 'feet':
      return <Now {...props} change={{ task: 'feet' }}>{t`Now with the feet on the beat`}</Now>;
    case 'half-click':
      return <Now {...props} change={{ clicks: 'half' }}>{t`Now with every other click`}</Now>;
    case 'calibrate':
      return <Link className={BUTTON} to={calibrationPath(patternId)}>{t`Calibrate this device`}</Link>;
    case 'listen':
      return <Link className={BUTTON} to={`/lead?pattern=${patternId}`}>{t`Lead it once more`}</Link>;
  }
}

const BUTTON = 'btn btn-outline-dark';

interface NowProps extends Pick<NextStepLineProps, 'to' | 'onSet'> {
  readonly change: AskedTake;
  readonly children: ReactNode;
}

function Now({ to, onSet, change, children }: NowProps) {
  if (onSet)
    return (
      <Button variant="outline-dark" onClick={() => onSet(change)}>
        {children}
      </Button>
    );
  const asked = Object.entries(change).map(([name, value]) => `&${name}=${value}`);
  return (
    <Link className={BUTTON} to={`${to}${asked.join('')}`}>
      {children}
    </Link>
  );
}
