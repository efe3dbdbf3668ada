import { t } from '../../../core/words/say.ts';
import { useEffect, useState } from 'react';
import type { CountOptions } from '../../../core/counting/count.ts';
import type { Bracket } from '../../../contract/pattern.ts';
import type { Plan } from '../../../core/leading/plan.ts';
import type { Section, Timetable } from '../../../core/leading/timetable.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { printScore } from '../../../core/rhythm/scoreText.ts';
import { nextText } from '../../../core/wording/leadWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { toMend } from '../../../core/wording/classTogetherWords.ts';
import { put } from '../../api/client.ts';
import type { Levels } from '../../audio/mixer.ts';
import { mayHear, useHearingClass } from '../../domain/currentClass.ts';
import { ClassView } from '../../leading/ClassView.tsx';
import { deviceNow, openSecondWindow, useTellSecondWindow } from '../../leading/secondWindow.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { LeadButtons } from './LeadButtons.tsx';
import type { SoundSettings } from './SoundPanel.tsx';
import { leadCommands } from './leadCommands.ts';
import { HeardPasses } from './HeardPasses.tsx';
import { type ClassHearing, type LiveHeard, useClassHearing } from './useClassHearing.ts';
import { type LeadRun, useLeadRun } from './useLeadRun.ts';

interface StageProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  readonly sound: SoundSettings;
  /** What is led, as it is written, and the words over it. */
  readonly score: Score;
  readonly brackets: readonly Bracket[] | undefined;
  readonly title: string;
  /** Measures, from 0, that another view has turned over. */
  readonly over: readonly number[];
  readonly onEnd: () => void;
}

/** What the class sees while a run goes, and what can be done meanwhile. */
export function LeadStage(props: StageProps) {
  const { table, plan, counts, voice, sound, score, brackets, over, onEnd } = props;
  const [claps, setClaps] = useState(true);
  const run = useLeadRun(table, claps ? sound.levels : withoutClaps(sound.levels), sound.clapAs);
  const { state, moment, rate, now } = run;
  const [covered, setCovered] = useState(0);
  const [turned, setTurned] = useState(over);
  const [turn, setTurn] = useState(0);
  const cover = (measures: number) => {
    setCovered(measures);
    // What is opened is open, whoever covered it.
    if (measures === 0) setTurned([]);
  };
  const { element: stage, toggle } = useFullScreen();
  const index = moment?.section ?? 0;
  const section = table.sections[index]!;
  const next = table.sections[index + 1];
  const { hearing, classId } = useHeardClass(props, run, setClaps);
  const onceMore = onceMoreOf(run, hearing);
  const commands = leadCommands({
    run,
    table,
    section,
    covered,
    setCovered: cover,
    changeOver: score.parts.length > 1 ? () => setTurn(turn + 1) : undefined,
    fullScreen: toggle,
    secondWindow: openSecondWindow,
    hear: hearing.toggle,
    onceMore,
    onEnd,
  });
  useKeys(commands.keys);
  const names = score.parts.map(({ name }) => name);
  const live = hearing.live && isSeenIn(hearing.live, section, moment?.measure ?? -1) ? hearing.live : null;
  const heard = hearing.on ? live : undefined;
  const shown = { plan, brackets, state, moment, rate, covered, turned, turn };
  useTellSecondWindow({ kind: 'lead', text: printScore(score), ...shown, heard: heardNow(now()) });
  return (
    <div className="lead-stage" ref={stage}>
      <h1 className="visually-hidden">{t`Lead`}</h1>
      <ClassView {...{ table, counts, voice, score, now }} {...shown} heard={heard} onMeasure={run.goToMeasure} />
      <HeardPasses hearing={hearing} score={score} voice={voice} classId={classId} onOnceMore={onceMore} />
      <p className="lead-next">
        {next ? t`Next: ${nextText(section, next, rate, voice.naming, names)}` : t`Then it is done.`}
      </p>
      <LeadButtons run={run} commands={commands} hears={score.parts.length > 1 ? undefined : hearing.on} />
    </div>
  );
}

/** A pass is seen while it goes, and until the next one of the same measures has been counted in. */
function isSeenIn({ section: heard }: LiveHeard, section: Section, measure: number): boolean {
  if (heard === section) return true;
  return measure < 0 && heard.chunk.first === section.chunk.first && heard.chunk.last === section.chunk.last;
}

/** While a class is heard the app does not clap: one could not be told from the other. */
const withoutClaps = (levels: Levels): Levels => ({ ...levels, claps: { ...levels.claps, muted: true } });

/** The measure that was least together, again and again; pressed once more the run goes on. */
function onceMoreOf(run: LeadRun, hearing: ClassHearing): (() => void) | undefined {
  const last = hearing.passes.at(-1);
  const mend = last && toMend(last.heard);
  if (!mend) return run.loops && hearing.on ? run.goOn : undefined;
  return () => (run.loops ? run.goOn() : run.stay(mend.played, mend.played));
}

/** All of the rhythm as it is written, however its measures were chosen. */
const isWhole = ({ chunk, pattern }: Section, { parts }: Score) =>
  chunk.whole || printRhythm(pattern) === printRhythm(parts[0]!.pattern);

/** Hears the class, and keeps each pass of the whole rhythm with it. */
function useHeardClass({ table, title, score }: StageProps, run: LeadRun, setClaps: (on: boolean) => void) {
  const schoolClass = useHearingClass();
  const hearing = useClassHearing(run, table, ({ id, at, section, bpm, heard }) => {
    if (!schoolClass || !mayHear(schoolClass) || !isWhole(section, score) || heard.tooFew) return;
    // Where the network is away it waits on the device, like everything a teacher makes.
    void put(`/classes/${schoolClass.id}/together/${id}`, {
      takenAt: at,
      title,
      patternText: printScore(score),
      bpm,
      from: 'microphone',
      heard,
    }).catch(() => undefined);
  });
  useEffect(() => setClaps(!hearing.on), [hearing.on, setClaps]);
  return { hearing, classId: schoolClass?.id };
}

const heardNow = (time: number | undefined) => (time === undefined ? undefined : { time, at: deviceNow() });
