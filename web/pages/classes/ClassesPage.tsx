import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassSettings } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { put } from '../../api/client.ts';
import { useClasses } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { SchoolChoice } from '../../domain/SchoolChoice.tsx';
import { useSave } from '../../api/useSave.ts';
import { BinList } from './manage/BinList.tsx';
import { ClassForm } from './settings/ClassForm.tsx';
import { ReadInClass } from './manage/ReadInClass.tsx';
import { agesText } from './settings/agesText.ts';
import './classes.scss';

const NEW_CLASS: ClassSettings = { name: '', ages: '9-10', school: 'numbers', rests: null };

export default function ClassesPage({ teacher: { schools } }: { teacher: Teacher }) {
  const { data, error, mutate } = useClasses();
  const [adding, setAdding] = useState(false);
  const [reading, setReading] = useState(false);
  const navigate = useNavigate();
  const [id] = useState(() => uuid());
  const [schoolId, setSchoolId] = useState(schools[0]!.id);
  const severalSchools = schools.length > 1;
  const at = severalSchools ? { schoolId } : {};
  const add = useSave((settings: ClassSettings) => put(`/classes/${id}`, { ...settings, ...at }), '/classes');
  const save = async (settings: ClassSettings) => {
    if (await add.save(settings)) await navigate(`/classes/${id}`);
  };
  return (
    <>
      <div className="page-head">
        <h1>{t`Classes`}</h1>
        {!adding && <Button onClick={() => setAdding(true)}>{t`New class`}</Button>}
        {!reading && <Button variant="outline-dark" onClick={() => setReading(true)}>{t`Read in a class`}</Button>}
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {(adding || reading) && <SchoolChoice {...{ schools, schoolId }} onChoose={setSchoolId} />}
      {reading && <ReadInClass at={at} onClose={() => setReading(false)} />}
      {adding && (
        <ClassForm
          settings={NEW_CLASS}
          action={t`Make the class`}
          problem={add.problem}
          onSave={save}
          onCancel={() => setAdding(false)}
        />
      )}
      {data?.length === 0 && !adding && (
        <div className="empty">{t`No classes yet. Make one, then add the children by first name or code.`}</div>
      )}
      <ul className="class-list">
        {data?.map(({ id: classId, name, children, ages, role, owner, schoolId: where }) => (
          <li key={classId}>
            <Link to={`/classes/${classId}`} className="class-card">
              <strong>{name}</strong>
              <span>
                {children === 1 ? t`1 child` : t`${children} children`}, {agesText(ages)}
                {role !== 'owner' && t`, shared by ${owner}`}
                {severalSchools && `, ${schools.find((one) => one.id === where)?.name ?? ''}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <BinList />
    </>
  );
}
