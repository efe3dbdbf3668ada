import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { TermDetail } from '../../../../contract/term.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { useClass, useTerm } from '../../../api/hooks.ts';
import { Loading } from '../../../ui/Loading.tsx';
import { CellSign } from './CellSign.tsx';
import { GridViews } from './GridViews.tsx';
import { SaveMarks } from './SaveMarks.tsx';
import { type GridView, columnsOf, rowsOf } from './gridCells.ts';
import '../classes.scss';

/** A term that is over, as it was on the day it was closed. */
export default function TermPage() {
  const { classId = '', termId = '' } = useParams();
  const room = useClass(classId);
  const term = useTerm(classId, termId);
  const problem = room.error ?? term.error;
  if (!room.data || !term.data) return <Loading title={t`Term`} problem={problem} />;
  return <Term schoolClass={room.data} term={term.data} />;
}

function Term({ schoolClass, term }: { schoolClass: ClassDetail; term: TermDetail }) {
  const [view, setView] = useState<GridView>('patterns');
  const { records, names } = term;
  const children = records.children.map((id, i) => ({ id, name: names[i] ?? '', adaptations: null }));
  const then = { ...schoolClass, scale: term.scale ?? null, name: `${schoolClass.name} ${term.title}`, children };
  const columns = columnsOf(records, view, namingOf(schoolClass));
  return (
    <>
      <div className="page-head">
        <h1>{term.title}</h1>
        <Link to={`/classes/${schoolClass.id}`}>{schoolClass.name}</Link>
        <span>{t`closed on ${format(term.untilAt, 'd MMMM yyyy')}`}</span>
      </div>
      <div className="grid-tools">
        <GridViews view={view} onView={setView} />
        <span className="flex-grow-1" />
        <SaveMarks schoolClass={then} records={records} view={view} />
      </div>
      <div className="grid-scroll">
        <table className="records-grid" aria-label={t`Marks of the term`}>
          <thead>
            <tr>
              <th scope="col">
                <span className="heading">{t`Child`}</span>
              </th>
              {columns.map(({ id, title }) => (
                <th key={id} scope="col" className="turned">
                  <span className="heading">{title}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rowsOf(then, records, view).map(({ childId, name, cells }) => (
              <tr key={childId}>
                <th scope="row">{name}</th>
                {columns.map(({ id }) => (
                  <td key={id}>
                    <CellSign cell={cells[id]} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
