import { format } from 'date-fns';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { reportSentences } from '../../../core/wording/reportWords.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { useClass, useMastery, useTakesPage } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { markOfTake } from '../../ui/markOfTake.ts';
import './report.scss';

/** What parents are told, a page for each child: of the whole class, or of one. */
export default function ReportsPage() {
  const { classId = '' } = useParams();
  const [search] = useSearchParams();
  const { data, error } = useClass(classId);
  if (!data) return error ? <Notice problem={error} /> : null;
  const only = search.get('child');
  const children = data.children.filter(({ id }) => only === null || id === only);
  return (
    <>
      <div className="page-head no-print">
        <h1>{only === null ? 'Reports for parents' : `Report: ${children[0]?.name ?? ''}`}</h1>
        <Link to={only === null ? `/classes/${classId}` : `/classes/${classId}/children/${only}`}>{data.name}</Link>
        <span className="flex-grow-1" />
        <Button onClick={() => print()}>
          <Printer size={16} aria-hidden /> Print
        </Button>
      </div>
      {children.map((child) => (
        <Report key={child.id} schoolClass={data} child={child} />
      ))}
    </>
  );
}

function Report({ schoolClass, child }: { schoolClass: ClassDetail; child: Child }) {
  const mastery = useMastery(schoolClass.id, child.id).data;
  const takes = useTakesPage(schoolClass.id, child.id).data?.takes;
  const [today] = useState(() => new Date());
  if (!mastery || !takes) return null;
  const said = { name: child.name, mastery, marks: takes.map(markOfTake) };
  return (
    <article className="report card-paper">
      <h2>{child.name}</h2>
      <p className="report-head">
        {schoolClass.name}, rhythm, {format(today, 'd MMMM yyyy')}
      </p>
      {reportSentences(said, namingOf(schoolClass)).map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      <p className="signed" aria-hidden>
        Teacher
      </p>
    </article>
  );
}
