import { inLanguage, t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { Printer } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Child } from '../../../../contract/child.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { scaleOf } from '../../../../core/judging/scale.ts';
import { reportSentences } from '../../../../core/wording/reportWords.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { useClass, useMastery } from '../../../api/hooks.ts';
import { useTakesPage } from '../../../api/takes.ts';
import { Loading } from '../../../ui/Loading.tsx';
import { toggled } from '../../../ui/lists.ts';
import { OwnLine } from './OwnLine.tsx';
import { markOfTake } from '../../../domain/markOfTake.ts';
import './report.scss';

/** What parents are told, a page for each child: of the whole class, or of one. */
export default function ReportsPage() {
  const { classId = '' } = useParams();
  const [search] = useSearchParams();
  const { data, error } = useClass(classId);
  if (!data) return <Loading title={t`Reports`} problem={error} />;
  const only = search.get('child');
  const children = data.children.filter(({ id }) => only === null || id === only);
  return <Reports schoolClass={data} children={children} only={only} />;
}

interface ReportsProps {
  readonly schoolClass: ClassDetail;
  readonly children: readonly Child[];
  /** The id of the only child there is a report of; null: of all. */
  readonly only: string | null;
}

function Reports({ schoolClass, children, only }: ReportsProps) {
  const { id: classId, name } = schoolClass;
  const [ready, setReady] = useState<ReadonlySet<string>>(new Set());
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const isReady = children.every(({ id }) => ready.has(id));
  const printed = children.filter(({ id }) => !left.has(id)).length;
  const told = useCallback((id: string) => setReady((before) => new Set(before).add(id)), []);
  return (
    <>
      <div className="page-head no-print">
        <h1>{only === null ? t`Reports for parents` : t`Report: ${children[0]?.name ?? ''}`}</h1>
        <Link to={only === null ? `/classes/${classId}` : `/classes/${classId}/children/${only}`}>{name}</Link>
        <span className="flex-grow-1" />
        <Button disabled={!isReady || printed === 0} onClick={() => print()}>
          <Printer size={16} aria-hidden />{' '}
          {!isReady ? t`Working them out …` : printed < children.length ? t`Print ${printed}` : t`Print`}
        </Button>
      </div>
      {children.map((child) => (
        <Report
          key={child.id}
          schoolClass={schoolClass}
          child={child}
          printed={!left.has(child.id)}
          onPrinted={only === null ? () => setLeft(toggled(left, child.id)) : undefined}
          onReady={told}
        />
      ))}
    </>
  );
}

interface ReportProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
  readonly printed: boolean;
  /** Undefined where there is only this one. */
  readonly onPrinted: (() => void) | undefined;
  /** All of it is there. */
  readonly onReady: (childId: string) => void;
}

function Report({ schoolClass, child, printed, onPrinted, onReady }: ReportProps) {
  const mastery = useMastery(schoolClass.id, child.id).data;
  const takes = useTakesPage(schoolClass.id, child.id).data?.takes;
  const [today] = useState(() => new Date());
  const isReady = mastery !== undefined && takes !== undefined;
  useEffect(() => {
    if (isReady) onReady(child.id);
  }, [isReady, onReady, child.id]);
  if (!mastery || !takes) return null;
  const said = { name: child.name, mastery, marks: takes.map(markOfTake), scale: scaleOf(schoolClass) };
  return (
    <article className={`report card-paper ${printed ? '' : 'no-print'}`}>
      {onPrinted && (
        <Form.Check
          className="no-print report-printed"
          type="checkbox"
          id={`print-${child.id}`}
          label={t`Print that of ${child.name}`}
          checked={printed}
          onChange={onPrinted}
        />
      )}
      <h2>{child.name}</h2>
      <p className="report-head">{t`${schoolClass.name}, rhythm, ${format(today, 'd MMMM yyyy')}`}</p>
      {inLanguage(schoolClass.language, () => reportSentences(said, namingOf(schoolClass))).map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      <OwnLine schoolClass={schoolClass} child={child} />
      <p className="signed" aria-hidden>{t`Teacher`}</p>
    </article>
  );
}
