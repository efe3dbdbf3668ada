import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { CalendarPlus, Printer } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams } from 'react-router';
import type { PracticeWeek } from '../../../contract/practice.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { remove } from '../../api/client.ts';
import { useClass, usePatterns, usePractice } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { useSave } from '../../api/useSave.ts';
import { ChangeWeek } from './ChangeWeek.tsx';
import { FromHomePanel, useFromHome } from './FromHomePanel.tsx';
import { Slips } from './Slips.tsx';
import { calendarOf, daysOf, timesText } from './calendar.ts';
import { doneOn, minutesOf, practising } from './weekPlan.ts';
import './practice.scss';

/** One week: what is practised, and who has done what; printed, it is a slip for each child. */
export default function PracticeWeekPage() {
  const { classId = '', weekId = '' } = useParams();
  const room = useClass(classId);
  const weeks = usePractice(classId);
  const problem = room.error ?? weeks.error;
  if (!room.data || !weeks.data) return <Loading title={t`Practice`} problem={problem} />;
  const week = weeks.data.find(({ id }) => id === weekId);
  if (!week) return <Notice problem={{ message: t`This practice week is not here any more. Make a new one.` }} />;
  return <Week schoolClass={room.data} week={week} />;
}

interface WeekProps {
  readonly schoolClass: ClassDetail;
  readonly week: PracticeWeek;
}

function Week({ schoolClass, week }: WeekProps) {
  const { starts, plan } = week;
  const minutes = minutesOf(plan.items);
  const days = daysOf(starts);
  const links = useFromHome({ schoolClass, week })?.links ?? [];
  return (
    <>
      <div className="no-print">
        <WeekHead schoolClass={schoolClass} week={week} minutes={minutes} />
        <ul className="practice-items">
          {plan.items.map(({ patternId, title, times, bpm, days: on }) => (
            <li key={patternId}>
              {rich`${<Link to={`/patterns/${patternId}`}>{title}</Link>} ${timesText(times)} at ${bpm}`}
              {on.length < 7 && `, ${on.map((day) => days[day]!.title.slice(0, 3)).join(', ')}`}
            </li>
          ))}
        </ul>
        <DoneTable schoolClass={schoolClass} week={week} minutes={minutes} />
        <FromHomePanel schoolClass={schoolClass} week={week} />
      </div>
      <Slips links={links} week={week} children={practising(week, schoolClass.children)} minutes={minutes} />
    </>
  );
}

function WeekHead({ schoolClass, week, minutes }: WeekProps & { minutes: readonly number[] }) {
  const { id, plan } = week;
  const path = `/classes/${schoolClass.id}/practice`;
  const navigate = useNavigate();
  const patterns = usePatterns().data;
  const [changing, setChanging] = useState(false);
  const removal = useSave(() => remove(`${path}/${id}`), '/classes', '/bin');
  const drop = async () => {
    if (confirm(t`Put ${plan.title} into the bin? Takes stay.`) && (await removal.save())) await navigate(path);
  };
  const calendar = async () =>
    saveFile(`${plan.title}.ics`, new Blob([await calendarOf(week, minutes)], { type: 'text/calendar' }));
  const mayChange = schoolClass.role !== 'look';
  return (
    <>
      <div className="page-head">
        <h1>{plan.title}</h1>
        <Link to={path}>{schoolClass.name}</Link>
        <span className="flex-grow-1" />
        <Button onClick={() => print()}>
          <Printer size={16} aria-hidden /> {t`Print the slips`}
        </Button>
        <Button variant="outline-dark" onClick={() => void calendar()}>
          <CalendarPlus size={16} aria-hidden /> {t`For a calendar`}
        </Button>
        {mayChange && patterns && patterns.length > 0 && (
          <Button variant="outline-dark" onClick={() => setChanging(!changing)}>{t`Change`}</Button>
        )}
        {mayChange && <Button variant="outline-dark" onClick={() => void drop()}>{t`Remove`}</Button>}
      </div>
      {removal.problem && <Notice problem={removal.problem} />}
      {changing && patterns && (
        <ChangeWeek schoolClass={schoolClass} patterns={patterns} week={week} onClose={() => setChanging(false)} />
      )}
    </>
  );
}

/** Who was heard with what on which day: takes tick it off. */
function DoneTable({ schoolClass, week, minutes }: WeekProps & { minutes: readonly number[] }) {
  const days = daysOf(week.starts);
  return (
    <div className="grid-scroll">
      <table className="practice-done" aria-label={t`Done`}>
        <thead>
          <tr>
            <th scope="col">{t`Child`}</th>
            {days.map(({ title }, day) => (
              <th key={title} scope="col">
                {title}
                <small>{minutes[day] ? t`${minutes[day]} min` : t`free`}</small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {practising(week, schoolClass.children).map(({ id, name }) => (
            <tr key={id}>
              <th scope="row">
                <Link to={`/classes/${schoolClass.id}/children/${id}`}>{name}</Link>
              </th>
              {days.map(({ title }, day) => (
                <td key={title}>
                  <DoneMark done={doneOn(week, id, day)} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function DoneMark({ done }: { done: ReturnType<typeof doneOn> }) {
  if (!done) return <span className="visually-hidden">{t`nothing to do`}</span>;
  if (done.done === 0) return <span className="not-done">–</span>;
  return done.done >= done.due ? (
    <span className="done-all">{t`✓ done`}</span>
  ) : (
    <span>{t`${done.done} of ${done.due}`}</span>
  );
}
