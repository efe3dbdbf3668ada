import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Play } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { BLOCK_WORDS } from '../../../core/wording/planWords.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { LessonLine } from '../../lesson/LessonLine.tsx';
import { timesOf } from '../../lesson/blocks.ts';
import { lessonPath } from '../../lesson/lessonPath.ts';
import { useStartLesson } from '../../lesson/useStartLesson.ts';
import { useKeys } from '../../ui/useKeys.ts';

interface PreparedProps {
  readonly teacherId: string;
  readonly room: ClassSummary;
  /** It has blocks. */
  readonly lesson: SavedLesson;
}

/** What starts a lesson, and the lesson as a ruler of minutes. */
export default function PreparedLesson({ teacherId, room, lesson }: PreparedProps) {
  const { id, blocks, minutes } = lesson;
  const startLesson = useStartLesson(teacherId);
  const start = () => startLesson({ classId: room.id, lessonId: id, blocks });
  useKeys({ ' ': start, PageDown: start });
  const times = timesOf(blocks, room.children, voiceOf(room).counts);
  const shown = blocks.map(({ key, kind }, i) => ({
    key,
    title: BLOCK_WORDS()[kind].title,
    seconds: times[i]!.seconds,
  }));
  return (
    <>
      <div className="today-actions">
        <Button size="lg" onClick={start}>
          <Play size={18} aria-hidden /> {rich`Start lesson ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <Link className="btn btn-outline-dark" to={lessonPath(room.id, id)}>{t`Look at it first`}</Link>
      </div>
      <LessonLine blocks={shown} minutes={minutes} />
    </>
  );
}
