import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useSearchParams } from 'react-router';
import type { Child } from '../../../contract/child.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail, ClassSummary } from '../../../contract/schoolClass.ts';
import { scaleOf } from '../../../core/judging/scale.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';
import { partKey } from '../../../core/records/partKey.ts';
import { type Score, unfoldedParts } from '../../../core/rhythm/score.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { useLineUps } from '../../api/hooks.ts';
import { OwnDevices } from '../../domain/OwnDevices.tsx';
import { Ruler } from '../../ruler/Ruler.tsx';
import { CALIBRATE } from '../../take/inputs/calibration.ts';
import { CalibrationPanel } from '../../take/inputs/CalibrationPanel.tsx';
import { MicrophonePanel } from '../../take/inputs/MicrophonePanel.tsx';
import { TASKS } from '../../take/taken.ts';
import type { TornTake } from '../../store/keptTakes.ts';
import { Notice } from '../../ui/Notice.tsx';
import { classOptions } from '../../domain/currentClass.ts';
import { SelectField, titled } from '../../ui/SelectField.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { UnfinishedLine } from './line/Unfinished.tsx';
import { PracticeChild } from './PracticeChild.tsx';
import { RecordingsPanel } from './RecordingsPanel.tsx';
import type { RecordingTake } from './useRecordings.ts';
import { TornTakes } from './TornTakes.tsx';
import { TEMPO_STEP, TempoField, sensibleTempo } from './TempoField.tsx';
import { PartFields } from './PartFields.tsx';
import type { Second } from './useHearing.ts';
import type { usePartChoice } from './usePartChoice.ts';
import { WhoClaps } from './WhoClaps.tsx';
import { CLICKS, type TakeSettings } from './useTakeSettings.ts';

interface SetupProps {
  readonly schoolClass: ClassDetail;
  readonly classes: readonly ClassSummary[];
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
  readonly score: Score;
  readonly chosen: ReturnType<typeof usePartChoice>;
  readonly second: Second | undefined;
  readonly setWithWhom: (whom: string) => void;
  readonly child: Child;
  readonly settings: TakeSettings;
  readonly voice: Voice;
  readonly problem: Error | undefined;
  readonly onSettings: (change: Partial<TakeSettings>) => void;
  readonly onClass: (id: string) => void;
  readonly onPattern: (id: string) => void;
  readonly onChild: (id: string) => void;
  readonly onStart: () => void;
  readonly torn: readonly TornTake[];
  readonly judgeTorn: (take: TornTake) => number | undefined;
  readonly dropTorn: (id: string) => void;
  readonly onPractise: (child: SimulatedChild) => Promise<void>;
  readonly onRecording: (take: RecordingTake) => number | undefined;
}

/** Whether the device is calibrated just now, which another view may have asked for in the address. */
function useCalibrating({ method }: TakeSettings) {
  const [search, setSearch] = useSearchParams();
  const asked = search.has(CALIBRATE);
  const [calibrating, setCalibrating] = useState(asked && method === 'tap');
  // Taken out of the address, so that it can be asked for again.
  useEffect(() => {
    if (asked) setSearch((now) => (now.delete(CALIBRATE), now), { replace: true });
  }, [asked, setSearch]);
  return { asked, calibrating, setCalibrating };
}

