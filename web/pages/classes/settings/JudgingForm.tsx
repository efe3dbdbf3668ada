import { t } from '../../../../core/words/say.ts';
import { type FormEvent, useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import fitsPreview from 'virtual:fits/judging-preview';
import type { JudgingPreview, JudgingTrial } from '../../../../contract/judging.ts';
import type { ClassSettings } from '../../../../contract/schoolClass.ts';
import type { ClassRecords } from '../../../../contract/records.ts';
import {
  type MarkBorder,
  type Scale,
  USUAL_SCALE,
  isSameScale,
  markLabel,
  scaleOf,
  scaleTrouble,
  usualBorders,
} from '../../../../core/judging/scale.ts';
import { windowsFor } from '../../../../core/judging/windows.ts';
import { post } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { BordersTable } from './BordersTable.tsx';
import { RecordingDays } from './RecordingDays.tsx';
import { ScaleChoice } from './ScaleChoice.tsx';
import type { SettingsFormProps } from './settingsForm.ts';

/** Typing rests so long before the marks are counted. */
const TYPING_MS = 250;

/**
 * What the marks of this class would be; asked a moment after the last change of the settings, or of the records: they
 * may just be judged anew.
 */
function usePreview(classId: string, records: ClassRecords, trial: JudgingTrial | undefined) {
  const [preview, setPreview] = useState<{ readonly of: JudgingTrial; readonly found: JudgingPreview }>();
  const [problem, setProblem] = useState<Error>();
  useEffect(() => {
    if (!trial) return undefined;
    let other = false;
    const timer = setTimeout(() => {
      post(`/classes/${classId}/judging-preview`, trial)
        .then((answer) => {
          // What stands in the fields by now is something else.
          if (other) return;
          setProblem(undefined);
          if (fitsPreview(answer)) setPreview({ of: trial, found: answer as JudgingPreview });
        })
        .catch((error: Error) => other || setProblem(error));
    }, TYPING_MS);
    return () => {
      other = true;
      clearTimeout(timer);
    };
  }, [classId, records, trial]);
  return { preview: trial && preview?.of === trial ? preview.found : undefined, problem };
}

function isUsual(borders: readonly MarkBorder[], scale: Scale): boolean {
  return JSON.stringify(borders) === JSON.stringify(usualBorders(scale));
}

interface JudgingFormProps extends SettingsFormProps {
  readonly classId: string;
  readonly records: ClassRecords;
}

/** What stands in the form, and what it comes to; no trial while the words of the scale cannot be marks. */
function useJudging(settings: ClassSettings) {
  const { ages } = settings;
  const usual = Math.round(windowsFor(ages).onTime * 1000);
  const [onTimeMs, setOnTime] = useState(settings.onTimeMs ?? usual);
  const [scale, setScale] = useState<Scale>(scaleOf(settings));
  const [borders, setBorders] = useState<readonly MarkBorder[]>(settings.borders ?? usualBorders(scale));
  const [clickCounts, setClickCounts] = useState(settings.clickCounts === true);
  const badScale = scaleTrouble(scale);
  const trial = useMemo((): JudgingTrial | undefined => {
    if (badScale !== undefined) return undefined;
    const own = isUsual(borders, scale) ? null : borders.map((border) => ({ ...border }));
    const named = typeof scale === 'string' ? scale : scale.map((word) => word.trim());
    const of = isSameScale(scale, USUAL_SCALE) ? null : named;
    return { ages, onTimeMs: onTimeMs === usual ? null : onTimeMs, borders: own, scale: of, clickCounts };
  }, [ages, onTimeMs, usual, borders, scale, badScale, clickCounts]);
  return {
    usual,
    onTimeMs,
    setOnTime,
    scale,
    borders,
    setBorders,
    clickCounts,
    setClickCounts,
    badScale,
    trial,
    /** Borders are of a scale: another one begins with its own. */
    changeScale: (to: Scale) => {
      setScale(to);
      if (scaleTrouble(to) === undefined) setBorders(usualBorders(to));
    },
    asUsual: () => {
      setOnTime(usual);
      setBorders(usualBorders(scale));
      setClickCounts(false);
    },
  };
}

/** What is on time and what a mark needs; what it would do to the marks of this class is shown before it is saved. */
export function JudgingForm({ classId, records, settings, problem, onSave, onCancel }: JudgingFormProps) {
  const judging = useJudging(settings);
  const { usual, onTimeMs, scale, borders, clickCounts, badScale, trial } = judging;
  const [days, setDays] = useState(settings.recordingDays ?? null);
  const tried = usePreview(classId, records, trial);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (trial) void onSave({ ...settings, ...trial, recordingDays: days });
  };
  const trouble =
    problem ?? (badScale === undefined ? tried.problem : { message: t`These words cannot be marks: ${badScale}.` });
  return (
    <Form className="card-paper judging-form" onSubmit={submit}>
      <div>
        <Form.Label htmlFor="on-time">{t`On time within, milliseconds either way (usual at these ages:
          ${usual})`}</Form.Label>
        <Form.Control
          id="on-time"
          type="number"
          min={20}
          max={400}
          value={onTimeMs || ''}
          onChange={(event) => judging.setOnTime(Number(event.target.value))}
        />
        <ScaleChoice scale={scale} onScale={judging.changeScale} />
        <BordersTable borders={borders} scale={scale} onChange={judging.setBorders} />
        <ClickCounts counts={clickCounts} onCounts={judging.setClickCounts} />
        <RecordingDays days={days} onDays={setDays} />
      </div>
      <div role="status">
        {tried.preview && <Preview preview={tried.preview} scale={scale} />}
        {!tried.preview && !trouble && <p className="preview-line">{t`Working it out …`}</p>}
        {trouble && <Notice problem={trouble} />}
        <div className="class-form-actions">
          <Button type="submit" disabled={!trial}>{t`Save`}</Button>
          <Button variant="outline-dark" onClick={judging.asUsual}>{t`As usual`}</Button>
          <Button variant="outline-dark" onClick={onCancel}>{t`Cancel`}</Button>
        </div>
      </div>
    </Form>
  );
}

