import { inLanguage, t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import type { CountOptions } from '../../core/counting/count.ts';
import type { Bracket } from '../../contract/pattern.ts';
import { hasCounts } from '../../core/leading/fading.ts';
import type { Moment } from '../../core/leading/moment.ts';
import type { Activity, Plan } from '../../core/leading/plan.ts';
import type { Section, Timetable } from '../../core/leading/timetable.ts';
import type { Score } from '../../core/rhythm/score.ts';
import {
  HAND_NAMES,
  ROLE_NAMES,
  activityName,
  chunkName,
  durationText,
  goingName,
} from '../../core/wording/leadWords.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { PartCues } from './PartCues.tsx';
import { type HeardSoFar, SectionRuler } from './SectionRuler.tsx';
import './leading.scss';

export type LeadState = 'starting' | 'running' | 'paused' | 'over' | 'silent';

/** What is shown at a moment of a run. */
export interface ShownMoment extends Moment {
  readonly secondsLeft: number;
}

const NO_COUNTS: readonly CountOptions[] = [];

/** Where the counts are spoken aloud; in the other activities they are thought. */
const SAID: ReadonlySet<Activity> = new Set<Activity>(['say', 'say-clap', 'backwards']);

interface ClassViewProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  readonly state: LeadState;
  readonly moment: ShownMoment | undefined;
  readonly rate: number;
  /** Table time that is heard now. */
  readonly now: () => number | undefined;
  /** What is led, as it is written, and the words over it. */
  readonly score: Score;
  readonly brackets: readonly Bracket[] | undefined;
  /** So many measures from the first are covered by hand; and those that another view has turned over. */
  readonly covered: number;
  readonly turned: readonly number[];
  /** So often the groups have changed over. */
  readonly turn: number;
  /** How the class is heard to be together in this pass. */
  readonly heard?: HeardSoFar | null | undefined;
  readonly onMeasure: (measure: number) => void;
}

/** What the class sees while a run goes: what is done, the measures, and what mouth, hands and feet do. */
export function ClassView(props: ClassViewProps) {
  const { table, plan, counts, voice, state, moment, rate, now, score, brackets, covered, turned, heard, onMeasure } =
    props;
  const section = table.sections[moment?.section ?? 0]!;
  const study = moment?.study;
  return (
    <>
      <StageWords {...{ table, plan, section, voice, state, moment, rate, score }} />
      {state === 'silent' && (
        <p className="notice alert alert-warning">{t`This browser lets no sound out. Press the space bar
          or click once in the page,
            then start again.`}</p>
      )}
      {state === 'starting' && <p role="status">{t`Getting the sounds ready …`}</p>}
      <SectionRuler
        section={section}
        plan={plan}
        counts={study === undefined ? counts : NO_COUNTS}
        voice={voice}
        score={score}
        brackets={brackets}
        covered={Math.max(covered, section.covered)}
        turned={turned}
        now={now}
        measure={moment?.measure ?? 0}
        heard={heard}
        onMeasure={onMeasure}
      />
      {inLanguage(voice.language, () => (study === undefined ? cues({ ...props, section }) : studyTime(study)))}
    </>
  );
}

interface WordsProps extends Pick<ClassViewProps, 'table' | 'plan' | 'voice' | 'state' | 'moment' | 'rate' | 'score'> {
  readonly section: Section;
}

/** What is done now, in the language of the class. */
function StageWords(props: WordsProps) {
  return inLanguage(props.voice.language, () => stageWords(props));
}

function stageWords({ table, plan, section, voice: { naming }, state, moment, rate, score }: WordsProps) {
  const studying = moment?.study !== undefined ? t`Study` : ROLE_NAMES()[section.role];
  const whose = goingName(
    section,
    score.parts.map(({ name }) => name),
  );
  const role = state === 'over' ? t`Done` : state === 'paused' ? t`Paused` : studying;
  return (
    <div className="lead-words">
      <p className="lead-now" role="status">
        {rich`${<span className="lead-role">{role}</span>} ${section.pass} of ${table.passes} ·`}{' '}
        {whose && <strong>{whose} · </strong>}
        {activityName(section.activity, naming)}
        {plan.twoLines ? t`, feet on the beat` : ''} ·{' '}
        {section.chunk.whole ? '' : `${chunkName(section.chunk, naming)} · `}
        {Math.round(section.bpm * rate)}
      </p>
      <p className="lead-left">{moment ? t`${durationText(moment.secondsLeft)} left` : ''}</p>
    </div>
  );
}

/** What everybody does, or each group. */
function cues({ moment, section, score: { parts }, turn, voice }: ClassViewProps & { section: Section }) {
  if (parts.length === 1) return bodyCues(moment, section);
  const names = parts.map(({ name }) => name);
  const aloud = moment?.leadIn !== undefined || SAID.has(section.activity);
  const { language } = voice;
  return <PartCues {...{ names, turn, aloud, language }} parts={moment?.parts} leadIn={moment?.leadIn} />;
}

/** Nobody says or claps anything: the line is read. */
function studyTime(seconds: number) {
  return (
    <div className="lead-cues lead-study" role="timer">
      <CueBox name={t`Look at it in silence`} text={String(seconds)} />
    </div>
  );
}

/** What mouth, hands and feet do just now. */
function bodyCues(moment: ShownMoment | undefined, section: Section) {
  const { activity, fade } = section;
  const counting = moment?.leadIn !== undefined;
  const aloud = counting || SAID.has(activity);
  const hands = activity === 'say' ? undefined : moment?.hands;
  return (
    <div className="lead-cues" aria-hidden>
      <CueBox
        name={aloud ? t`Mouth` : t`Think`}
        text={moment?.leadIn ?? (hasCounts(fade, moment?.measure ?? 0) ? (moment?.mouth ?? '') : '')}
        soft={!aloud}
      />
      <CueBox name={t`Hands`} text={hands ? HAND_NAMES()[hands] : ''} />
      <CueBox name={t`Feet`} text={moment?.foot ?? ''} />
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
