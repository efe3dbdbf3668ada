import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TakeDetail } from '../../../contract/take.ts';
import { HIGHEST_MARK } from '../../../core/judging/mark.ts';
import { put } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';

/** The teacher's own mark with her reason; the computed one stays beside it. */
export function OverrideForm({ take, onChanged }: { take: TakeDetail; onChanged: () => Promise<unknown> }) {
  const [mark, setMark] = useState(take.override === null ? '' : String(take.override));
  const [reason, setReason] = useState(take.overrideReason);
  const [problem, setProblem] = useState<Error>();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      setProblem(undefined);
      await put(`/takes/${take.id}/override`, {
        mark: mark === '' ? null : Number(mark),
        reason: mark === '' ? '' : reason.trim(),
      });
      await onChanged();
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const changed = mark !== (take.override === null ? '' : String(take.override)) || reason !== take.overrideReason;
  return (
    <Form className="override-form no-print" onSubmit={(event) => void save(event)}>
      <Form.Label htmlFor="own-mark">Your mark</Form.Label>
      <Form.Select id="own-mark" size="sm" value={mark} onChange={(event) => setMark(event.target.value)}>
        <option value="">as computed ({take.mark})</option>
        {Array.from({ length: HIGHEST_MARK + 1 }, (_, i) => (
          <option key={i} value={HIGHEST_MARK - i}>
            {HIGHEST_MARK - i}
          </option>
        ))}
      </Form.Select>
      <Form.Control
        size="sm"
        aria-label="Reason"
        placeholder="reason"
        maxLength={200}
        disabled={mark === ''}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <Button size="sm" type="submit" variant="outline-dark" disabled={!changed}>
        Keep
      </Button>
      {problem && <Notice problem={problem} />}
    </Form>
  );
}
