import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { format } from '../../words/dates.ts';
import { Play, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams } from 'react-router';
import fitsLesson from 'virtual:fits/lesson';
import type { LessonEdit, SavedLesson } from '../../../contract/lesson.ts';
import type { Teacher } from '../../../contract/session.ts';
import { BLOCK_WORDS, leftText } from '../../../core/wording/planWords.ts';
import { durationText } from '../../../core/wording/leadWords.ts';
import { remove } from '../../api/client.ts';
import { lessonsPath } from '../../api/planning.ts';
import { LessonLine } from '../../lesson/LessonLine.tsx';
import { timesOf } from '../../lesson/blocks.ts';
import { RUNNING } from '../../lesson/running.ts';
import { useStartLesson } from '../../lesson/useStartLesson.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { MadeBy, ToShelf } from '../../domain/ToShelf.tsx';
import { mayHear } from '../../domain/currentClass.ts';
import { useKeptDraft } from '../../api/useKeptDraft.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { useSave } from '../../api/useSave.ts';
import { BlockList } from './BlockList.tsx';
import { CopyLesson } from './CopyLesson.tsx';
import { DraftTrouble } from './DraftTrouble.tsx';
import { HeldLine } from './HeldLine.tsx';
import { LessonWhen } from './LessonWhen.tsx';
import { MissingSteps } from './MissingSteps.tsx';
import { heldOnce, lessonOf } from './lessonDraft.ts';
import { type Planning, usePlanning } from './usePlanning.ts';
import './plan.scss';

/** One lesson: its blocks in order, how long they take, and the key that starts it. */
export default function LessonPage({ teacher }: { readonly teacher: Teacher }) {
  const { classId = '', lessonId = '' } = useParams();
  const { planning, problem, again } = usePlanning(classId);
  if (!planning) return <Loading title={t`Lesson`} problem={problem} again={again} />;
  const saved = planning.lessons.find(({ id }) => id === lessonId);
  if (!saved)
    return (
      <div className="empty">
        {rich`This lesson is not kept any more. ${<Link to="/plan">{t`To the lessons`}</Link>}`}
      </div>
    );
  return <Lesson key={lessonId} saved={saved} planning={planning} teacherId={teacher.id} />;
}

interface LessonProps {
  readonly saved: SavedLesson;
  readonly planning: Planning;
  readonly teacherId: string;
}

const bare = (answer: unknown): LessonEdit => {
  const { id: _id, ...lesson } = answer as SavedLesson;
  return lesson;
};
const NONE = perLanguage(() => lessonOf('practice', t`Lesson`));

function useLessonDraft(classId: string, saved: SavedLesson) {
  return useKeptDraft<LessonEdit>({
    path: `${lessonsPath(classId)}/${saved.id}`,
    saved: useMemo(() => bare(saved), [saved]),
    first: NONE(),
    fits: fitsLesson,
    bare,
    refreshes: [lessonsPath(classId)],
  });
}

/** A lesson that has just ended is written down here, kept on this device until it is stored. */
function useHeld(
  lessonId: string,
  teacherId: string,
  lesson: LessonEdit,
  change: (lesson: LessonEdit) => void,
): boolean {
  const [running, setRunning] = RUNNING.use();
  const on = running?.lessonId === lessonId && running.teacherId === teacherId;
  useEffect(() => {
    if (!on || running.endedAfter === undefined) return;
    const { startedAt, endedAfter, leftOut } = running;
    const known = leftOut.filter((key) => lesson.blocks.some((block) => block.key === key));
    change(heldOnce(lesson, { at: startedAt, seconds: Math.min(endedAfter, DAY), leftOut: known }));
    setRunning(undefined);
  }, [on, running, lesson, change, setRunning]);
  return on && running.endedAfter === undefined;
}

function Lesson({ saved, planning, teacherId }: LessonProps) {
  const { schoolClass } = planning;
  const draft = useLessonDraft(schoolClass.id, saved);
  const { value: lesson, change } = draft;
  const walks = useHeld(saved.id, teacherId, lesson, change);
  const startLesson = useStartLesson(teacherId);
  const begin = () =>
    startLesson({ classId: schoolClass.id, lessonId: saved.id, blocks: lesson.blocks, settle: draft.settle });
  const [asked, setAsked] = useState(false);
  // What was held is not held again by a slip of the hand.
  const start = () => (lesson.held ? setAsked(true) : begin());
  const mayPlan = mayHear(schoolClass);
  useKeys(walks || lesson.blocks.length === 0 ? {} : { ' ': start });
  const set = (part: Partial<LessonEdit>) => change({ ...lesson, ...part });
  return (
    <div className="lesson-page">
      <h1 className="visually-hidden">{t`Lesson: ${lesson.title}`}</h1>
      <div className="page-head">
        <Form.Control
          className="lesson-title"
          aria-label={t`Name of the lesson`}
          value={lesson.title}
          maxLength={60}
          readOnly={!mayPlan}
          onChange={({ target }) => set({ title: target.value })}
        />
        <Link to="/plan">{schoolClass.name}</Link>
        <Button size="lg" className="lesson-start" disabled={lesson.blocks.length === 0 || walks} onClick={start}>
          <Play size={18} aria-hidden /> {walks ? t`This lesson is on` : t`Start lesson`}{' '}
          {!walks && <kbd>{t`space`}</kbd>}
        </Button>
      </div>
      {asked && lesson.held && <HoldAgain at={lesson.held.at} onAgain={begin} onCancel={() => setAsked(false)} />}
      <DraftTrouble draft={draft} />
      <HeldLine lesson={lesson} planning={planning} onChange={change} />
      <Blocks
        lesson={lesson}
        planning={planning}
        kept={draft.state === 'saved'}
        readOnly={!mayPlan}
        onChange={change}
      />
      {mayPlan && <Below saved={saved} lesson={lesson} planning={planning} />}
    </div>
  );
}

