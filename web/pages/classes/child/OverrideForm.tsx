import { t } from '../../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { MarkOverride, TakeDetail } from '../../../../contract/take.ts';
import { type Scale, markLabel } from '../../../../core/judging/scale.ts';
import { BothVersions } from '../../../domain/BothVersions.tsx';
import { marksInWords } from '../../../domain/marksInWords.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useEditing } from '../../../api/useEditing.ts';
import { MarkChoice } from './MarkChoice.tsx';

/** The teacher's own mark with her reason; the computed one stays beside it. */
export function OverrideForm({ take, scale }: { take: TakeDetail; scale: Scale }) {
  // From the first change on it is what stood there then: another device may give a mark meanwhile.
  const [begun, setBegun] = useState<TakeDetail>();
  const of = begun ?? take;
  return (
    <OwnMark
      key={`${of.override} ${of.overrideReason}`}
      take={of}
      scale={scale}
      onBegin={() => setBegun(of)}
      onDone={() => setBegun(undefined)}
    />
  );
}

interface OwnMarkProps {
  readonly take: TakeDetail;
  readonly scale: Scale;
  readonly onBegin: () => void;
  readonly onDone: () => void;
}

function OwnMark({ take, scale, onBegin, onDone }: OwnMarkProps) {
  const was = { mark: take.override, reason: take.overrideReason };
  const [{ mark, reason }, setOwn] = useState(was);
  const own = useEditing<MarkOverride>(`/takes/${take.id}/override`, was, ['/takes', '/classes']);
  const set = (change: Partial<typeof was>) => {
    onBegin();
    setOwn({ mark, reason, ...change });
  };
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onDone();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void closeWhen(own.save({ mark, reason: mark === null ? '' : reason.trim() }));
  };
  const changed = mark !== was.mark || reason !== was.reason;
  return (
    <>
      {own.clash && (
        <BothVersions
          clash={marksInWords(own.clash, scale, (part) => part === 'mark')}
          onChosen={(theirs) => void closeWhen(own.settle(theirs))}
        />
      )}
      <Form className="override-form no-print" onSubmit={submit}>
        <Form.Label htmlFor="own-mark">{t`Your mark`}</Form.Label>
        <MarkChoice
          id="own-mark"
          mark={mark}
          scale={scale}
          computed={t`as computed (${markLabel(take.mark, scale)})`}
          onMark={(given) => set({ mark: given })}
        />
        <Form.Control
          size="sm"
          aria-label={t`Reason`}
          placeholder={t`reason`}
          maxLength={200}
          disabled={mark === null}
          value={reason}
          onChange={(event) => set({ reason: event.target.value })}
        />
        <Button size="sm" type="submit" variant="outline-dark" disabled={!changed}>{t`Keep`}</Button>
        {own.problem && <Notice problem={own.problem} />}
      </Form>
    </>
  );
}
