import { t } from '../../../../core/words/say.ts';
import { Link, useParams } from 'react-router';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { classStanding } from '../../../../core/records/classStanding.ts';
import { ELEMENTS, type ElementId } from '../../../../core/rhythm/elements.ts';
import { inNaming } from '../../../../core/wording/valueNames.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { useClass, useRecords } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { Loading } from '../../../ui/Loading.tsx';
import { mayHear } from '../../../domain/currentClass.ts';
import { useOfferedPatterns } from '../../../domain/offeredPatterns.ts';
import { StateMark } from './StateMark.tsx';
import { knownChildren } from '../../../domain/knownChildren.ts';
import { isElement, practises } from './gridCells.ts';
import '../classes.scss';

/** One element: who has it, who does not, and which patterns practise it. */
export default function ElementPage() {
  const { classId = '', element } = useParams();
  const room = useClass(classId);
  const records = useRecords(classId);
  const problem = room.error ?? records.error;
  if (!isElement(element)) return <Notice problem={{ message: t`There is no such element of rhythm.` }} />;
  if (!room.data || !records.data) return <Loading title={t`Class`} problem={problem} />;
  return <ElementView schoolClass={room.data} records={records.data} element={element} />;
}

interface ViewProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly element: ElementId;
}

/** What needs the teacher stands first. */
const ORDER = ['shaky', 'due', 'growing', 'new', 'firm'] as const;

/** How many are firm in it, and what that makes of the class. */
function standingText({ firm, heard, has, met }: ReturnType<typeof classStanding>[number]): string {
  if (has) return t`${firm} of ${heard} children heard in it are firm: the class has it.`;
  return met
    ? t`${firm} of ${heard} children heard in it are firm: the class has met it, but does not have it yet.`
    : t`${firm} of ${heard} children heard in it are firm: the class has not met it yet.`;
}

function ElementView({ schoolClass, records, element }: ViewProps) {
  const known = knownChildren(records);
  const standing = classStanding(known).find((one) => one.element === element);
  const title = inNaming(ELEMENTS()[element].title, namingOf(schoolClass));
  const nameOf = (childId: string) => schoolClass.children.find(({ id }) => id === childId)?.name ?? '';
  const inState = (state: string) =>
    known.filter(({ mastery }) => mastery.some((one) => one.element === element && one.state === state));
  const never = known.filter(({ mastery }) => !mastery.some((one) => one.element === element));
  const notFirm = [...inState('shaky'), ...inState('due'), ...inState('growing'), ...inState('new'), ...never];
  const whom = notFirm.map(({ childId }) => childId).join(',');
  const childLink = (childId: string) => (
    <Link key={childId} to={`/classes/${schoolClass.id}/children/${childId}`}>
      {nameOf(childId)}
    </Link>
  );
  return (
    <>
      <div className="page-head">
        <h1>{title}</h1>
        <Link to={`/classes/${schoolClass.id}`}>{schoolClass.name}</Link>
        <span className="flex-grow-1" />
        {notFirm.length > 0 && mayHear(schoolClass) && (
          <Link
            className="btn btn-primary"
            to={`/take/line-up?class=${schoolClass.id}&element=${element}&children=${whom}`}
          >
            {t`Hear the ${notFirm.length} who do not have it`}
          </Link>
        )}
      </div>
      <p className="element-standing">{standing ? standingText(standing) : t`Nobody was heard in it yet.`}</p>
      <dl className="element-children">
        {ORDER.map((state) => {
          const those = inState(state);
          if (those.length === 0) return null;
          return (
            <div key={state}>
              <dt>
                <StateMark state={state} />
              </dt>
              <dd>{those.map(({ childId }) => childLink(childId))}</dd>
            </div>
          );
        })}
        {never.length > 0 && (
          <div>
            <dt>{t`not heard`}</dt>
            <dd>{never.map(({ childId }) => childLink(childId))}</dd>
          </div>
        )}
      </dl>
      <PatternsWith element={element} />
    </>
  );
}

/** The teacher's patterns in which the element stands. */
function PatternsWith({ element }: { element: ElementId }) {
  const { data } = useOfferedPatterns();
  const found = data?.filter(({ text }) => practises(text, element));
  if (!found) return null;
  return (
    <section className="element-patterns">
      <h2>{t`Patterns that practise it`}</h2>
      {found.length === 0 ? (
        <p>{t`None of yours has it. Write one under Patterns.`}</p>
      ) : (
        <ul>
          {found.map(({ id, title }) => (
            <li key={id}>
              <Link to={`/patterns/${id}`}>{title}</Link>{' '}
              <Link className="btn btn-sm btn-outline-dark" to={`/lead?pattern=${id}`}>{t`Lead`}</Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