interface HoldAgainProps {
  /** When it was held, milliseconds since 1970. */
  readonly at: number;
  readonly onAgain: () => void;
  readonly onCancel: () => void;
}

/** A lesson that was held already is held once more only when that is meant. */
function HoldAgain({ at, onAgain, onCancel }: HoldAgainProps) {
  useKeys({ Escape: onCancel });
  return (
    <div className="alert alert-warning" role="alert">
      <p>{t`This lesson was held on ${format(at, 'EEEE d MMMM')}. Hold it once more? How it
          went then stays, and today is written down beside it. For another class, copy it
          below.`}</p>
      <div className="notice-actions">
        <Button size="sm" onClick={onAgain}>{t`Hold it again`}</Button>
        <Button size="sm" variant="outline-dark" onClick={onCancel}>
          {rich`Not now ${<kbd>{t`Esc`}</kbd>}`}
        </Button>
      </div>
    </div>
  );
}

interface BlocksProps {
  readonly lesson: LessonEdit;
  readonly planning: Planning;
  readonly kept: boolean;
  readonly readOnly: boolean;
  readonly onChange: (lesson: LessonEdit) => void;
}

/** How long it takes, as a ruler of minutes, and block by block. */
function Blocks({ lesson, planning, kept, readOnly, onChange }: BlocksProps) {
  const { schoolClass, voice } = planning;
  const { blocks, minutes, held } = lesson;
  const times = useMemo(
    () => timesOf(blocks, schoolClass.children.length, voice.counts),
    [blocks, schoolClass.children.length, voice],
  );
  const seconds = times.reduce((all, one) => all + one.seconds, 0);
  return (
    <>
      <p className="lesson-sum" role="status">
        {rich`${<strong>{durationText(seconds)}</strong>} of ${minutes} min:
          ${leftText(minutes * 60 - seconds)}${<span className="lesson-kept">{kept ? t`Kept` : t`Keeping …`}</span>}`}
      </p>
      <LessonLine
        blocks={blocks.map(({ key, kind }, i) => ({
          key,
          title: BLOCK_WORDS()[kind].title,
          seconds: times[i]!.seconds,
          leftOut: held?.leftOut.includes(key) ?? false,
        }))}
        minutes={minutes}
      />
      <LessonWhen
        lesson={lesson}
        planning={planning}
        readOnly={readOnly}
        onChange={(part) => onChange({ ...lesson, ...part })}
      />
      <MissingSteps lesson={lesson} planning={planning} onChange={onChange} />
      <fieldset disabled={readOnly}>
        <BlockList lesson={lesson} times={times} planning={planning} onChange={onChange} />
      </fieldset>
    </>
  );
}

/** Nobody holds a lesson for longer, seconds. */
const DAY = 86_400;

function Below({ saved, lesson, planning }: { saved: SavedLesson; lesson: LessonEdit; planning: Planning }) {
  const { schoolClass } = planning;
  const navigate = useNavigate();
  const dropping = useSave(
    () => remove(`${lessonsPath(schoolClass.id)}/${saved.id}`),
    `/classes/${schoolClass.id}`,
    '/bin',
  );
  const elements = [...new Set(lesson.blocks.flatMap(({ steps }) => steps.map(({ element }) => element)))];
  const patterns = [...new Set(lesson.blocks.flatMap((block) => block.patterns.map(({ patternId }) => patternId)))];
  const sheet = new URLSearchParams({
    class: schoolClass.id,
    ...(patterns.length > 0 ? { patterns: patterns.join(',') } : {}),
    ...(elements.length > 0 ? { elements: elements.join(',') } : {}),
  });
  const drop = async () => {
    if (await dropping.save()) await navigate('/plan');
  };
  return (
    <div className="lesson-below">
      <CopyLesson lesson={lesson} from={schoolClass.id} />
      <Link className="btn btn-outline-dark" to={`/sheets?${sheet.toString()}`}>{t`A sheet for it`}</Link>
      <ToShelf kind="lesson" id={saved.id} />
      <MadeBy from={lesson.from} />
      <Button variant="link" disabled={dropping.saving} onClick={() => void drop()}>
        <Trash2 size={16} aria-hidden /> {t`Delete this lesson`}
      </Button>
      {dropping.problem && <Notice problem={dropping.problem} />}
    </div>
  );
}
