import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { MarkOverride, TakeDetail } from '../../../contract/take.ts';
import { put } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../ui/useSave.ts';
import { MarkChoice } from './MarkChoice.tsx';

/** The teacher's own mark with her reason; the computed one stays beside it. */
export function OverrideForm({ take }: { take: TakeDetail }) {
  const [mark, setMark] = useState(take.override);
  const [reason, setReason] = useState(take.overrideReason);
  const own = useSave((given: MarkOverride) => put(`/takes/${take.id}/override`, given), '/takes', '/classes');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void own.save({ mark, reason: mark === null ? '' : reason.trim() });
  };
  const changed = mark !== take.override || reason !== take.overrideReason;
  return (
    <Form className="override-form no-print" onSubmit={submit}>
      <Form.Label htmlFor="own-mark">Your mark</Form.Label>
      <MarkChoice id="own-mark" mark={mark} computed={`as computed (${take.mark})`} onMark={setMark} />
      <Form.Control
        size="sm"
        aria-label="Reason"
        placeholder="reason"
        maxLength={200}
        disabled={mark === null}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <Button size="sm" type="submit" variant="outline-dark" disabled={!changed}>
        Keep
      </Button>
      {own.problem && <Notice problem={own.problem} />}
    </Form>
  );
}
