import { perLanguage, t } from '../../../core/words/say.ts';
import { useEffect, useMemo, useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { ClassHeard } from '../../../core/ensemble/classHeard.ts';
import type { Activity } from '../../../core/leading/plan.ts';
import type { Section, Timetable } from '../../../core/leading/timetable.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { audioContext } from '../../audio/context.ts';
import { type ClassEar, openClassEar } from '../../audio/classEar.ts';
import type { ClassPass, TogetherAnswer } from '../../audio/togetherMessages.ts';
import { MicrophoneProblem, closeMicrophone } from '../../audio/microphone.ts';
import { useLatest } from '../../ui/useLatest.ts';
import type { LeadRun } from './useLeadRun.ts';

/** A pass that was heard to its end. */
export interface PassHeard {
  readonly id: string;
  /** When it was over, milliseconds since 1970. */
  readonly at: number;
  readonly section: Section;
  /** As it was led, beats a minute. */
  readonly bpm: number;
  readonly heard: ClassHeard;
}

/** A pass whose end is not known yet. */
type Going = Pick<PassHeard, 'id' | 'section' | 'bpm'>;

/** What is known of the pass that goes now, up to so many seconds after beat 1. */
export interface LiveHeard {
  readonly section: Section;
  readonly heard: ClassHeard;
  readonly until: number;
}

/** Where the class claps: in the others it speaks, or the app goes alone. */
const CLAPPED: ReadonlySet<Activity> = new Set<Activity>(['say-clap', 'clap', 'backwards', 'echo', 'play']);
const BY_CLASS: ReadonlySet<Section['role']> = new Set(['together', 'answer']);

/** Several parts at once are several rhythms: whose clap it is, one microphone does not tell. */
export function isHeardTogether({ activity, role, parts }: Section): boolean {
  return parts.length === 1 && CLAPPED.has(activity) && BY_CLASS.has(role);
}

/** So often it is looked whether the microphone is still there. */
const LOOKED_MS = 500;
const GONE = perLanguage(() => t`The microphone went away. Plug it in or open it again, then press E.`);
/** The last claps ring on for so long before all is known. */
const RINGS_ON_MS = 900;
/** Passes that began so long ago were not heard from their beginning. */
const TOO_LATE = 0.05;
const AT_THE_END = 0.25;

/** How often what was played went back: the same pass begins again. */
function useRounds(measure: number): number {
  const [seen, setSeen] = useState({ measure, rounds: 0 });
  if (measure !== seen.measure)
    setSeen({ measure, rounds: seen.rounds + (measure < seen.measure && measure <= 0 ? 1 : 0) });
  return seen.rounds;
}

/** A pass as the ear is told of it. @param at  when beat 1 sounds, on the audio clock */
function asPlayed(table: Timetable, { id, section, bpm }: Going, at: number, rate: number): ClassPass {
  const clicks = table.cues.filter(
    ({ kind, sounds, time }) => kind === 'click' && sounds && time >= section.from - 1e-6 && time < section.end,
  );
  return {
    id,
    text: printRhythm(section.pattern),
    bpm,
    start: at,
    clicks: {
      times: clicks.map(({ time }) => at + (time - section.start) / rate),
      countIn: clicks.filter(({ time }) => time < section.start - 1e-6).length,
    },
  };
}

/** The microphone is let go of when nobody is heard any more. */
function useLetGo(ear: ClassEar | undefined): void {
  useEffect(() => {
    if (!ear) return undefined;
    return () => {
      ear.stop();
      void closeMicrophone();
    };
  }, [ear]);
}

/** Asks now and then whether the microphone is still there. */
function useGone(ear: ClassEar | undefined, onGone: () => void): void {
  const tell = useLatest(onGone);
  useEffect(() => {
    if (!ear) return undefined;
    const timer = setInterval(() => {
      if (ear.gone()) tell();
    }, LOOKED_MS);
    return () => clearInterval(timer);
  }, [ear, tell]);
}

/** Opens and closes the ear; tells what it hears of the passes that go. */
function useEar(told: (answer: TogetherAnswer) => void) {
  const [ear, setEar] = useState<ClassEar>();
  const [problem, setProblem] = useState<Error>();
  const tell = useLatest(told);
  const toggle = useMemo(
    () => () => {
      setProblem(undefined);
      if (ear) setEar(undefined);
      else openClassEar(tell).then(setEar, setProblem);
    },
    [ear, tell],
  );
  const gone = () => {
    setEar(undefined);
    setProblem(new MicrophoneProblem(GONE()));
  };
  useLetGo(ear);
  return { ear, problem, toggle, gone };
}

/** Hears the class while it is led, pass by pass, for whoever asks for it. */
export function useClassHearing(run: LeadRun, table: Timetable, onPass: (pass: PassHeard) => void) {
  const [live, setLive] = useState<LiveHeard>();
  const [passes, setPasses] = useState<readonly PassHeard[]>([]);
  const going = useRef(new Map<string, Going>());
  const { state, moment, rate, audioAt, now } = run;
  const index = moment?.section ?? 0;
  const measure = moment?.measure ?? -1;
  const rounds = useRounds(measure);
  const section = table.sections[index]!;
  const runs = state === 'running' && moment !== undefined;

  const { ear, problem, toggle, gone } = useEar(({ id, last, heard, until }) => {
    const pass = going.current.get(id);
    if (!pass) return;
    setLive({ section: pass.section, heard, until: last ? Infinity : until });
    if (!last) return;
    going.current.delete(id);
    const over = { ...pass, at: Date.now(), heard };
    setPasses((before) => [...before, over]);
    onPass(over);
  });
  useGone(ear, () => {
    // What it heard up to now is half a pass: nothing is said of it.
    going.current.clear();
    setLive(undefined);
    gone();
  });

  useEffect(() => {
    if (!ear || !runs || !isHeardTogether(section)) return undefined;
    const begins = audioAt(section.start);
    if (!begins || begins.at < (audioContext()?.currentTime ?? 0) - TOO_LATE) return undefined;
    const pass = { id: uuid(), section, bpm: section.bpm * rate };
    const known = going.current;
    known.set(pass.id, pass);
    ear.begin(asPlayed(table, pass, begins.at, rate));
    return () => {
      // Paused, jumped or made faster in the middle: that is no pass.
      const heardTo = now() ?? 0;
      const over = heardTo >= section.end - AT_THE_END || heardTo < section.from + AT_THE_END;
      if (over) setTimeout(() => ear.look(pass.id, true), RINGS_ON_MS);
      else {
        known.delete(pass.id);
        ear.forget(pass.id);
        setLive(undefined);
      }
    };
  }, [ear, runs, section, rounds, rate, audioAt, now, table]);
  // A measure later than it sounded the class sees how it was.
  useEffect(() => {
    if (!ear) return;
    if (measure > 0) for (const id of going.current.keys()) ear.look(id, false);
  }, [ear, measure]);
  return { on: ear !== undefined, problem, live, passes, toggle };
}

export type ClassHearing = ReturnType<typeof useClassHearing>;
