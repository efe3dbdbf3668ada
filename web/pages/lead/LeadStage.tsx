import { useState } from 'react';
import type { CountOptions } from '../../../core/counting/count.ts';
import type { Activity, Plan } from '../../../core/leading/plan.ts';
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

/** Where the counts are spoken aloud; in the other activities they are thought. */
const SAID: ReadonlySet<Activity> = new Set<Activity>(['say', 'say-clap', 'backwards']);

interface StageProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  readonly sound: SoundSettings;
  readonly onEnd: () => void;
}

/** What the class sees while a run goes. */
export function LeadStage({ table, plan, counts, voice, sound, onEnd }: StageProps) {
  const run = useLeadRun(table, sound.levels, sound.clapAs);
  const [covered, setCovered] = useState(0);
  const { element: stage, toggle } = useFullScreen();
  const index = run.moment?.section ?? 0;
  const section = table.sections[index]!;
  const next = table.sections[index + 1];
  const commands = leadCommands({ run, table, section, covered, setCovered, fullScreen: toggle, onEnd });
  useKeys(commands.keys);
  return (
    <div className="lead-stage" ref={stage}>
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
        counts={counts}
        voice={voice}
        covered={Math.max(covered, section.covered)}
        now={run.now}
        measure={run.moment?.measure ?? 0}
        onMeasure={run.goToMeasure}
      />
      <BodyCues run={run} activity={section.activity} />
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
  const role = run.state === 'over' ? 'Done' : run.state === 'paused' ? 'Paused' : ROLE_NAMES[section.role];
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

/** What mouth, hands and feet do just now. */
function BodyCues({ run: { moment }, activity }: { run: LeadRun; activity: Activity }) {
  const counting = moment?.leadIn !== undefined;
  const aloud = counting || SAID.has(activity);
  const hands = activity === 'say' ? undefined : moment?.hands;
  return (
    <div className="lead-cues" aria-hidden>
      <CueBox name={aloud ? 'Mouth' : 'Think'} text={moment?.leadIn ?? moment?.mouth ?? ''} soft={!aloud} />
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
