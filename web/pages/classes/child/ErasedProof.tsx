import Button from 'react-bootstrap/Button';
import { Printer } from 'lucide-react';
import { useNavigate } from 'react-router';
import { counted, t } from '../../../../core/words/say.ts';
import type { ChildErased } from '../../../../contract/childData.ts';
import { useRefresh } from '../../../api/useRefresh.ts';
import { format } from '../../../words/dates.ts';

/** What was looked through after all of a child was deleted. */
export default function ErasedProof({ erased, classId }: { erased: ChildErased; classId: string }) {
  const refresh = useRefresh();
  const navigate = useNavigate();
  const { name, at, tables } = erased;
  const left = tables.reduce((sum, { after }) => sum + after, 0);
  const leave = async () => {
    await navigate(`/classes/${classId}`);
    await refresh('/classes', '/takes', '/bin');
  };
  const rows = [...tables].sort((a, b) => b.before - a.before);
  return (
    <section className="proof">
      <div className="page-head">
        <h1>{left === 0 ? t`Nothing of ${name} is left` : t`${left} rows of ${name} are left`}</h1>
        <span className="flex-grow-1 no-print" />
        <Button className="no-print" variant="outline-dark" onClick={() => print()}>
          <Printer size={16} aria-hidden /> {t`Print`}
        </Button>
        <Button className="no-print" onClick={() => void leave()}>{t`Done`}</Button>
      </div>
      <p>
        {t`Deleted on ${format(at, 'd MMMM, HH:mm')}. After that ${counted(tables.length, 'table')} of the database
            were looked through for this child and its takes: those that are of children by the child, all others in
            every column of text.`}
      </p>
      <p>{t`Backups that the school makes hold it until they are overwritten, and a device that was without a network
          until it is in touch again. Notes and titles that name the child are yours to look through.`}</p>
      <table className="card-paper">
        <thead>
          <tr>
            <th>{t`Table`}</th>
            <th>{t`rows before`}</th>
            <th>{t`rows after`}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ table, before, after }) => (
            <tr key={table}>
              <th scope="row">
                <code>{table}</code>
              </th>
              <td>{before}</td>
              <td>{after}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
