import { t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { type Child, type ChildEdit, LONGEST_LINE } from '../../../../contract/child.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { BothVersions } from '../../../domain/BothVersions.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import { useEditing } from '../../../api/useEditing.ts';

interface OwnLineProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
}

/** The teacher's own line in a report: printed as it is kept, written by whoever has the class. */
export function OwnLine({ schoolClass, child }: OwnLineProps) {
  const [begun, setBegun] = useState<Child>();
  if (schoolClass.role !== 'owner') return child.reportLine ? <p className="own-line">{child.reportLine}</p> : null;
  // From the first letter on it is what stood there then: another device may write meanwhile.
  const of = begun ?? child;
  return (
    <LineForm
      key={of.reportLine}
      path={`/classes/${schoolClass.id}/children/${child.id}`}
      child={of}
      onBegin={() => setBegun(of)}
      onDone={() => setBegun(undefined)}
    />
  );
}

interface LineFormProps {
  readonly path: string;
  readonly child: Child;
  readonly onBegin: () => void;
  readonly onDone: () => void;
}

function LineForm({ path, child, onBegin, onDone }: LineFormProps) {
  const was = child.reportLine ?? '';
  const [line, setLine] = useState(was);
  const editing = useEditing<ChildEdit>(path, { name: child.name, reportLine: was }, ['/classes']);
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onDone();
  };
  const save = () => {
    const reportLine = line.trim();
    if (reportLine !== was) void closeWhen(editing.save({ name: child.name, reportLine }));
  };
  return (
    <div className="own-line-form">
      {editing.clash && (
        <BothVersions clash={editing.clash} onChosen={(theirs) => void closeWhen(editing.settle(theirs))} />
      )}
      {/* As it stands in the field, kept by now or not. */}
      <p className="own-line only-print">{line}</p>
      <Form.Group className="no-print" controlId={`line-${child.id}`}>
        <Form.Label>{t`Your own line for ${child.name}`}</Form.Label>
        <Form.Control
          as="textarea"
          rows={2}
          maxLength={LONGEST_LINE}
          value={line}
          onChange={(event) => {
            onBegin();
            setLine(event.target.value);
          }}
          onBlur={save}
        />
        <Form.Text>{t`Printed below the sentences; kept when you leave the field.`}</Form.Text>
      </Form.Group>
      {editing.problem && <Notice problem={editing.problem} />}
    </div>
  );
}
