import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { Trash2 } from 'lucide-react';
import { Suspense, lazy, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams } from 'react-router';
import type { Child } from '../../../../contract/child.ts';
import type { ChildErased } from '../../../../contract/childData.ts';
import type { ListedTake } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { MisreadingCode } from '../../../../core/judging/misreadings/table.ts';
import { scaleOf } from '../../../../core/judging/scale.ts';
import { nextStepOf } from '../../../../core/records/nextStep.ts';
import { misreadingTitle } from '../../../../core/wording/misreadingSentences.ts';
import { nextStepSentence } from '../../../../core/wording/nextStepWords.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';
import { type Voice, namingOf, voiceOf } from '../../../../core/wording/voice.ts';
import { remove } from '../../../api/client.ts';
import { useClass } from '../../../api/hooks.ts';
import { useTakesPage } from '../../../api/takes.ts';
import { NextStepButton } from '../../../take/NextStepLine.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import { Loading } from '../../../ui/Loading.tsx';
import { markOfTake } from '../../../domain/markOfTake.ts';
import { BothVersions } from '../../../domain/BothVersions.tsx';
import { mayHear } from '../../../domain/currentClass.ts';
import { useEditing } from '../../../api/useEditing.ts';
import { useSave } from '../../../api/useSave.ts';
import { ChildForm } from './ChildForm.tsx';
import { MasteryTable } from './MasteryTable.tsx';
import { TakeRows } from './TakeRows.tsx';
import '../classes.scss';

const ErasedProof = lazy(() => import('./ErasedProof.tsx'));
const KeptOfChild = lazy(() => import('./KeptOfChild.tsx'));
const MarksChart = lazy(() => import('./MarksChart.tsx'));

/** One child: what it knows, what it misread and whether that has gone, and all its takes. */
export default function ChildPage() {
  const { classId = '', childId = '' } = useParams();
  const { data, error, mutate } = useClass(classId);
  const [erased, setErased] = useState<ChildErased>();
  if (erased)
    return (
      <Suspense fallback={null}>
        <ErasedProof erased={erased} classId={classId} />
      </Suspense>
    );
  if (!data) return <Loading title={t`Child`} problem={error} again={() => void mutate()} />;
  const child = data.children.find(({ id }) => id === childId);
  if (!child) return <Notice problem={{ message: t`This child is not in the class. It may be in the bin.` }} />;
  return <ChildView schoolClass={data} child={child} onErased={setErased} />;
}

interface ChildProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
  readonly onErased: (erased: ChildErased) => void;
}

function ChildView({ schoolClass, child, onErased }: ChildProps) {
  const { data } = useTakesPage(schoolClass.id, child.id);
  const takes = data?.takes ?? [];
  return (
    <>
      <ChildHead schoolClass={schoolClass} child={child} onErased={onErased} />
      <NextForChild schoolClass={schoolClass} child={child} takes={takes} />
      <MasteryTable classId={schoolClass.id} childId={child.id} naming={namingOf(schoolClass)} />
      {takes.length > 1 && (
        <Suspense fallback={<div className="marks-chart" />}>
          <MarksChart takes={takes} scale={scaleOf(schoolClass)} />
        </Suspense>
      )}
      <Misread takes={takes} voice={voiceOf(schoolClass)} />
      <div className="takes-cell">
        <TakesFrom schoolClass={schoolClass} childId={child.id} after={undefined} />
      </div>
    </>
  );
}

function ChildHead({ schoolClass, child, onErased }: ChildProps) {
  const [changing, setChanging] = useState(false);
  const [keeping, setKeeping] = useState(false);
  const navigate = useNavigate();
  const path = `/classes/${schoolClass.id}/children/${child.id}`;
  const removal = useSave(() => remove(path), '/classes', '/takes', '/bin');
  const removeChild = async () => {
    if (!confirm(t`Put ${child.name} into the bin, with all takes? It can be taken out again for 30 days.`)) return;
    if (await removal.save()) await navigate(`/classes/${schoolClass.id}`);
  };
  return (
    <>
      <div className="page-head">
        <h1>{child.name}</h1>
        <Link to={`/classes/${schoolClass.id}`}>{schoolClass.name}</Link>
        <span className="flex-grow-1" />
        <Link className="btn btn-outline-dark" to={`/classes/${schoolClass.id}/reports?child=${child.id}`}>
          {t`Report`}
        </Link>
        {schoolClass.role === 'owner' && (
          <>
            <Button variant="outline-dark" onClick={() => setChanging(!changing)}>
              {t`Name and what is made easier`}
            </Button>
            <Button variant="outline-dark" aria-expanded={keeping} onClick={() => setKeeping(!keeping)}>
              {t`What is kept`}
            </Button>
            <Button variant="outline-dark" onClick={() => void removeChild()}>
              <Trash2 size={16} aria-hidden /> {t`Remove`}
            </Button>
          </>
        )}
      </div>
      {removal.problem && <Notice problem={removal.problem} />}
      {keeping && (
        <Suspense fallback={null}>
          <KeptOfChild schoolClass={schoolClass} child={child} onErased={onErased} />
        </Suspense>
      )}
      {changing && (
        <ChangeChild path={path} child={child} naming={namingOf(schoolClass)} onClose={() => setChanging(false)} />
      )}
    </>
  );
}

