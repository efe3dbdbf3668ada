import { useNavigate } from 'react-router';
import type { LessonEdit } from '../../contract/lesson.ts';
import { usePatterns } from '../api/hooks.ts';
import { useChooseClass } from '../domain/currentClass.ts';
import { withOwn } from './blocks.ts';
import { RUNNING } from './running.ts';
import { stopsOf } from './stops.ts';

/** Which lesson, and what must be done before its first view is opened. */
export interface StartingLesson {
  readonly classId: string;
  readonly lessonId: string;
  readonly blocks: LessonEdit['blocks'];
  readonly settle?: () => Promise<void>;
}

/** Starts a lesson: from now on its bar stands above every view. Nothing happens while the patterns are not there. */
export function useStartLesson(teacherId: string): (lesson: StartingLesson) => void {
  const [, setRunning] = RUNNING.use();
  const { data: patterns } = usePatterns();
  const chooseClass = useChooseClass();
  const navigate = useNavigate();
  return ({ classId, lessonId, blocks, settle }) => {
    const [first] = patterns ? stopsOf(withOwn(blocks, patterns), classId, lessonId) : [];
    if (!first) return;
    chooseClass(classId);
    setRunning({ teacherId, classId, lessonId, startedAt: Date.now(), stop: 0, leftOut: [] });
    const go = () => navigate(first.to, { state: first.state });
    void (settle ? settle().then(go) : go());
  };
}
