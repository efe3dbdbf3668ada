import { t } from '../../../core/words/say.ts';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ProgressBar from 'react-bootstrap/ProgressBar';
import Table from 'react-bootstrap/Table';
import { useDropzone } from 'react-dropzone';
import type { Child } from '../../../contract/child.ts';
import { type Scale, markLabel } from '../../../core/judging/scale.ts';
import { takeHandedOver } from '../../files/readFiles.ts';
import { Select } from '../../ui/Select.tsx';
import { type RecordingRow, type RecordingTake, useRecordings } from './useRecordings.ts';

interface RecordingsPanelProps {
  readonly children: readonly Child[];
  readonly scale: Scale;
  readonly bpm: number;
  readonly onTake: (take: RecordingTake) => number | undefined;
}

/** Recordings that children brought: dropped here, matched to names, listened to and judged. */
export function RecordingsPanel({ children, scale, bpm, onTake }: RecordingsPanelProps) {
  const recordings = useRecordings(children, onTake);
  const onDrop = (files: readonly File[]) => void recordings.add(files);
  useEffect(() => {
    const brought = takeHandedOver();
    if (brought.length > 0) void recordings.add(brought);
    // Once: what another view handed over.
    // oxlint-disable-next-line react/exhaustive-deps
  }, []);
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({ onDrop, noClick: true, noKeyboard: true });
  const className = t`recordings ${isDragActive ? 'recordings-over' : ''}`;
  return (
    <section {...getRootProps({ className, role: 'region', 'aria-label': t`Recordings` })}>
      <input {...getInputProps({ 'aria-label': t`Sound files`, accept: 'audio/*,video/webm,.mid,.midi' })} />
      <p>
        {t`Drop recordings here, or`} <Button size="sm" variant="outline-dark" onClick={open}>{t`choose files`}</Button>
        {t`. A child’s name in the name of the file is found.`}
      </p>
      {recordings.rows.length > 0 && (
        <>
          <RecordingTable
            rows={recordings.rows}
            children={children}
            scale={scale}
            onChild={recordings.setChild}
            onRemove={recordings.remove}
          />
          <JudgeRecordings bpm={bpm} ready={recordings.ready} onJudge={recordings.judge} />
        </>
      )}
    </section>
  );
}

interface TableProps {
  readonly rows: readonly RecordingRow[];
  readonly children: readonly Child[];
  readonly scale: Scale;
  readonly onChild: (id: number, childId: string) => void;
  readonly onRemove: (id: number) => void;
}

function RecordingTable({ rows, children, scale, onChild, onRemove }: TableProps) {
  const names = [['', 'who?'] as const, ...children.map(({ id, name }) => [id, name] as const)];
  return (
    <Table size="sm">
      <thead>
        <tr>
          <th scope="col">{t`Recording`}</th>
          <th scope="col">{t`Child`}</th>
          <th scope="col">{t`Heard`}</th>
          <th scope="col">{t`Mark`}</th>
          <th scope="col">
            <span className="visually-hidden">{t`Remove`}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id}>
            <td>{row.name}</td>
            <td>
              <Select
                size="sm"
                label={t`Who claps in ${row.name}`}
                value={row.childId}
                disabled={row.mark !== undefined}
                options={names}
                onChoose={(childId) => onChild(row.id, childId)}
              />
            </td>
            <td>
              <HeardCell row={row} />
            </td>
            <td>{row.mark === undefined ? '' : markLabel(row.mark, scale)}</td>
            <td>
              <Button size="sm" variant="link" aria-label={t`Remove ${row.name}`} onClick={() => onRemove(row.id)}>
                <X size={16} aria-hidden />
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function HeardCell({ row: { name, done, heard, problem } }: { row: RecordingRow }) {
  if (problem) return <span className="recording-problem">{problem}</span>;
  if (heard) return <>{t`${heard.onsets.length} claps`}</>;
  return <ProgressBar now={done * 100} aria-label={t`Listening to ${name}`} />;
}

interface JudgeProps {
  readonly bpm: number;
  /** How many can be judged. */
  readonly ready: number;
  readonly onJudge: (start: number | undefined) => void;
}

function JudgeRecordings({ bpm, ready, onJudge }: JudgeProps) {
  const [start, setStart] = useState('');
  const free = start.trim() === '';
  const judge = () => {
    const seconds = Number(start.replace(',', '.'));
    onJudge(!free && Number.isFinite(seconds) ? seconds : undefined);
  };
  return (
    <div className="recordings-end">
      <Form.Label htmlFor="recording-start">{t`Beat 1 of measure 1 at second`}</Form.Label>
      <Form.Control
        id="recording-start"
        size="sm"
        inputMode="decimal"
        placeholder={t`no click`}
        value={start}
        onChange={(event) => setStart(event.target.value)}
      />
      <span>{free ? t`judged freely, at the tempo of the child` : t`judged with a click at ${bpm}`}</span>
      <Button disabled={ready === 0} onClick={judge}>
        {ready === 1 ? t`Judge it` : t`Judge these ${ready}`}
      </Button>
    </div>
  );
}
