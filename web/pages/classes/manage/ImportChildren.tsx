import { counted, t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { put } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';
import { type ReadNames, keysOf, readClassList, textOf } from '../../../domain/classList.ts';

/** A class list pasted, typed or chosen as a file: what would be added is shown first. */
export function ImportChildren({ schoolClass, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  const [text, setText] = useState('');
  const read = readClassList(
    text,
    schoolClass.children.map(({ name }) => name),
  );
  const { names } = read;
  // The ids stay: sent again after a failure in the middle, each child is there once.
  const [ids] = useState(() => new Map<string, string>());
  const idOf = (key: string) => ids.get(key) ?? (ids.set(key, uuid()), ids.get(key)!);
  const add = useSave(async () => {
    const keys = keysOf(names);
    for (const [i, name] of names.entries())
      await put(`/classes/${schoolClass.id}/children/${idOf(keys[i]!)}`, { name });
  }, '/classes');
  const choose = async (file: File | undefined) => {
    if (file) setText(textOf(new Uint8Array(await file.arrayBuffer())));
  };
  return (
    <section className="card-paper import-children" aria-label={t`Many children at once`}>
      <div>
        <Form.Label htmlFor="names">{t`One name or code a line, or a list from a spreadsheet`}</Form.Label>
        <Form.Control
          as="textarea"
          id="names"
          rows={8}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <Form.Label htmlFor="names-file">{t`or a file (CSV)`}</Form.Label>
        <Form.Control
          type="file"
          id="names-file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onChange={(event) => void choose((event.target as HTMLInputElement).files?.[0])}
        />
      </div>
      <div role="status">
        <ListPreview read={read} />
        {add.problem && <Notice problem={add.problem} />}
        <div className="class-form-actions">
          <Button
            disabled={names.length === 0 || add.saving}
            onClick={() => void add.save().then((done) => done && onClose())}
          >
            {t`Add ${names.length === 1 ? t`this child` : t`these ${names.length}`}`}
          </Button>
          <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
        </div>
      </div>
    </section>
  );
}

/** What was read of a list, and what was not, and why. */
function ListPreview({ read: { names, alike, twice, tooLong, dropped, heading } }: { read: ReadNames }) {
  return (
    <>
      <p className="preview-line">
        {names.length === 0 ? t`No new names yet.` : `${counted(names.length, 'child', 'children')}:`}
      </p>
      <p>{names.join(', ')}</p>
      {heading !== undefined && <p>{t`Taken from the column “${heading}”.`}</p>}
      {alike.length > 0 && (
        <p>{t`In the list more than once, and taken as different children: ${alike.join(', ')}.`}</p>
      )}
      {dropped.length > 0 && <p>{t`Left out, for they are no names: ${dropped.join('; ')}.`}</p>}
      {twice.length > 0 && <p>{t`Left out, for they are there already: ${twice.join(', ')}.`}</p>}
      {tooLong.length > 0 && <p>{t`Left out, for they are no names: ${tooLong.length} long lines.`}</p>}
    </>
  );
}
