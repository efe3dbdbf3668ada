import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { Child, ClassDetail, SavedPattern, Teacher } from '../../../contract/school.ts';
import type { TakeUpload } from '../../../contract/take.ts';
import { countsOf, namingOf } from '../../../core/wording/voice.ts';
import { judge } from '../../../core/judging/judge.ts';
import { detectOnsets } from '../../../core/listening/detector.ts';
import { synthesiseClaps } from '../../../core/sound/clapSynth.ts';
import { hardestMeasure, nextStep } from '../../../core/judging/nextStep.ts';
import {
  type SimulatedChild,
  simulateReleases,
  simulateSteps,
  simulateTake,
} from '../../../core/judging/simulatedChild.ts';
import { windowsOf } from '../../../core/judging/windows.ts';
import type { TakeResult } from '../../../contract/take.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { useClass, useClasses, usePatterns } from '../../api/hooks.ts';
import { keepOutline } from '../../audio/outlines.ts';
import { keepTake } from '../../take/outbox.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useStored } from '../../ui/stored.ts';
import { NextStepLine } from './NextStepLine.tsx';
import { Stage, type StageTake } from '../../take/TakeStage.tsx';
import { TakeSetup } from './TakeSetup.tsx';
import { TASKS, type Taken, type Task, type HeardBy, useTakeRun } from '../../take/useTakeRun.ts';
import '../../take/take.scss';

const USUAL_BPM = 72;

/** One child after the other: choose, count in, tap, see, next. */
export default function TakePage({ teacher }: { teacher: Teacher }) {
  const [search] = useSearchParams();
  const [storedClass, setStoredClass] = useStored('take.class', '');
  const [storedPattern, setStoredPattern] = useStored('take.pattern', '');
  const classes = useClasses();
  const patterns = usePatterns();
  const classId = choose(search.get('class') ?? storedClass, classes.data);
  const current = useClass(classId);
  const wanted = search.get('pattern') ?? storedPattern;
  const pattern = patterns.data?.find(({ id }) => id === wanted) ?? patterns.data?.[0];
  useEffect(() => {
    if (pattern) setStoredPattern(pattern.id);
    if (classId) setStoredClass(classId);
  }, [pattern, classId, setStoredPattern, setStoredClass]);
  const problem = classes.error ?? patterns.error ?? current.error;
  if (problem && !(current.data && patterns.data)) return <Notice problem={problem} />;
  if (!classes.data || !patterns.data) return null;
  if (!classId)
    return <Empty text="First make a class with the names of the children." to="/classes" name="To the classes" />;
  if (!pattern) return <Empty text="First write a rhythm to clap." to="/patterns" name="To the patterns" />;
  if (!current.data) return null;
  if (current.data.children.length === 0)
    return (
      <Empty
        text="This class has no children yet. Add their first names or codes."
        to={`/classes/${classId}`}
        name="To the class"
      />
    );
  return (
    <TakeSession
      key={classId}
      teacher={teacher}
      room={current.data}
      classes={classes.data}
      patterns={patterns.data}
      pattern={pattern}
    />
  );
}

function choose(wanted: string, from: readonly { id: string }[] | undefined): string | undefined {
  return from?.find(({ id }) => id === wanted)?.id ?? from?.[0]?.id;
}

function Empty({ text, to, name }: { text: string; to: string; name: string }) {
  return (
    <div className="empty">
      <p>{text}</p>
      <Link className="btn btn-primary" to={to}>
        {name}
      </Link>
    </div>
  );
}

interface SessionProps {
  readonly teacher: Teacher;
  readonly room: ClassDetail;
  readonly classes: readonly { id: string; name: string }[];
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
}

