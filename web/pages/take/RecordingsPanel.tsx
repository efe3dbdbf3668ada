import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ProgressBar from 'react-bootstrap/ProgressBar';
import Table from 'react-bootstrap/Table';
import { useDropzone } from 'react-dropzone';
import type { Child } from '../../../contract/school.ts';
import { childInName } from './childInName.ts';
import { type HeardRecording, listenToFile } from '../../audio/microphone.ts';

interface Row {
  readonly id: number;
  readonly name: string;
  readonly childId: string;
  readonly done: number;
  readonly heard?: HeardRecording;
  readonly problem?: string;
  /** What came of it: the mark. */
  readonly mark?: number;
}

export interface RecordingTake {
  readonly childId: string;
  readonly heard: HeardRecording;
  /** Undefined when there was no click. */
  readonly start: number | undefined;
}

/** Recordings that children brought: dropped here, matched to names, listened to and judged. */
export function RecordingsPanel({
  children,
  bpm,
  onTake,
}: {
  children: readonly Child[];
  bpm: number;
  onTake: (take: RecordingTake) => number | undefined;
}) {
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [start, setStart] = useState('');
  const nextId = useRef(0);
  const stops = useRef(new Map<number, AbortController>());
  const change = (id: number, part: Partial<Row>) =>
    setRows((before) => before.map((row) => (row.id === id ? { ...row, ...part } : row)));

  const listen = async (files: readonly File[]) => {
    const added = files.map((file) => ({
      file,
      row: { id: nextId.current++, name: file.name, childId: childInName(file.name, children), done: 0 } satisfies Row,
    }));
    setRows((before) => [...before, ...added.map(({ row }) => row)]);
    // One after the other: each takes all of a processor.
    for (const { file, row } of added) {
      const stop = new AbortController();
      stops.current.set(row.id, stop);
      try {
        change(row.id, { heard: await listenToFile(file, (done) => change(row.id, { done }), stop.signal), done: 1 });
      } catch (error) {
        change(row.id, { problem: (error as Error).message });
      }
    }
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (files) => void listen(files),
    noClick: true,
    noKeyboard: true,
  });
  const remove = (id: number) => {
    stops.current.get(id)?.abort();
    setRows((before) => before.filter((row) => row.id !== id));
  };
  const ready = rows.filter(({ heard, childId, mark }) => heard && childId !== '' && mark === undefined);
  const judge = () => {
    const given = start.trim() === '' ? undefined : Number(start.replace(',', '.'));
    for (const { id, heard, childId } of ready) {
      const mark = onTake({
        childId,
        heard: heard!,
        start: given !== undefined && Number.isFinite(given) ? given : undefined,
      });
      if (mark !== undefined) change(id, { mark });
    }
  };
  return (
    <section
      {...getRootProps({
        className: `recordings ${isDragActive ? 'recordings-over' : ''}`,
        'aria-label': 'Recordings',
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Sound files', accept: 'audio/*,video/webm' })} />
      <p>
        Drop recordings here, or{' '}
        <Button size="sm" variant="outline-dark" onClick={open}>
          choose files
        </Button>
        . A child’s name in the name of the file is found.
      </p>
      {rows.length > 0 && (
        <>
          <Table size="sm">
            <thead>
              <tr>
                <th scope="col">Recording</th>
                <th scope="col">Child</th>
                <th scope="col">Heard</th>
                <th scope="col">Mark</th>
                <th scope="col">
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ id, name, childId, done, heard, problem, mark }) => (
                <tr key={id}>
                  <td>{name}</td>
                  <td>
                    <Form.Select
                      size="sm"
                      aria-label={`Who claps in ${name}`}
                      value={childId}
                      disabled={mark !== undefined}
                      onChange={(event) => change(id, { childId: event.target.value })}
                    >
                      <option value="">who?</option>
                      {children.map((child) => (
                        <option key={child.id} value={child.id}>
                          {child.name}
                        </option>
                      ))}
                    </Form.Select>
                  </td>
                  <td>
                    {problem ? (
                      <span className="recording-problem">{problem}</span>
                    ) : heard ? (
                      `${heard.onsets.length} claps`
                    ) : (
                      <ProgressBar now={done * 100} aria-label={`Listening to ${name}`} />
                    )}
                  </td>
                  <td>{mark ?? ''}</td>
                  <td>
                    <Button size="sm" variant="link" aria-label={`Remove ${name}`} onClick={() => remove(id)}>
                      <X size={16} aria-hidden />
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
          <div className="recordings-end">
            <Form.Label htmlFor="recording-start">Beat 1 of measure 1 at second</Form.Label>
            <Form.Control
              id="recording-start"
              size="sm"
              inputMode="decimal"
              placeholder="no click"
              value={start}
              onChange={(event) => setStart(event.target.value)}
            />
            <span>
              {start.trim() === '' ? 'judged freely, at the tempo of the child' : `judged with a click at ${bpm}`}
            </span>
            <Button disabled={ready.length === 0} onClick={judge}>
              Judge {ready.length === 1 ? 'it' : `these ${ready.length}`}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
