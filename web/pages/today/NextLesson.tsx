import { counted, t } from '../../../core/words/say.ts';
import { addMinutes, parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { Suspense } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { Day } from '../../../core/planning/days.ts';
import { minutesOf } from '../../../core/planning/slots.ts';
import type { DueLesson } from '../../../core/planning/today.ts';
import { mayHear, useChooseClass } from '../../domain/currentClass.ts';
import { lessonPath } from '../../lesson/lessonPath.ts';
import { RUNNING } from '../../lesson/running.ts';
import { lazyAgain } from '../../ui/lazyAgain.ts';
import { useKeys } from '../../ui/useKeys.ts';

/** What a lesson is made of is known to the code that leads it: that comes when there is one. */
const PreparedLesson = lazyAgain(() => import('./PreparedLesson.tsx'));

interface NextProps {
  readonly teacherId: string;
  readonly next: DueLesson<SavedLesson> | undefined;
  readonly classes: readonly ClassSummary[];
  readonly day: Day;
  /** Minutes since midnight. */
  readonly now: number;
}

/** The lesson that is on or comes next: the space bar starts it. */
export function NextLesson(props: NextProps) {
  const { teacherId, next, classes, day, now } = props;
  const [running] = RUNNING.use();
  const on = running?.teacherId === teacherId && running.endedAfter === undefined ? running : undefined;
  const room = classes.find(({ id }) => id === next?.classId);
  const lesson = next?.lesson;
  const isPrepared = !on && room !== undefined && lesson !== undefined && lesson.blocks.length > 0;
  return (
    <section className="card-paper today-next" aria-label={t`Next lesson`}>
      <div className="today-what">
        <p className="today-when">{next ? whenText(next, day, now) : t`No lesson is planned`}</p>
        <p className="today-room">{room?.name ?? t`Say when a class has lessons, and each day begins with them.`}</p>
        {room && <p className="today-title">{lesson?.title ?? t`Nothing is prepared yet.`}</p>}
      </div>
      {isPrepared ? (
        <Suspense fallback={<div className="lesson-line" />}>
          <PreparedLesson teacherId={teacherId} room={room} lesson={lesson} />
        </Suspense>
      ) : (
        <Elsewhere next={next} room={room} on={on} />
      )}
    </section>
  );
}

interface ElsewhereProps {
  readonly next: DueLesson<SavedLesson> | undefined;
  readonly room: ClassSummary | undefined;
  /** The lesson that is being held. */
  readonly on: { readonly classId: string; readonly lessonId: string } | undefined;
}

/** Where there is no lesson to start: the view in which it goes on. */
function Elsewhere({ next, room, on }: ElsewhereProps) {
  const navigate = useNavigate();
  const choose = useChooseClass();
  const { says, to } = placeOf(next, room, on);
  const press = () => {
    if (room && !on) choose(room.id);
    void navigate(to);
  };
  useKeys({ ' ': press, PageDown: press });
  return (
    <div className="today-actions">
      <Button size="lg" onClick={press}>
        {says} <kbd>{t`space`}</kbd>
      </Button>
    </div>
  );
}

function placeOf(
  next: ElsewhereProps['next'],
  room: ElsewhereProps['room'],
  on: ElsewhereProps['on'],
): { readonly says: string; readonly to: string } {
  if (on) return { says: t`To the lesson that is on`, to: lessonPath(on.classId, on.lessonId) };
  if (!next || !room) return { says: t`Plan a lesson`, to: '/plan' };
  if (next.lesson) return { says: t`Open it`, to: lessonPath(next.classId, next.lesson.id) };
  return { says: mayHear(room) ? t`Prepare it` : t`To its plan`, to: '/plan' };
}

/** From so many minutes on the time of the day says more. */
const SOON = 60;

/** "Now, 09:40 to 10:20", "In 12 minutes, 09:40", "Tuesday 8 December, 09:40". */
export function whenText({ day: on, starts, minutes }: DueLesson<SavedLesson>, day: Day, now: number): string {
  if (on !== day) return `${format(parseISO(on), 'EEEE d MMMM')}${starts === null ? '' : `, ${starts}`}`;
  if (starts === null) return t`Today`;
  const left = minutesOf(starts) - now;
  if (left <= 0) return t`Now, ${starts} to ${format(addMinutes(parseISO(`${on}T${starts}`), minutes), 'HH:mm')}`;
  return left < SOON ? t`In ${counted(left, 'minute')}, ${starts}` : t`Next, ${starts}`;
}