function ClickCounts({ counts, onCounts }: { counts: boolean; onCounts: (counts: boolean) => void }) {
  return (
    <Form.Check
      type="switch"
      id="click-counts"
      label={t`Keeping the click counts too: another tempo or a wrong entry lowers the mark by one`}
      checked={counts}
      onChange={(event) => onCounts(event.target.checked)}
    />
  );
}

/** Of a scale with more steps only those are listed that some take has. */
const MOST_LISTED = 11;

function Preview({ preview, scale }: { preview: JudgingPreview; scale: Scale }) {
  const { takes, all, changed, higher, lower, marks } = preview;
  const listed = marks.length > MOST_LISTED ? marks.filter(({ now, then }) => now + then > 0) : marks;
  const those = takes < all ? t`the newest ${takes}` : takes;
  return (
    <>
      <p className="preview-line">
        {changed === 0
          ? t`None of ${those} marks would change.`
          : t`${changed} of ${those} marks would change: ${higher} up, ${lower} down.`}
      </p>
      <Table size="sm">
        <thead>
          <tr>
            <th scope="col">{t`Mark`}</th>
            <th scope="col">{t`Takes now`}</th>
            <th scope="col">{t`Then`}</th>
          </tr>
        </thead>
        <tbody>
          {listed.map(({ mark, now, then }) => (
            <tr key={mark}>
              <th scope="row">{markLabel(mark, scale)}</th>
              <td>{now}</td>
              <td>{then}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="caution">
        {t`Saving judges every take of this class anew from its claps. Marks you set yourself stay.`}
      </p>
    </>
  );
}