/** Who claps what, how fast. */
export function TakeSetup(props: SetupProps) {
  const { schoolClass, pattern, score, chosen, child, settings, voice, problem, onSettings, onStart } = props;
  const lineUps = useLineUps(schoolClass.id).data;
  const { asked, calibrating, setCalibrating } = useCalibrating(settings);
  const parts = useMemo(() => unfoldedParts(score.parts), [score]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const faster = (by: number) => () => onSettings({ bpm: sensibleTempo(settings.bpm + by) });
  useKeys(calibrating ? {} : { ' ': onStart, ArrowUp: faster(TEMPO_STEP), ArrowDown: faster(-TEMPO_STEP) });
  return (
    <div className="take-setup">
      <h1 className="visually-hidden">{t`Take`}</h1>
      <Choices {...props} />
      {score.parts.length > 1 && <PartFields {...props} />}
      {problem && <Notice problem={problem} />}
      {lineUps && <UnfinishedLine classId={schoolClass.id} lineUps={lineUps} />}
      <TornTakes
        classId={schoolClass.id}
        scale={scaleOf(schoolClass)}
        torn={props.torn}
        onJudge={props.judgeTorn}
        onDrop={props.dropTorn}
      />
      {settings.method === 'microphone' && (
        <MicrophonePanel
          keeps={schoolClass.recordingDays ?? null}
          calibrate={asked}
          onTap={() => onSettings({ method: 'tap' })}
        />
      )}
      {calibrating && <CalibrationPanel method="tap" onDone={() => setCalibrating(false)} />}
      <Ruler pattern={parts[0]!.pattern} parts={parts} counts={counts} />
      <WhoClaps
        schoolClass={schoolClass}
        patternKey={partKey(pattern.id, chosen.part.name)}
        child={child}
        onChild={props.onChild}
      />
      <div className="take-below">
        <PracticeChild voice={voice} onPractise={props.onPractise} />
        <span className="flex-grow-1" />
        <Link className="btn btn-sm btn-outline-dark" to={`/take/line-up?pattern=${pattern.id}`}>
          {t`Hear all: line-up`}
        </Link>
        <OwnDevices pattern={pattern.id} bpm={settings.bpm} />
        <Button size="sm" variant="outline-dark" onClick={() => setCalibrating(true)}>
          {t`Calibrate this device`}
        </Button>
      </div>
      <RecordingsPanel
        children={schoolClass.children}
        scale={scaleOf(schoolClass)}
        bpm={settings.bpm}
        onTake={props.onRecording}
      />
    </div>
  );
}

const HEARD_BY = perLanguage(
  () =>
    [
      ['claps', t`taps`],
      ['held', t`taps, held`],
      ['feet', t`taps and feet`],
      ['microphone', t`microphone`],
    ] as const,
);
const CLICK_WORDS = perLanguage(
  () => ({ all: t`all through`, half: t`every other beat`, 'count-in': t`count-in only` }) as const,
);

function Choices(props: SetupProps) {
  const { schoolClass, classes, patterns, pattern, child, second, settings, onSettings, onClass, onPattern, onStart } =
    props;
  const { bpm, method, task, clicks } = settings;
  const hear = (chosen: string) =>
    onSettings({
      method: chosen === 'microphone' ? 'microphone' : 'tap',
      task: TASKS.find((one) => one === chosen) ?? 'claps',
    });
  return (
    <div className="choices">
      <SelectField
        id="take-class"
        label={t`Class`}
        value={schoolClass.id}
        options={classOptions(classes)}
        onChoose={onClass}
      />
      <SelectField
        id="take-pattern"
        label={t`Pattern`}
        value={pattern.id}
        options={titled(patterns)}
        onChoose={onPattern}
      />
      <TempoField bpm={bpm} onBpm={(value) => onSettings({ bpm: value })} />
      <SelectField
        id="take-way"
        label={t`Heard by`}
        value={method === 'microphone' ? method : task}
        options={HEARD_BY()}
        onChoose={hear}
      />
      <SelectField
        id="take-clicks"
        label={t`Click`}
        value={clicks}
        options={CLICKS.map((one) => [one, CLICK_WORDS()[one]] as const)}
        onChoose={(chosen) => onSettings({ clicks: chosen })}
      />
      <Button size="lg" className="start" onClick={onStart}>
        {rich`Start:
          ${child.name}${second && second.child.id !== child.id ? t` and ${second.child.name}` : ''}
          ${<kbd>{t`space`}</kbd>}`}
      </Button>
    </div>
  );
}
