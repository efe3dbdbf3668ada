import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { Timetable } from '../../../core/leading/timetable.ts';
import type { SoundSettings } from './SoundPanel.tsx';
import { usePracticeTrack } from './usePracticeTrack.ts';

interface PracticeTrackBoxProps {
  /** Undefined while the plan cannot be led. */
  readonly table: Timetable | undefined;
  readonly sound: SoundSettings;
  readonly title: string;
}

/** The run as a sound file, to practise at home. */
export function PracticeTrackBox({ table, sound, title }: PracticeTrackBoxProps) {
  const { part, problem, make } = usePracticeTrack();
  return (
    <fieldset>
      <legend>Practise at home</legend>
      <div className="plan-row">
        <Button
          variant="outline-dark"
          disabled={!table || part !== undefined}
          onClick={() => table && void make(table, sound, `${title}.wav`)}
        >
          Make a sound file
        </Button>
        {part !== undefined && (
          <ProgressBar
            className="flex-grow-1"
            now={part * 100}
            label={`${Math.round(part * 100)} %`}
            aria-label="Making the sound file"
          />
        )}
        {problem && <span className="lead-trouble">{problem}</span>}
      </div>
    </fieldset>
  );
}
