import { useState } from 'react';
import type { CountOptions } from '../../../core/counting/count.ts';
import type { Bracket } from '../../../contract/pattern.ts';
import type { Plan } from '../../../core/leading/plan.ts';
import type { Timetable } from '../../../core/leading/timetable.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import { printScore } from '../../../core/rhythm/scoreText.ts';
import { nextText } from '../../../core/wording/leadWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { ClassView } from '../../leading/ClassView.tsx';
import { deviceNow, openSecondWindow, useTellSecondWindow } from '../../leading/secondWindow.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { LeadButtons } from './LeadButtons.tsx';
import type { SoundSettings } from './SoundPanel.tsx';
import { leadCommands } from './leadCommands.ts';
import { useLeadRun } from './useLeadRun.ts';

interface StageProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  readonly sound: SoundSettings;
  /** What is led, as it is written, and the words over it. */
  readonly score: Score;
  readonly brackets: readonly Bracket[] | undefined;
  /** Measures, from 0, that another view has turned over. */
  readonly over: readonly number[];
  readonly onEnd: () => void;
}

/** What the class sees while a run goes, and what can be done meanwhile. */
export function LeadStage({ table, plan, counts, voice, sound, score, brackets, over, onEnd }: StageProps) {
  const run = useLeadRun(table, sound.levels, sound.clapAs);
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
  const commands = leadCommands({
    run,
    table,
    section,
    covered,
    setCovered: cover,
    changeOver: score.parts.length > 1 ? () => setTurn(turn + 1) : undefined,
    fullScreen: toggle,
    secondWindow: openSecondWindow,
    onEnd,
  });
  useKeys(commands.keys);
  const names = score.parts.map(({ name }) => name);
  const shown = { plan, brackets, state, moment, rate, covered, turned, turn };
  useTellSecondWindow({ kind: 'lead', text: printScore(score), ...shown, heard: heardNow(now()) });
  return (
    <div className="lead-stage" ref={stage}>
      <h1 className="visually-hidden">Lead</h1>
      <ClassView {...{ table, counts, voice, score, now }} {...shown} onMeasure={run.goToMeasure} />
      <p className="lead-next">
        {next ? `Next: ${nextText(section, next, rate, voice.naming, names)}` : 'Then it is done.'}
      </p>
      <LeadButtons run={run} commands={commands} />
    </div>
  );
}

const heardNow = (time: number | undefined) => (time === undefined ? undefined : { time, at: deviceNow() });
