import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import fitsItem from 'virtual:fits/shelf-item';
import { v4 as uuid } from 'uuid';
import { t } from '../../../core/words/say.ts';
import type { ShelfItem, ShelfItemWhole } from '../../../contract/schoolShelf.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { put, remove } from '../../api/client.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { useTermPlan } from '../../api/planning.ts';
import { useGet } from '../../api/useGet.ts';
import { useSave } from '../../api/useSave.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { format } from '../../words/dates.ts';
import { ThingView } from './ThingView.tsx';
import { copyOf } from './takeCopy.ts';
import { KINDS, sizeOf } from './shelfWords.ts';

/** A thing of the shelf; opened it is looked at, heard and taken. */
export function ShelfCard({ path, item }: { path: string; item: ShelfItem }) {
  const [open, setOpen] = useState(false);
  const { id, title, about, kind, from, mine, putAt } = item;
  const taking = useSave(() => remove(`${path}/${id}`), path);
  return (
    <li className="card-paper">
      <div className="shelf-head">
        <span className="shelf-kind">{KINDS()[kind]}</span>
        <strong>{title}</strong>
        <span>{t`by ${from}, ${format(putAt, 'd MMM yyyy')}`}</span>
        <span className="flex-grow-1" />
        <Button
          size="sm"
          variant="outline-dark"
          aria-expanded={open}
          aria-label={open ? t`Close “${title}”` : t`Look at “${title}”`}
          onClick={() => setOpen(!open)}
        >
          {open ? t`Close` : t`Look`}
        </Button>
        {mine && (
          <Button
            size="sm"
            variant="outline-dark"
            aria-label={t`Take “${title}” away`}
            onClick={() => void taking.save()}
          >
            {t`Take away`}
          </Button>
        )}
      </div>
      {about !== '' && <p>{about}</p>}
      {taking.problem && <Notice problem={taking.problem} />}
      {open && <Opened path={`${path}/${id}`} />}
    </li>
  );
}

function Opened({ path }: { path: string }) {
  const { data, error, mutate } = useGet<ShelfItemWhole>(path, fitsItem);
  const naming = namingOf(useCurrentClass());
  if (!data) return <Loading problem={error} again={() => void mutate()} />;
  return (
    <div className="shelf-opened">
      <p>{sizeOf(data.thing)}</p>
      <ThingView thing={data.thing} naming={naming} />
      <TakeCopy item={data} />
    </div>
  );
}

/** Into which of a teacher's places a copy goes. */
function TakeCopy({ item: { thing, from } }: { item: ShelfItemWhole }) {
  const navigate = useNavigate();
  const mine = (useClasses().data ?? []).filter(({ role }) => role !== 'look');
  const patterns = usePatterns().data;
  const forClass = thing.kind === 'lesson' || thing.kind === 'term';
  const current = useCurrentClass();
  const [chosen, setChosen] = useState<string>();
  const classId = forClass ? (mine.find(({ id }) => id === (chosen ?? current?.id)) ?? mine[0])?.id : undefined;
  const term = useTermPlan(thing.kind === 'term' ? classId : undefined).data;
  const folder = t`From the shelf`;
  const copying = useSave(
    async () => {
      const copy = copyOf(thing, { from, own: patterns ?? [], newId: uuid }, { folder, classId, term });
      if (!copy) return;
      for (const { path, body } of copy.writes) await put(path, body);
      await navigate(copy.to);
    },
    '/patterns',
    '/plans',
    '/sheets',
    '/classes',
  );
  const needsDays = thing.kind === 'term' && classId !== undefined && !term;
  return (
    <div className="shelf-copy">
      {forClass && (
        <SelectField
          id="copy-class"
          label={t`For the class`}
          value={classId ?? ''}
          options={mine.map(({ id, name }) => [id, name] as const)}
          onChoose={setChosen}
        />
      )}
      <Button
        disabled={!patterns || copying.saving || needsDays || (forClass && classId === undefined)}
        onClick={() => void copying.save()}
      >
        {thing.kind === 'term' ? t`Take this order into the class’s term` : t`Take a copy`}
      </Button>
      {needsDays && <span>{t`First say under Plan, Term when this class has its lessons.`}</span>}
      {thing.kind === 'term' && !needsDays && (
        <span>{t`What the class has planned in its lessons gives way to it; its days stay.`}</span>
      )}
      {copying.problem && <Notice problem={copying.problem} />}
    </div>
  );
}
