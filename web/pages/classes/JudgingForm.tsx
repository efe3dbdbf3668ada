import { type FormEvent, useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { isJudgingPreview } from 'virtual:validators';
import type { ClassSettings, JudgingPreview } from '../../../contract/school.ts';
import { MARK_BORDERS, type MarkBorder } from '../../../core/judging/mark.ts';
import { windowsFor } from '../../../core/judging/windows.ts';
import { post } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';

interface FormProps {
  readonly classId: string;
  readonly settings: ClassSettings;
  readonly onSave: (settings: ClassSettings) => Promise<unknown>;
  readonly onCancel: () => void;
}

const percent = (part: number) => Math.round(part * 1000) / 10;

/** What is on time and what a mark needs; what it would do to the marks of this class is shown before it is saved. */
export function JudgingForm({ classId, settings, onSave, onCancel }: FormProps) {
  const usual = Math.round(windowsFor(settings.ages).onTime * 1000);
  const [onTimeMs, setOnTime] = useState(settings.onTimeMs ?? usual);
  const [borders, setBorders] = useState<readonly MarkBorder[]>(settings.borders ?? MARK_BORDERS);
  const [days, setDays] = useState(settings.recordingDays ?? null);
  const [preview, setPreview] = useState<JudgingPreview>();
  const [problem, setProblem] = useState<Error>();
  const own = onTimeMs === usual ? null : onTimeMs;
  const ownBorders =
    JSON.stringify(borders) === JSON.stringify(MARK_BORDERS) ? null : borders.map((border) => ({ ...border }));
  const trial = JSON.stringify({ ages: settings.ages, onTimeMs: own, borders: ownBorders });
  useEffect(() => {
    const timer = setTimeout(() => {
      post(`/classes/${classId}/judging-preview`, JSON.parse(trial))
        .then((answer) => {
          setProblem(undefined);
          if (isJudgingPreview(answer)) setPreview(answer as JudgingPreview);
        })
        .catch((error: Error) => setProblem(error));
    }, 250);
    return () => clearTimeout(timer);
  }, [classId, trial]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await onSave({ ...settings, onTimeMs: own, borders: ownBorders, recordingDays: days });
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const change = (at: number, border: Partial<MarkBorder>) =>
    setBorders(borders.map((old, i) => (i === at ? { ...old, ...border } : old)));
  return (
    <Form className="card-paper judging-form" onSubmit={(event) => void submit(event)}>
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
        <Table size="sm" className="mt-3">
          <thead>
            <tr>
              <th scope="col">Mark</th>
              <th scope="col">At least, %</th>
              <th scope="col">Tempo kept within, %</th>
            </tr>
          </thead>
          <tbody>
            {borders.map(({ mark, accuracy, driftPct }, i) => (
              <tr key={mark}>
                <th scope="row">{mark}</th>
                <td>
                  <Form.Control
                    size="sm"
                    type="number"
                    step="any"
                    min={1}
                    max={100}
                    aria-label={`Mark ${mark}: at least, per cent`}
                    value={percent(accuracy)}
                    onChange={(event) => change(i, { accuracy: Number(event.target.value) / 100 })}
                  />
                </td>
                <td>
                  {driftPct === undefined ? (
                    '–'
                  ) : (
                    <Form.Control
                      size="sm"
                      type="number"
                      step="any"
                      min={0}
                      max={100}
                      aria-label={`Mark ${mark}: tempo within, per cent`}
                      value={driftPct}
                      onChange={(event) => change(i, { driftPct: Number(event.target.value) })}
                    />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        <Form.Check
          type="switch"
          id="keep-recordings"
          label="Keep recordings of children"
          checked={days !== null}
          onChange={(event) => setDays(event.target.checked ? 14 : null)}
        />
        {days !== null && (
          <div className="keep-days">
            <Form.Label htmlFor="keep-days">Deleted after so many days</Form.Label>
            <Form.Control
              id="keep-days"
              size="sm"
              type="number"
              min={1}
              max={365}
              value={days || ''}
              onChange={(event) => setDays(Number(event.target.value))}
            />
          </div>
        )}
        <p className="caution">
          {days === null
            ? 'Sound is analysed in the browser and not kept.'
            : 'A recording of a child is personal data: ask first, and keep it no longer than needed.'}
        </p>
      </div>
      <div role="status">
        {preview && (
          <>
            <p className="preview-line">
              {preview.changed === 0
                ? `None of ${preview.takes} marks would change.`
                : `${preview.changed} of ${preview.takes} marks would change: ${preview.higher} up, ${preview.lower} down.`}
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
                {preview.marks.map(({ mark, now, then }) => (
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
        )}
        {problem && <Notice problem={problem} />}
        <div className="class-form-actions">
          <Button type="submit">Save</Button>
          <Button
            variant="outline-dark"
            onClick={() => {
              setOnTime(usual);
              setBorders(MARK_BORDERS);
            }}
          >
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
