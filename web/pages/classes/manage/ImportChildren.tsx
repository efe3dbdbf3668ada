import { counted, t } from '../../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { put } from '../../../api/client.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';
import { SelectField } from '../../../ui/SelectField.tsx';
import { type RosterClass, isRoster, readRoster } from '../../../domain/oneRoster.ts';
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
  const [rosters, setRosters] = useState<readonly RosterClass[]>([]);
  const choose = async (files: readonly File[]) => {
    const texts = await Promise.all(files.map(async (file) => textOf(new Uint8Array(await file.arrayBuffer()))));
    const found = readRoster(texts);
    setRosters(found);
    if (found.length > 0) setText(listOf(found[0]!));
    else if (texts.length > 0) setText(texts.filter((one) => !isRoster(one)).join('\n'));
  };
  return (
    <section className="card-paper import-children" aria-label={t`Many children at once`}>
      <ListField {...{ text, rosters }} onText={setText} onFiles={(files) => void choose(files)} />
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

interface ListFieldProps {
  readonly text: string;
  readonly rosters: readonly RosterClass[];
  readonly onText: (text: string) => void;
  readonly onFiles: (files: readonly File[]) => void;
}

/** Where a list is typed, pasted or read from files. */
function ListField({ text, rosters, onText, onFiles }: ListFieldProps) {
  return (
    <div>
      <Form.Label htmlFor="names">{t`One name or code a line, or a list from a spreadsheet`}</Form.Label>
      <Form.Control as="textarea" id="names" rows={8} value={text} onChange={(event) => onText(event.target.value)} />
      <Form.Label htmlFor="names-file">{t`or a file (CSV)`}</Form.Label>
      <Form.Control
        type="file"
        id="names-file"
        multiple
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        onChange={(event) => onFiles([...((event.target as HTMLInputElement).files ?? [])])}
      />
      <Form.Text>
        {t`Of OneRoster files choose users.csv and enrollments.csv together, and classes.csv for the titles.`}
      </Form.Text>
      {rosters.length > 1 && (
        <SelectField
          id="roster-class"
          label={t`Class of the roster`}
          value={rosters.find((one) => listOf(one) === text)?.id ?? ''}
          options={rosters.map(({ id, title, names: inside }) => [id, `${title} (${inside.length})`] as const)}
          onChoose={(id) => onText(listOf(rosters.find((one) => one.id === id)!))}
        />
      )}
    </div>
  );
}

/** A class of a roster as a list that can be changed before it is taken. */
const listOf = ({ names }: RosterClass) => names.join('\n');

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