interface ChangeChildProps {
  readonly path: string;
  readonly child: Child;
  readonly naming: NamingId;
  readonly onClose: () => void;
}

function ChangeChild({ path, child, naming, onClose }: ChangeChildProps) {
  // As it was when the form was opened: somebody else may change it meanwhile.
  const [was] = useState(() => child);
  const editing = useEditing(path, { name: was.name, adaptations: was.adaptations }, ['/classes', '/takes']);
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onClose();
  };
  return (
    <>
      {editing.clash && (
        <BothVersions clash={editing.clash} onChosen={(theirs) => void closeWhen(editing.settle(theirs))} />
      )}
      <ChildForm
        child={was}
        naming={naming}
        problem={editing.problem}
        onCancel={onClose}
        onSave={(values) => closeWhen(editing.save(values))}
      />
    </>
  );
}

interface TakesProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
  readonly takes: readonly ListedTake[];
}

function NextForChild({ schoolClass, child, takes }: TakesProps) {
  const next = nextStepOf(
    takes.map((take) => ({
      pattern: take.patternKey,
      takenAt: take.takenAt,
      bpm: take.bpm,
      mark: markOfTake(take),
      scale: scaleOf(schoolClass),
      misread: take.misread,
      ...(take.hardest === null ? {} : { hardest: take.hardest }),
    })),
  );
  const last = takes[0];
  if (!next || !last) return <p>{t`${child.name} was not heard yet.`}</p>;
  const naming = namingOf(schoolClass);
  const to = `/take?child=${child.id}&pattern=${last.patternId}`;
  return (
    <div className="child-next">
      {rich`${<strong>{t`Next`}</strong>} in ${last.title}: ${nextStepSentence(next.step, naming)}`}{' '}
      {last.patternId && mayHear(schoolClass) && (
        <>
          <NextStepButton step={next.step} patternId={last.patternId} naming={naming} to={to} />{' '}
          <Link className="btn btn-outline-dark" to={to}>
            {t`Hear ${child.name}`}
          </Link>
        </>
      )}
    </div>
  );
}

/** A misreading that was not seen in so many takes since has gone. */
const GONE_AFTER = 3;

/** What was misread in the newest takes: how often, and whether it has gone since. */
function Misread({ takes, voice }: { takes: readonly ListedTake[]; voice: Voice }) {
  const found = new Map<MisreadingCode, { times: number; since: number }>();
  takes.forEach(({ misread }, since) => {
    for (const code of misread) {
      const known = found.get(code);
      found.set(code, { times: (known?.times ?? 0) + 1, since: known?.since ?? since });
    }
  });
  if (found.size === 0) return null;
  return (
    <section className="misread">
      <h2>{t`Misread`}</h2>
      <ul>
        {[...found].map(([code, { times, since }]) => (
          <li key={code}>
            <strong>{misreadingTitle(code, voice)}</strong> {times === 1 ? t`once` : t`${times} times`},{' '}
            {since >= GONE_AFTER
              ? t`gone: not in the newest ${since} takes`
              : since === 0
                ? t`also in the newest take`
                : t`last ${since === 1 ? t`one take` : t`${since} takes`} ago`}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface TakesFromProps {
  readonly schoolClass: ClassDetail;
  readonly childId: string;
  readonly after: string | undefined;
}

/** A page of takes, and on demand the older ones under it. */
function TakesFrom({ schoolClass, childId, after }: TakesFromProps) {
  const { id: classId } = schoolClass;
  const { data, error } = useTakesPage(classId, childId, undefined, after);
  const [more, setMore] = useState(false);
  if (!data) return error ? <Notice problem={error} /> : null;
  return (
    <>
      <TakeRows classId={classId} takes={data.takes} scale={scaleOf(schoolClass)} marks={mayHear(schoolClass)} />
      {data.next !== null &&
        (more ? (
          <TakesFrom schoolClass={schoolClass} childId={childId} after={data.next} />
        ) : (
          <Button variant="outline-dark" onClick={() => setMore(true)}>{t`Older takes`}</Button>
        ))}
    </>
  );
}
