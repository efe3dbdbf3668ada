import { format } from '../../words/dates.ts';
import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import fitsFromHome from 'virtual:fits/from-home';
import type { FromHome } from '../../../contract/home.ts';
import type { PracticeWeek } from '../../../contract/practice.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { changeNow, post } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { useRefresh } from '../../api/useRefresh.ts';
import { Notice } from '../../ui/Notice.tsx';
import { practising } from './weekPlan.ts';

interface PanelProps {
  readonly schoolClass: ClassDetail;
  readonly week: PracticeWeek;
}

const pathOf = ({ schoolClass, week }: PanelProps) => `/classes/${schoolClass.id}/practice/${week.id}/home`;

/** The ways home of a week and what came from there; undefined where the teacher only looks. */
export function useFromHome(props: PanelProps): FromHome | undefined {
  const may = props.schoolClass.role !== 'look';
  return useGet<FromHome>(may ? pathOf(props) : null, fitsFromHome).data;
}

/** Slips with a way home, and takes that wait to be taken in. */
export function FromHomePanel(props: PanelProps) {
  const { schoolClass, week } = props;
  const data = useFromHome(props);
  const refresh = useRefresh();
  const [problem, setProblem] = useState<Error>();
  const path = pathOf(props);
  const doing = async (act: () => Promise<unknown>) => {
    try {
      await act();
      setProblem(undefined);
    } catch (error) {
      setProblem(error as Error);
    }
    await refresh(path, `/classes/${schoolClass.id}`);
  };
  if (!data) return null;
  const children = practising(week, schoolClass.children);
  const without = children.filter(({ id }) => !data.links.some(({ childId }) => childId === id));
  const make = () => doing(() => changeNow(`${path}/links`, { children: without.map(({ id }) => id) }));
  const ids = data.takes.map(({ id }) => id);
  return (
    <section className="from-home" aria-labelledby="from-home">
      <h2 id="from-home">{t`At home`}</h2>
      {problem && <Notice problem={problem} />}
      {without.length > 0 && (
        <p>
          {t`A picture of dots on each slip opens this week for that child, on any
            telephone, until the week is over. It shows no name and no mark.`}{' '}
          <Button variant="outline-dark" onClick={() => void make()}>
            {t`Put it on
              ${without.length === children.length ? t`the slips` : t`${without.length} more slips`}`}
          </Button>
        </p>
      )}
      {data.links.length > 0 && (
        <Ways
          {...props}
          data={data}
          onBack={(child) => void doing(() => changeNow(`${path}/links/${child}`, undefined))}
        />
      )}
      {ids.length > 0 && (
        <>
          <CameFrom {...props} data={data} />
          <Button onClick={() => void doing(() => post(`${path}/taken`, { ids }))}>{t`Take all in`}</Button>{' '}
          <Button variant="outline-dark" onClick={() => void doing(() => post(`${path}/left-out`, { ids }))}>
            {t`Leave them out`}
          </Button>
        </>
      )}
    </section>
  );
}

const nameOf = ({ children }: ClassDetail, id: string) => children.find((child) => child.id === id)?.name ?? '';

interface DataProps extends PanelProps {
  readonly data: FromHome;
}

function Ways({ schoolClass, data, onBack }: DataProps & { readonly onBack: (child: string) => void }) {
  return (
    <details>
      <summary>{t`${data.links.length} slips have a way home`}</summary>
      <ul className="from-home-ways">
        {data.links.map(({ childId }) => (
          <li key={childId}>
            {nameOf(schoolClass, childId)}{' '}
            <Button size="sm" variant="outline-dark" onClick={() => onBack(childId)}>{t`Call back`}</Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Takes that wait, the best three of each child and pattern, with how often the child did it. */
function CameFrom({ schoolClass, week, data }: DataProps) {
  const often = (child: string, item: number) =>
    data.done.filter((one) => one.childId === child && one.item === item).reduce((sum, { times }) => sum + times, 0);
  return (
    <table aria-label={t`Came from home`}>
      <thead>
        <tr>
          <th scope="col">{t`Child`}</th>
          <th scope="col">{t`Pattern`}</th>
          <th scope="col">{t`When`}</th>
          <th scope="col">{t`Right`}</th>
          <th scope="col">{t`Done in all`}</th>
        </tr>
      </thead>
      <tbody>
        {data.takes.map(({ id, childId, item, takenAt, accuracy }) => (
          <tr key={id}>
            <th scope="row">{nameOf(schoolClass, childId)}</th>
            <td>{week.plan.items[item]?.title}</td>
            <td>{format(takenAt, 'd MMM yyyy, HH:mm')}</td>
            <td>{Math.round(accuracy * 100)} %</td>
            <td>{t`${often(childId, item)} times`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