function TakeSession({ teacher, room, classes, patterns, pattern }: SessionProps) {
  const [search, setSearch] = useSearchParams();
  const [tempo, setTempo] = useStored('take.bpm', String(USUAL_BPM));
  const [childId, setChildId] = useState(search.get('child') ?? room.children[0]!.id);
  const [take, setTake] = useState<StageTake>();
  const [problem, setProblem] = useState<Error>();
  const bpm = Number(tempo) || USUAL_BPM;
  const child = room.children.find(({ id }) => id === childId) ?? room.children[0]!;
  const read = useMemo(() => parseRhythm(pattern.text), [pattern.text]);
  const unfolded = useMemo(() => (read.ok ? unfold(read.pattern) : undefined), [read]);
  const counts = useMemo(() => [countsOf(room)], [room]);

  const [way, setWay] = useStored('take.way', 'tap');
  const [clicks, setClicks] = useStored('take.clicks', 'all');
  const free = clicks === 'count-in';
  const heardBy: HeardBy = way === 'microphone' ? 'microphone' : 'tap';
  const [chosenTask, setTask] = useStored('take.task', 'claps');
  // A microphone hears neither feet nor when a note is let go.
  const task: Task = heardBy === 'tap' ? (TASKS.find((one) => one === chosenTask) ?? 'claps') : 'claps';

  /** Judges a take here, and sends it on its way. */
  const keep = (
    { onsets, feet, releases, outline, sound }: Taken,
    how: { source: NonNullable<TakeUpload['source']>; free?: boolean; childId?: string },
  ) => {
    if (!unfolded) return undefined;
    const freely = how.free ?? false;
    const kept = how.source !== 'practice';
    const windows = windowsOf(room);
    const judged = judge({
      pattern: unfolded,
      bpm,
      onsets,
      feet,
      releases,
      free: freely,
      windows,
      borders: room.borders ?? undefined,
      speech: { counts: countsOf(room), naming: namingOf(room) },
    });
    if (!judged.ok) {
      setProblem(new Error(`${judged.reason}. Choose another tempo or pattern.`));
      return undefined;
    }
    const id = uuid();
    if (outline) keepOutline(id, outline);
    const upload: TakeUpload = {
      childId: how.childId ?? child.id,
      patternId: pattern.id,
      title: pattern.title,
      patternText: pattern.text,
      bpm,
      onsets,
      ...(feet ? { feet } : {}),
      ...(releases ? { releases } : {}),
      free: freely,
      source: how.source,
      takenAt: Date.now(),
    };
    if (kept)
      void keepTake({
        id,
        teacherId: teacher.id,
        childName: room.children.find((one) => one.id === upload.childId)?.name ?? child.name,
        upload,
        ...(sound ? { sound } : {}),
      }).catch(() =>
        setProblem(
          new Error(
            'This browser keeps nothing on the device, so the take could not be stored. Allow storage for this page.',
          ),
        ),
      );
    setTake({
      patternId: pattern.id,
      patternText: pattern.text,
      bpm,
      free: freely,
      windows,
      onsets,
      outline,
      result: structuredClone(judged.result) as TakeResult,
      mark: judged.result.mark,
      kept,
      takeId: id,
    });
    return judged.result.mark;
  };
  const run = useTakeRun(
    unfolded,
    bpm,
    { way: heardBy, task, free, keepSound: typeof room.recordingDays === 'number' },
    (taken) => keep(taken, { source: heardBy, free }),
  );
  const practise = (child_: SimulatedChild) => {
    if (!unfolded) return;
    // Its hands are made to sound, and heard as a microphone would hear them.
    const seed = Date.now() % 2 ** 31;
    const lead = (60 / bpm) * 6;
    const claps = simulateTake(unfolded, bpm, child_, seed)
      .map((time) => time + lead)
      .filter((time) => time > 0);
    const samples = synthesiseClaps(claps, { seed, reverberation: 'classroom', noiseDb: -52, sampleRate: 22_050 });
    const onsets = detectOnsets(samples, 22_050).map((time) => Math.round((time - lead) * 1e4) / 1e4);
    const steps = task === 'feet' ? { feet: simulateSteps(unfolded, bpm, child_, seed) } : {};
    const held = task === 'held' ? { releases: simulateReleases(unfolded, bpm, onsets, child_, seed) } : {};
    keep({ onsets, ...steps, ...held }, { source: 'practice' });
    run.show();
  };
  const { start, cancel } = run;

  const again = useCallback(() => {
    setTake(undefined);
    cancel();
  }, [cancel]);
  const next = useCallback(() => {
    const at = room.children.findIndex(({ id }) => id === child.id);
    setChildId(room.children[(at + 1) % room.children.length]!.id);
    again();
  }, [room.children, child.id, again]);
  const select = (name: 'class' | 'pattern', id: string) => {
    again();
    setSearch({ ...Object.fromEntries(search), [name]: id }, { replace: true });
  };

  const soFar = room.takes
    .filter((one) => one.childId === child.id && one.patternId === pattern.id && one.id !== take?.takeId)
    .map(({ bpm: at, mark, override }) => ({ bpm: at, mark: override ?? mark }))
    .reverse();
  const hardest = take && hardestMeasure(take.result);
  const step = take?.kept
    ? nextStep([...soFar, { bpm, mark: take.mark, ...(hardest === undefined ? {} : { hardest }) }])
    : undefined;

  if (!unfolded)
    return <Notice problem={{ message: 'This pattern cannot be read. Open it under Patterns and mend its text.' }} />;
  if (run.state !== 'ready') {
    return (
      <>
        {problem && <Notice problem={problem} />}
        <Stage
          step={
            step && (
              <NextStepLine step={step} patternId={pattern.id} onBpm={(value) => (setTempo(String(value)), again())} />
            )
          }
          way={heardBy}
          task={task}
          takePath={take?.kept ? `/classes/${room.id}/takes/${take.takeId}` : undefined}
          run={run}
          child={child}
          title={pattern.title}
          pattern={unfolded}
          bpm={bpm}
          counts={counts}
          take={take}
          borders={room.borders}
          onAgain={again}
          onNext={next}
          nextChild={following(room.children, child)}
        />
      </>
    );
  }
  return (
    <TakeSetup
      room={room}
      classes={classes}
      patterns={patterns}
      pattern={pattern}
      unfolded={unfolded}
      child={child}
      bpm={bpm}
      counts={counts}
      onClass={(id) => select('class', id)}
      onPattern={(id) => select('pattern', id)}
      onChild={setChildId}
      onBpm={(value) => setTempo(String(value))}
      onStart={start}
      onPractise={practise}
      way={heardBy}
      onWay={setWay}
      task={task}
      onTask={setTask}
      free={free}
      onFree={(on) => setClicks(on ? 'count-in' : 'all')}
      problem={run.problem ?? problem}
      onRecording={({ childId: whose, heard, start: given }) => {
        const mark = keep(
          {
            onsets: heard.onsets.map((time) => Math.round((time - (given ?? 0)) * 1e4) / 1e4),
            outline: { ...heard.outline, from: heard.outline.from - (given ?? 0) },
          },
          { source: 'recording', free: given === undefined, childId: whose },
        );
        setTake(undefined);
        return mark;
      }}
    />
  );
}

function following(children: readonly Child[], child: Child): Child | undefined {
  const at = children.findIndex(({ id }) => id === child.id);
  return children.length > 1 ? children[(at + 1) % children.length] : undefined;
}
