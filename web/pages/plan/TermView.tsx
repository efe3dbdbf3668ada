import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { BookOpen, CalendarDays } from 'lucide-react';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { createPortal } from 'react-dom';
import { Link } from 'react-router';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { lessonSlots } from '../../../core/planning/slots.ts';
import { type Late, type PlannedLesson, type TermStep, isIn } from '../../../core/planning/term.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { termPicture } from '../../../core/planning/picture.ts';
import { elementName, lateText, stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import { put } from '../../api/client.ts';
import { lessonsPath, useHeardWeeks } from '../../api/planning.ts';
import { Notice } from '../../ui/Notice.tsx';
import { mayHear } from '../../domain/currentClass.ts';
import { saveFile } from '../../ui/saveFile.ts';
import { useSave } from '../../api/useSave.ts';
import { ToShelf } from '../../domain/ToShelf.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { DraftTrouble } from './DraftTrouble.tsx';
import { NewElements } from './NewElements.tsx';
import { TermDaysForm } from './TermDaysForm.tsx';
import { TermLessons } from './TermLessons.tsx';
import { TermPictureTable } from './TermPictureTable.tsx';
import { termCalendar } from './termCalendar.ts';
import { dragged, inOrder, movedAlong, notDone, onDays, planned } from './termDraft.ts';
import { useTermDraft } from './useTerm.ts';
import { type PlanViewProps, type Planning, dayOfMoment } from './usePlanning.ts';

/** What is new when, over a term, and the picture of it. */
export function TermView({ planning, actions }: PlanViewProps) {
  const { schoolClass, voice, met } = planning;
  const [today] = useState(() => dayOfMoment(Date.now()));
  const draft = useTermDraft(planning, today);
  const { value: term, change } = draft;
  const begun = planning.term !== null || draft.state !== 'saved';
  const mayPlan = mayHear(schoolClass);
  const { lessons, late } = useMemo(() => planned(term, met), [term, met]);
  const begin = () => change(term);
  const { move, problem, order } = useLessonMoves(planning, term, change);
  useKeys(!begun && mayPlan ? { ' ': begin } : {});
  return (
    <>
      {begun && <TakeOut lessons={lessons} planning={planning} actions={actions} />}
      {!begun &&
        mayPlan &&
        createPortal(
          <Button size="lg" onClick={begin}>
            {rich`Plan it like this ${<kbd>{t`space`}</kbd>}`}
          </Button>,
          actions,
        )}
      <DraftTrouble draft={draft} />
      {problem && <Notice problem={problem} />}
      <div className="term-work">
        <fieldset disabled={!mayPlan}>
          <TermDaysForm term={term} count={lessons.length} onChange={(part) => change(onDays(term, part, today))} />
          <NewElements
            order={term.order}
            met={met}
            naming={voice.naming}
            onOrder={(order) => change(inOrder(term, order, today))}
          />
        </fieldset>
        <div className="term-shown">
          <Picture from={begun ? term.from : undefined} lessons={lessons} planning={planning} today={today} />
          <Troubles left={term.left} late={late} naming={voice.naming} />
          {order !== undefined && (
            <p className="term-trouble" role="status">
              {order}
            </p>
          )}
          <TermLessons
            lessons={lessons}
            planning={planning}
            today={today}
            onMove={move}
            onNotDone={(lesson, step) => change(notDone(term, lesson, [step]))}
          />
        </div>
      </div>
    </>
  );
}

/**
 * A lesson takes another day, and the others follow: what is new in it, and the lesson that is kept for the day.
 * @returns `order`: why something of it did not go along
 */
function useLessonMoves(
  { schoolClass, lessons, voice }: Planning,
  term: TermPlanEdit,
  change: (term: TermPlanEdit) => void,
) {
  const path = lessonsPath(schoolClass.id);
  const [order, setOrder] = useState<string>();
  const following = useSave(async (moved: ReturnType<typeof movedAlong<SavedLesson>>) => {
    for (const lesson of moved) {
      const { id, ...now } = lesson.now;
      const { id: _id, ...was } = lesson.was;
      await put(`${path}/${id}`, { ...now, was });
    }
  }, path);
  const move = (from: number, to: number) => {
    const next = dragged(term, from, to);
    const stayed = (term.contents[from] ?? []).filter((one) => !isIn(next.contents[to] ?? [], one));
    const names = listed([...new Set(stayed.map(({ element }) => elementName(element, voice.naming)))]);
    setOrder(
      stayed.length > 0
        ? t`Each element is met, then read, then written, then heard: the steps of ${names}
          stay in that order.`
        : undefined,
    );
    change(next);
    const along = movedAlong(lessons, lessonSlots(term), from, to);
    if (along.length > 0) void following.save(along);
  };
  return { move, order, problem: following.problem };
}

interface PictureProps {
  /** From which day on what was heard is shown; undefined where it is not yet. */
  readonly from: string | undefined;
  readonly lessons: readonly PlannedLesson[];
  readonly planning: Planning;
  readonly today: string;
}

function Picture({ from, lessons, planning: { schoolClass, voice }, today }: PictureProps) {
  const heard = useHeardWeeks(schoolClass.id, from).data;
  const picture = useMemo(
    () => termPicture(lessons, heard ?? [], schoolClass.children.length),
    [lessons, heard, schoolClass.children.length],
  );
  return <TermPictureTable picture={picture} naming={voice.naming} today={today} />;
}

interface TroublesProps {
  readonly left: readonly TermStep[];
  readonly late: readonly Late[];
  readonly naming: NamingId;
}

/** What does not fit, and what comes back too late. */
function Troubles({ left, late, naming }: TroublesProps) {
  const longest = new Map<string, Late>();
  for (const one of late) if ((longest.get(one.element)?.days ?? 0) < one.days) longest.set(one.element, one);
  return (
    <>
      {left.length > 0 && (
        <p className="term-trouble" role="status">
          {t`Does not fit into the term: ${listed(left.map((one) => stepText(one, naming)))}.`}
        </p>
      )}
      {longest.size > 0 && (
        <p className="term-trouble" role="status">{t`Not seen for more than three weeks:
            ${listed([...longest.values()].map((one) => lateText(one, naming)))}.`}</p>
      )}
    </>
  );
}

interface TakeOutProps {
  readonly lessons: readonly PlannedLesson[];
  readonly planning: Planning;
  readonly actions: HTMLElement;
}

/** A term on paper, and in a calendar. */
function TakeOut({ lessons, planning: { schoolClass, voice }, actions }: TakeOutProps) {
  const [problem, setProblem] = useState<Error>();
  const takeOut = async () => {
    try {
      const text = await termCalendar(schoolClass, lessons, voice.naming);
      saveFile(t`${schoolClass.name} lessons.ics`, new Blob([text], { type: 'text/calendar' }));
    } catch (error) {
      setProblem(error as Error);
    }
  };
  return (
    <>
      {createPortal(
        <>
          <ToShelf kind="term" />
          <Link className="btn btn-outline-dark" to={`/sheets/booklet/${schoolClass.id}`}>
            <BookOpen size={16} aria-hidden /> {t`Booklet of sheets`}
          </Link>
          <Button variant="outline-dark" disabled={lessons.length === 0} onClick={() => void takeOut()}>
            <CalendarDays size={16} aria-hidden /> {t`Calendar file`}
          </Button>
        </>,
        actions,
      )}
      {problem && <Notice problem={problem} />}
    </>
  );
}
