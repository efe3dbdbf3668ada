import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { Timetable } from '../../../core/leading/timetable.ts';
import { Select } from '../../ui/Select.tsx';
import type { SoundSettings } from './SoundPanel.tsx';
import { usePracticeTrack } from './usePracticeTrack.ts';

interface PracticeTrackBoxProps {
  /** Undefined while the plan cannot be led. */
  readonly table: Timetable | undefined;
  readonly sound: SoundSettings;
  readonly title: string;
  /** Names of the parts. */
  readonly parts: readonly string[];
}

const NONE = '';

/** The run as a sound file, to practise at home. */
export function PracticeTrackBox({ table, sound, title, parts }: PracticeTrackBoxProps) {
  const [missing, setMissing] = useState(NONE);
  const left = missing === NONE ? undefined : Number(missing);
  const name = left === undefined ? title : t`${title}, ${parts[left] ?? ''} missing`;
  const { part, problem, make } = usePracticeTrack();
  return (
    <fieldset>
      <legend>{t`Practise at home`}</legend>
      <div className="plan-row">
        <Button
          variant="outline-dark"
          disabled={!table || part !== undefined}
          onClick={() => table && void make(table, sound, `${name}.wav`, left)}
        >
          {t`Make a sound file`}
        </Button>
        {parts.length > 1 && (
          <Select
            size="sm"
            className="w-auto"
            label={t`Your part`}
            value={missing}
            options={[
              [NONE, t`with all parts`],
              ...parts.map((one, i) => [String(i), `your part missing: ${one}`] as const),
            ]}
            onChoose={setMissing}
          />
        )}
        {part !== undefined && (
          <ProgressBar
            className="flex-grow-1"
            now={part * 100}
            label={`${Math.round(part * 100)} %`}
            aria-label={t`Making the sound file`}
          />
        )}
        {problem && <span className="lead-trouble">{problem}</span>}
      </div>
    </fieldset>
  );
}
