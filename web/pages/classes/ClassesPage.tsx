import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassSettings } from '../../../contract/school.ts';
import { put } from '../../api/client.ts';
import { useClasses, useRefresh } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { ClassForm } from './ClassForm.tsx';
import './classes.scss';

const NEW_CLASS: ClassSettings = { name: '', ages: '9-10', school: 'numbers', rests: null };

export default function ClassesPage() {
  const { data, error, mutate } = useClasses();
  const [adding, setAdding] = useState(false);
  const navigate = useNavigate();
  const refresh = useRefresh();
  const add = async (settings: ClassSettings) => {
    const id = uuid();
    await put(`/classes/${id}`, settings);
    await refresh('/classes');
    await navigate(`/classes/${id}`);
  };
  return (
    <>
      <div className="page-head">
        <h1>Classes</h1>
        {!adding && <Button onClick={() => setAdding(true)}>New class</Button>}
      </div>
      {error && !data && <Notice problem={error} again={() => void mutate()} />}
      {adding && (
        <ClassForm settings={NEW_CLASS} action="Make the class" onSave={add} onCancel={() => setAdding(false)} />
      )}
      {data?.length === 0 && !adding && (
        <div className="empty">No classes yet. Make one, then add the children by first name or code.</div>
      )}
      <ul className="class-list">
        {data?.map(({ id, name, children, ages }) => (
          <li key={id}>
            <Link to={`/classes/${id}`} className="class-card">
              <strong>{name}</strong>
              <span>
                {children === 1 ? '1 child' : `${children} children`},{' '}
                {ages === 'musician' ? 'judged as musicians' : `ages ${ages}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
