import { t } from '../../../core/words/say.ts';
import { nextMonday, parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { PracticeEdit, PracticeWeek } from '../../../contract/practice.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { ELEMENT_IDS, elementsOf } from '../../../core/rhythm/elements.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { put } from '../../api/client.ts';
import { useClass, usePractice } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { useSave } from '../../api/useSave.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { PracticeForm } from './PracticeForm.tsx';
import { practising } from './weekPlan.ts';
import './practice.scss';

/** What a class practises at home, week by week. */
export default function PracticePage() {
  const { classId = '' } = useParams();
  const room = useClass(classId);
  const weeks = usePractice(classId);
  const patterns = useOfferedPatterns();
  const problem = room.error ?? weeks.error ?? patterns.error;
  if (!room.data || !weeks.data || !patterns.data) return <Loading title={t`Practice`} problem={problem} />;
  return <Weeks schoolClass={room.data} weeks={weeks.data} patterns={patterns.data} />;
}

interface WeeksProps {
  readonly schoolClass: ClassDetail;
  readonly weeks: readonly PracticeWeek[];
  readonly patterns: readonly SavedPattern[];
}

function Weeks({ schoolClass, weeks, patterns }: WeeksProps) {
  const { id, name, role, children } = schoolClass;
  const [search] = useSearchParams();
  const asked = search.has('children') || search.has('element');
  const [making, setMaking] = useState(asked);
  const [weekId] = useState(() => uuid());
  const navigate = useNavigate();
  const saving = useSave((week: PracticeEdit) => put(`/classes/${id}/practice/${weekId}`, week), '/classes');
  const save = async (week: PracticeEdit) => {
    if (await saving.save(week)) await navigate(`/classes/${id}/practice/${weekId}`);
  };
  const mayMake = role !== 'look' && children.length > 0 && patterns.length > 0;
  return (
    <>
      <div className="page-head">
        <h1>{t`Practice weeks`}</h1>
        <Link to={`/classes/${id}`}>{name}</Link>
        <span className="flex-grow-1" />
        {mayMake && !making && <Button onClick={() => setMaking(true)}>{t`New practice week`}</Button>}
      </div>
      {making && mayMake && (
        <PracticeForm
          schoolClass={schoolClass}
          patterns={patterns}
          start={usualWeek(patterns, search)}
          problem={saving.problem}
          onSave={save}
          onCancel={() => setMaking(false)}
        />
      )}
      {weeks.length === 0 && !making && (
        <div className="empty">{t`A practice week says which rhythms are clapped at home, how often, how fast
            and on which days. Each child gets a slip, and what is heard ticks it off.`}</div>
      )}
      <ul className="weeks">
        {weeks.map((week) => (
          <li key={week.id}>
            <Link to={`/classes/${id}/practice/${week.id}`} className="class-card">
              <strong>{week.plan.title}</strong>
              <span>
                {t`from ${format(parseISO(week.starts), 'd MMMM')},
                  ${practising(week, children).length} children,
                  ${week.plan.items.map(({ title }) => title).join(', ')}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}

const USUAL_BPM = 66;
const SCHOOL_DAYS = [0, 1, 2, 3, 4];

/** Next week, for those and with that which the address asks for. */
function usualWeek(patterns: readonly SavedPattern[], search: URLSearchParams): PracticeEdit {
  const element = ELEMENT_IDS.find((id) => id === search.get('element'));
  const fitting = patterns.find(({ text }) => {
    const read = parseRhythm(text);
    return element && read.ok && elementsOf(read.pattern).has(element);
  });
  const { id, title, text } = fitting ?? patterns[0]!;
  const item = { patternId: id, title, text, bpm: USUAL_BPM, times: 2, days: SCHOOL_DAYS };
  const starts = format(nextMonday(new Date()), 'yyyy-MM-dd');
  return {
    starts,
    plan: {
      title: t`Week of ${format(parseISO(starts), 'd MMMM')}`,
      items: [item],
      children: search.get('children')?.split(',') ?? null,
    },
  };
}
