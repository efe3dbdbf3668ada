import { type ChangeEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSearchParams } from 'react-router';
import fitsItem from 'virtual:fits/shelf-item';
import fitsShelf from 'virtual:fits/school-shelf';
import { v5 as uuidOf } from 'uuid';
import { t } from '../../../core/words/say.ts';
import { SHELF_KINDS, type ShelfFile, type ShelfItem, type ShelfItemWhole } from '../../../contract/schoolShelf.ts';
import type { Teacher } from '../../../contract/session.ts';
import { get, put } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { useSave } from '../../api/useSave.ts';
import { SchoolChoice, useOwnSchool } from '../../domain/SchoolChoice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { LayOut } from './LayOut.tsx';
import { ShelfCard } from './ShelfCard.tsx';
import { readShelfFile, shelfFileText } from './shelfFile.ts';
import { KINDS } from './shelfWords.ts';
import './shelf.scss';

const ALL = '';

/** What the colleagues of a school have laid out for each other. */
export default function ShelfPage({ teacher }: { teacher: Teacher }) {
  const [search, setSearch] = useSearchParams();
  const { schools } = teacher;
  const own = useOwnSchool(schools);
  const path = `/schools/${own.id}/shelf`;
  const { data, error, mutate } = useGet<ShelfItem[]>(path, fitsShelf);
  const [laying, setLaying] = useState(search.has('lay'));
  return (
    <>
      <div className="page-head">
        <h1>{t`The school’s shelf`}</h1>
        <span>{own.name}</span>
        <span className="flex-grow-1" />
        <SchoolChoice {...{ schools, schoolId: own.id }} onChoose={(at) => setSearch({ at })} />
        {!laying && <Button onClick={() => setLaying(true)}>{t`Lay something out`}</Button>}
      </div>
      {laying && <LayOut key={own.id} path={path} asked={search.get('lay') ?? ''} onClose={() => setLaying(false)} />}
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {data && <OnShelf path={path} items={data} school={own.name} />}
    </>
  );
}

/** What its place on a shelf is made from: read in again, a thing is there once. */
const SPACE = '6f1c1f0e-7d55-4a3a-9f0e-0a6a3d1b5c11';

interface FilesProps {
  readonly path: string;
  /** What is shown now. */
  readonly items: readonly ShelfItem[];
  readonly school: string;
}

/** What lies there, as it is looked for. */
function OnShelf({ path, items, school }: FilesProps) {
  const [kind, setKind] = useState<string>(ALL);
  const [wanted, setWanted] = useState('');
  const shown = items.filter(
    (item) =>
      (kind === ALL || item.kind === kind) &&
      `${item.title} ${item.about} ${item.from}`.toLowerCase().includes(wanted.trim().toLowerCase()),
  );
  return (
    <>
      <div className="shelf-tools">
        <Form.Control
          type="search"
          size="sm"
          placeholder={t`Find on the shelf`}
          aria-label={t`Find on the shelf`}
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        <Select
          size="sm"
          label={t`Kind`}
          value={kind}
          options={[[ALL, t`Everything`], ...SHELF_KINDS.map((one) => [one, KINDS()[one]] as const)]}
          onChoose={setKind}
        />
        <span className="flex-grow-1" />
        <ShelfFiles path={path} items={shown} school={school} />
      </div>
      {items.length === 0 && (
        <div className="empty">
          {t`Nothing lies here yet. Lay out a pattern, a plan, a sheet, a lesson or a term for your colleagues.`}
        </div>
      )}
      <ul className="shelf">
        {shown.map((item) => (
          <ShelfCard key={item.id} path={path} item={item} />
        ))}
      </ul>
    </>
  );
}

/** What is shown as one file, for another school; and such a file onto the shelf. */
function ShelfFiles({ path, items, school }: FilesProps) {
  const [read, setRead] = useState<ShelfFile | string>();
  const saving = useSave(async () => {
    const whole: ShelfItemWhole[] = [];
    for (const { id } of items) whole.push(await get<ShelfItemWhole>(`${path}/${id}`, fitsItem));
    saveFile(`${school}.clapboard-shelf.json`, new Blob([shelfFileText(whole)], { type: 'application/json' }));
  });
  const reading = useSave(async (file: ShelfFile) => {
    for (const item of file.items) await put(`${path}/${uuidOf(path + JSON.stringify(item), SPACE)}`, item);
    setRead(undefined);
  }, path);
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    setRead(file && readShelfFile(await file.text()));
  };
  const problem = saving.problem ?? reading.problem;
  return (
    <>
      <Button
        size="sm"
        variant="outline-dark"
        disabled={items.length === 0 || saving.saving}
        onClick={() => void saving.save()}
      >
        {t`Save as a file`}
      </Button>
      <Form.Label className="btn btn-sm btn-outline-dark shelf-file">
        {t`Read in a file`}
        <input
          type="file"
          className="visually-hidden"
          accept=".json,application/json"
          onChange={(event) => void choose(event)}
        />
      </Form.Label>
      <div role="status" className="shelf-read">
        {typeof read === 'string' && <Notice problem={{ message: read }} />}
        {typeof read === 'object' && (
          <p>
            {t`In the file: ${read.items.map(({ title, from }) => `“${title}” (${from})`).join(', ')}.`}{' '}
            <Button size="sm" disabled={reading.saving} onClick={() => void reading.save(read)}>
              {t`Lay all of it on the shelf`}
            </Button>
          </p>
        )}
        {problem && <Notice problem={problem} />}
      </div>
    </>
  );
}
