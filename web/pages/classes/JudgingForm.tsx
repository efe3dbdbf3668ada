import { type FormEvent, useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import fitsPreview from 'virtual:fits/judging-preview';
import type { JudgingPreview, JudgingTrial } from '../../../contract/judging.ts';
import type { ClassRecords } from '../../../contract/records.ts';
import { MARK_BORDERS, type MarkBorder } from '../../../core/judging/mark.ts';
import { windowsFor } from '../../../core/judging/windows.ts';
import { post } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { BordersTable } from './BordersTable.tsx';
import { RecordingDays } from './RecordingDays.tsx';
import type { SettingsFormProps } from './settingsForm.ts';

/** Typing rests so long before the marks are counted. */
const TYPING_MS = 250;

/**
 * What the marks of this class would be; asked a moment after the last change of the settings, or of the records: they
 * may just be judged anew.
 */
function usePreview(classId: string, records: ClassRecords, trial: JudgingTrial) {
  const [preview, setPreview] = useState<{ readonly of: JudgingTrial; readonly found: JudgingPreview }>();
  const [problem, setProblem] = useState<Error>();
  useEffect(() => {
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
  return { preview: preview?.of === trial ? preview.found : undefined, problem };
}

function isUsual(borders: readonly MarkBorder[]): boolean {
  return JSON.stringify(borders) === JSON.stringify(MARK_BORDERS);
}

interface JudgingFormProps extends SettingsFormProps {
  readonly classId: string;
  readonly records: ClassRecords;
}

/** What is on time and what a mark needs; what it would do to the marks of this class is shown before it is saved. */
export function JudgingForm({ classId, records, settings, problem, onSave, onCancel }: JudgingFormProps) {
  const { ages } = settings;
  const usual = Math.round(windowsFor(ages).onTime * 1000);
  const [onTimeMs, setOnTime] = useState(settings.onTimeMs ?? usual);
  const [borders, setBorders] = useState<readonly MarkBorder[]>(settings.borders ?? MARK_BORDERS);
  const [clickCounts, setClickCounts] = useState(settings.clickCounts === true);
  const [days, setDays] = useState(settings.recordingDays ?? null);
  const trial = useMemo((): JudgingTrial => {
    const own = isUsual(borders) ? null : borders.map((border) => ({ ...border }));
    return { ages, onTimeMs: onTimeMs === usual ? null : onTimeMs, borders: own, clickCounts };
  }, [ages, onTimeMs, usual, borders, clickCounts]);
  const tried = usePreview(classId, records, trial);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onSave({ ...settings, ...trial, recordingDays: days });
  };
  const asUsual = () => {
    setOnTime(usual);
    setBorders(MARK_BORDERS);
    setClickCounts(false);
  };
  const trouble = problem ?? tried.problem;
  return (
    <Form className="card-paper judging-form" onSubmit={submit}>
      <div>
        <Form.Label htmlFor="on-time">
          On time within, milliseconds either way (usual at these ages: {usual})
        </Form.Label>
        <Form.Control
          id="on-time"
          type="number"
          min={20}
          max={400}
          value={onTimeMs || ''}
          onChange={(event) => setOnTime(Number(event.target.value))}
        />
        <BordersTable borders={borders} onChange={setBorders} />
        <ClickCounts counts={clickCounts} onCounts={setClickCounts} />
        <RecordingDays days={days} onDays={setDays} />
      </div>
      <div role="status">
        {tried.preview && <Preview preview={tried.preview} />}
        {!tried.preview && !trouble && <p className="preview-line">Working it out …</p>}
        {trouble && <Notice problem={trouble} />}
        <div className="class-form-actions">
          <Button type="submit">Save</Button>
          <Button variant="outline-dark" onClick={asUsual}>
            As usual
          </Button>
          <Button variant="outline-dark" onClick={onCancel}>
            Cancel
          </Button>
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
      label="Keeping the click counts too: another tempo or a wrong entry lowers the mark by one"
      checked={counts}
      onChange={(event) => onCounts(event.target.checked)}
    />
  );
}

function Preview({ preview: { takes, all, changed, higher, lower, marks } }: { preview: JudgingPreview }) {
  const those = takes < all ? `the newest ${takes}` : takes;
  return (
    <>
      <p className="preview-line">
        {changed === 0
          ? `None of ${those} marks would change.`
          : `${changed} of ${those} marks would change: ${higher} up, ${lower} down.`}
      </p>
      <Table size="sm">
        <thead>
          <tr>
            <th scope="col">Mark</th>
            <th scope="col">Takes now</th>
            <th scope="col">Then</th>
          </tr>
        </thead>
        <tbody>
          {marks.map(({ mark, now, then }) => (
            <tr key={mark}>
              <th scope="row">{mark}</th>
              <td>{now}</td>
              <td>{then}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="caution">
        Saving judges every take of this class anew from its claps. Marks you set yourself stay.
      </p>
    </>
  );
}
