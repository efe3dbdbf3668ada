import { t } from '../../core/words/say.ts';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import Button from 'react-bootstrap/Button';
import { Link, useLocation, useNavigate } from 'react-router';
import type { SavedLesson } from '../../contract/lesson.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { ClassDetail } from '../../contract/schoolClass.ts';
import { timeStanding } from '../../core/planning/lesson.ts';
import { BLOCK_WORDS, behindText, blockLeftText } from '../../core/wording/planWords.ts';
import { voiceOf } from '../../core/wording/voice.ts';
import { useClass, usePatterns } from '../api/hooks.ts';
import { useLessons } from '../api/planning.ts';
import { useKeys } from '../ui/useKeys.ts';
import { LessonLine } from './LessonLine.tsx';
import { timesOf, withOwn } from './blocks.ts';
import { RUNNING, type RunningLesson } from './running.ts';
import { lessonPath } from './lessonPath.ts';
import { type Stop, stopsOf } from './stops.ts';
import { useClicker } from './useClicker.ts';
import './lessonBar.scss';

const SECOND = 1000;

/** Seconds since a moment, every second. */
function useSecondsSince(start: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), SECOND);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, (now - start) / SECOND);
}

/** The lesson that is on: where it is, what is next, how the time stands. One key goes on. */
export default function LessonBar({ running }: { running: RunningLesson }) {
  const room = useClass(running.classId).data;
  const lesson = useLessons(running.classId).data?.find(({ id }) => id === running.lessonId);
  const patterns = usePatterns().data;
  if (!room || !lesson || !patterns) return null;
  return <Bar running={running} lesson={lesson} room={room} patterns={patterns} />;
}

/** Nothing to look at: the class listens. A press, or the key once more, shows the screen again. */
function Dark({ onLight }: { readonly onLight: () => void }) {
  return createPortal(
    <button type="button" className="screen-dark" aria-label={t`Show the screen again`} onClick={onLight} />,
    document.body,
  );
}

interface BarProps {
  readonly running: RunningLesson;
  readonly lesson: SavedLesson;
  readonly room: ClassDetail;
  readonly patterns: readonly SavedPattern[];
}

/** Goes from view to view, and ends the lesson. */
function useWalk({ running, lesson, patterns }: BarProps) {
  const navigate = useNavigate();
  const stops = useMemo(
    () => stopsOf(withOwn(lesson.blocks, patterns), running.classId, lesson.id),
    [lesson, patterns, running.classId],
  );
  const at = Math.min(running.stop, stops.length - 1);
  const go = (stop: number, leftOut = running.leftOut) => {
    const next = stops[stop];
    if (!next) return;
    RUNNING.write({ ...running, stop, leftOut });
    void navigate(next.to, { state: next.state });
  };
  const end = (leftOut = running.leftOut) => {
    const block = stops[at]?.block ?? -1;
    const later = lesson.blocks.slice(block + 1).map(({ key }) => key);
    const endedAfter = Math.round((Date.now() - running.startedAt) / SECOND);
    RUNNING.write({ ...running, leftOut: [...new Set([...leftOut, ...later])], endedAfter });
    void navigate(lessonPath(running.classId, lesson.id));
  };
  /** What is after this block; the lesson is over where there is nothing. */
  const leaveOut = () => {
    const block = stops[at]!.block;
    const leftOut = [...new Set([...running.leftOut, lesson.blocks[block]!.key])];
    const next = stops.findIndex((stop) => stop.block > block);
    if (next < 0) end(leftOut);
    else go(next, leftOut);
  };
  return { stops, at, go, end, leaveOut };
}

/** Keys and a presenter in the hand go through the lesson. */
function useHands({ stops, at, go, end }: ReturnType<typeof useWalk>) {
  const [dark, setDark] = useState(false);
  const last = at >= stops.length - 1;
  const next = () => (last ? end() : go(at + 1));
  const back = () => go(at - 1);
  useKeys({ '>': next, '<': back });
  useClicker({
    next,
    back,
    blank: () => setDark(!dark),
    start: () => {
      void document.documentElement.requestFullscreen?.();
      go(at);
    },
  });
  return { dark, setDark, next, back, last };
}

function Bar(props: BarProps) {
  const { running, lesson, room } = props;
  const walk = useWalk(props);
  const { stops, at, go, end, leaveOut } = walk;
  const { pathname } = useLocation();
  const elapsed = useSecondsSince(running.startedAt);
  const times = useMemo(
    () => timesOf(lesson.blocks, room.children.length, voiceOf(room).counts).map(({ seconds }) => seconds),
    [lesson, room],
  );
  const { dark, setDark, next, back, last } = useHands(walk);
  const stop = stops[at];
  if (!stop) return null;
  const { behind, blockLeft } = timeStanding(times, stop.block, elapsed);
  const after = stops[at + 1];
  const away = pathname !== stop.to.split('?')[0];
  const blocks = lesson.blocks.map(({ key, kind }, i) => ({
    key,
    title: BLOCK_WORDS()[kind].title,
    seconds: times[i]!,
    leftOut: running.leftOut.includes(key),
  }));
  return (
    <section className="lesson-bar" aria-label={t`Lesson: ${lesson.title}`}>
      {dark && <Dark onLight={() => setDark(false)} />}
      <LessonLine blocks={blocks} minutes={lesson.minutes} now={elapsed} current={stop.block} thin />
      <div className="lesson-now">
        <strong>
          {stop.block + 1}. {stop.title}
          {stop.part && <small> {stop.part}</small>}
        </strong>
        <span className={blockLeft < 0 ? 'lesson-over' : ''}>{blockLeftText(blockLeft)}</span>
        <span className="lesson-behind">{behindText(behind)}</span>
        <span className="lesson-next">{nextText(after)}</span>
        <span className="flex-grow-1" />
        {away && <Button size="sm" variant="outline-dark" onClick={() => go(at)}>{t`To this block`}</Button>}
        <AtDevices stop={stop} room={room} />
        <Button size="sm" variant="outline-dark" onClick={leaveOut}>{t`Leave out`}</Button>
        <Button size="sm" variant="outline-dark" disabled={at === 0} aria-label={t`Back`} onClick={back}>
          <ChevronLeft size={16} aria-hidden /> <kbd>&lt;</kbd>
        </Button>
        <Button size="sm" onClick={next}>
          {last ? 'End' : t`Next`} <ChevronRight size={16} aria-hidden /> <kbd>&gt;</kbd>
        </Button>
        {!last && <Button size="sm" variant="link" onClick={() => end()}>{t`End`}</Button>}
      </div>
    </section>
  );
}

function AtDevices({ stop, room }: { readonly stop: Stop; readonly room: ClassDetail }) {
  if (!stop.devices || room.role === 'look') return null;
  return <Link className="btn btn-sm btn-outline-dark" to={stop.devices}>{t`Own devices`}</Link>;
}

const nextText = (after: Stop | undefined) =>
  after ? t`then ${after.title}${after.part ? ` ${after.part}` : ''}` : t`then the end`;
