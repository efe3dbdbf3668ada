import { useState } from 'react';
import type { CountOptions } from '../../../core/counting/count.ts';
import type { Bracket } from '../../../contract/pattern.ts';
import { hasCounts } from '../../../core/leading/fading.ts';
import type { Activity, Plan } from '../../../core/leading/plan.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { Section, Timetable } from '../../../core/leading/timetable.ts';
import {
  HAND_NAMES,
  ROLE_NAMES,
  activityName,
  chunkName,
  durationText,
  nextText,
} from '../../../core/wording/leadWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { LeadButtons } from './LeadButtons.tsx';
import { SectionRuler } from './SectionRuler.tsx';
import type { SoundSettings } from './SoundPanel.tsx';
import { leadCommands } from './leadCommands.ts';
import { type LeadRun, useLeadRun } from './useLeadRun.ts';

const NO_COUNTS: readonly CountOptions[] = [];

/** Where the counts are spoken aloud; in the other activities they are thought. */
const SAID: ReadonlySet<Activity> = new Set<Activity>(['say', 'say-clap', 'backwards']);

interface StageProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  readonly sound: SoundSettings;
  /** What is led, as it is written, and the words over it. */
  readonly rhythm: Pattern;
  readonly brackets: readonly Bracket[] | undefined;
  /** Measures, from 0, that another view has turned over. */
  readonly over: readonly number[];
  readonly onEnd: () => void;
}

/** What the class sees while a run goes. */
export function LeadStage({ table, plan, counts, voice, sound, rhythm, brackets, over, onEnd }: StageProps) {
  const run = useLeadRun(table, sound.levels, sound.clapAs);
  const [covered, setCovered] = useState(0);
  const [turned, setTurned] = useState(over);
  const cover = (measures: number) => {
    setCovered(measures);
    // What is opened is open, whoever covered it.
    if (measures === 0) setTurned([]);
  };
  const { element: stage, toggle } = useFullScreen();
  const index = run.moment?.section ?? 0;
  const section = table.sections[index]!;
  const next = table.sections[index + 1];
  const study = run.moment?.study;
  const commands = leadCommands({ run, table, section, covered, setCovered: cover, fullScreen: toggle, onEnd });
  useKeys(commands.keys);
  return (
    <div className="lead-stage" ref={stage}>
      <h1 className="visually-hidden">Lead</h1>
      <StageWords run={run} table={table} plan={plan} section={section} voice={voice} />
      {run.state === 'silent' && (
        <p className="notice alert alert-warning">
          This browser lets no sound out. Press the space bar or click once in the page, then start again.
        </p>
      )}
      {run.state === 'starting' && <p role="status">Getting the sounds ready …</p>}
      <SectionRuler
        section={section}
        plan={plan}
        counts={study === undefined ? counts : NO_COUNTS}
        voice={voice}
        rhythm={rhythm}
        brackets={brackets}
        covered={Math.max(covered, section.covered)}
        turned={turned}
        now={run.now}
        measure={run.moment?.measure ?? 0}
        onMeasure={run.goToMeasure}
      />
      {study === undefined ? <BodyCues run={run} section={section} /> : <StudyTime seconds={study} />}
      <p className="lead-next">
        {next ? `Next: ${nextText(section, next, run.rate, voice.naming)}` : 'Then it is done.'}
      </p>
      <LeadButtons run={run} commands={commands} />
    </div>
  );
}

interface WordsProps {
  readonly run: LeadRun;
  readonly table: Timetable;
  readonly plan: Plan;
  readonly section: Section;
  readonly voice: Voice;
}

function StageWords({ run, table, plan, section, voice: { naming } }: WordsProps) {
  const studying = run.moment?.study !== undefined ? 'Study' : ROLE_NAMES[section.role];
  const role = run.state === 'over' ? 'Done' : run.state === 'paused' ? 'Paused' : studying;
  const { moment } = run;
  return (
    <div className="lead-words">
      <p className="lead-now" role="status">
        <span className="lead-role">{role}</span> {section.pass} of {table.passes} ·{' '}
        {activityName(section.activity, naming)}
        {plan.twoLines ? ', feet on the beat' : ''} ·{' '}
        {section.chunk.whole ? '' : `${chunkName(section.chunk, naming)} · `}
        {Math.round(section.bpm * run.rate)}
      </p>
      <p className="lead-left">{moment ? `${durationText(moment.secondsLeft)} left` : ''}</p>
    </div>
  );
}

/** Nobody says or claps anything: the line is read. */
function StudyTime({ seconds }: { seconds: number }) {
  return (
    <div className="lead-cues lead-study" role="timer">
      <CueBox name="Look at it in silence" text={String(seconds)} />
    </div>
  );
}

/** What mouth, hands and feet do just now. */
function BodyCues({ run: { moment }, section: { activity, fade } }: { run: LeadRun; section: Section }) {
  const counting = moment?.leadIn !== undefined;
  const aloud = counting || SAID.has(activity);
  const hands = activity === 'say' ? undefined : moment?.hands;
  return (
    <div className="lead-cues" aria-hidden>
      <CueBox
        name={aloud ? 'Mouth' : 'Think'}
        text={moment?.leadIn ?? (hasCounts(fade, moment?.measure ?? 0) ? (moment?.mouth ?? '') : '')}
        soft={!aloud}
      />
      <CueBox name="Hands" text={hands ? HAND_NAMES[hands] : ''} />
      <CueBox name="Feet" text={moment?.foot ?? ''} />
    </div>
  );
}

function CueBox({ name, text, soft = false }: { name: string; text: string; soft?: boolean }) {
  return (
    <div className={`cue-box ${soft ? 'cue-soft' : ''}`}>
      <span className="cue-name">{name}</span>
      <span className="cue-text">{text}</span>
    </div>
  );
}
