import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { type ReactNode, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { type Plan, READY_PLANS } from '../../../core/leading/plan.ts';
import { type Timetable, type TimetableResult, scoreTimetable } from '../../../core/leading/timetable.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { durationText, planTroubleText } from '../../../core/wording/leadWords.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField, titled } from '../../ui/SelectField.tsx';
import { OwnDevices } from '../../domain/OwnDevices.tsx';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { useStored } from '../../store/stored.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { KeepPlan } from './KeepPlan.tsx';
import { LeadStage } from './LeadStage.tsx';
import { Covers } from '../../leading/Covers.tsx';
import { PlanForm } from './PlanForm.tsx';
import { PracticeTrackBox } from './PracticeTrackBox.tsx';
import { SoundPanel, useSoundSettings } from './SoundPanel.tsx';

export type ChosenPlan = Plan & { readonly id: string };

interface SetupProps {
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
  readonly onPattern: (id: string) => void;
  readonly plans: readonly ChosenPlan[];
  /** What another view asked to be practised. */
  readonly ask: Plan | undefined;
  /** Measures, from 0, that another view has turned over: they are led from memory. */
  readonly over: readonly number[];
}

/** A pattern and a plan, ready to be led. */
export function LeadSetup(props: SetupProps) {
  const read = useMemo(() => parseScore(props.pattern.text), [props.pattern.text]);
  if (!read.ok)
    return <Notice problem={{ message: t`This pattern cannot be read. Open it under Patterns and mend its text.` }} />;
  return <ReadableSetup {...props} score={read.score} />;
}

/** The plan that is led: a chosen one, or what was asked for, as it was changed since. */
function usePlan(plans: readonly ChosenPlan[], ask: Plan | undefined) {
  const [storedPlan, setStoredPlan] = useStored('lead.plan', READY_PLANS()[0]!.id);
  const chosen = plans.find(({ id }) => id === storedPlan) ?? plans[0]!;
  const [plan, setPlan] = useState<Plan>(ask ?? chosen);
  const choose = (id: string) => {
    setStoredPlan(id);
    const next = plans.find((one) => one.id === id);
    if (next) setPlan(next);
  };
  return { plan, setPlan, chosen, choose, markChosen: setStoredPlan };
}

function ReadableSetup(props: SetupProps & { score: Score }) {
  const { pattern, score, plans, ask, over } = props;
  const rhythm = score.parts[0]!.pattern;
  const { plan, setPlan, chosen, choose, markChosen } = usePlan(plans, ask);
  const [sound, setSound] = useSoundSettings();
  const [running, setRunning] = useState<Timetable>();
  const currentClass = useCurrentClass();
  const voice = useMemo(() => voiceOf(currentClass), [currentClass]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const made = useMemo(() => scoreTimetable(score, plan, voice.counts), [score, plan, voice]);
  const start = () => made.ok && setRunning(made.timetable);
  useKeys(running ? {} : { ' ': start, PageDown: start });
  if (running) {
    const shared = { plan, counts, voice, sound, score, title: pattern.title, brackets: pattern.brackets, over };
    return <LeadStage table={running} {...shared} onEnd={() => setRunning(undefined)} />;
  }
  const own = !READY_PLANS().some(({ id }) => id === chosen.id) && ask === undefined;
  const keep = { plan, own: own ? chosen : undefined, onChange: setPlan, onKept: markChosen };
  return (
    <div className="lead-setup">
      <h1 className="visually-hidden">{t`Lead`}</h1>
      <Choices {...props} chosen={chosen} choose={choose}>
        <Total made={made} naming={voice.naming} />
        <Button size="lg" className="start" disabled={!made.ok} onClick={start}>
          {rich`Start ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <OwnDevices pattern={pattern.id} small={false} />
      </Choices>
      <Ruler
        pattern={rhythm}
        parts={score.parts}
        counts={counts}
        feet={plan.twoLines}
        brackets={pattern.brackets}
        overlay={(system) => <Covers system={system} isCovered={(index) => over.includes(index)} voice={voice} />}
      />
      <PlanForm plan={plan} naming={voice.naming} rhythm={rhythm} parts={score.parts.length} onChange={setPlan} />
      <div className="lead-below">
        <SoundPanel settings={sound} onChange={setSound} />
        <div className="lead-keep">
          <KeepPlan {...keep} onRemoved={() => choose(READY_PLANS()[0]!.id)} />
          <PracticeTrackBox
            parts={score.parts.map(({ name }) => name)}
            table={made.ok ? made.timetable : undefined}
            sound={sound}
            title={pattern.title}
          />
        </div>
      </div>
    </div>
  );
}

interface ChoicesProps extends SetupProps {
  readonly chosen: ChosenPlan;
  readonly choose: (id: string) => void;
  readonly children: ReactNode;
}

/** Which pattern, by which plan; another choice ends what another view asked for. */
function Choices({ patterns, pattern, onPattern, plans, ask, chosen, choose, children }: ChoicesProps) {
  const [, setSearch] = useSearchParams();
  // One of the list, or one that another view made up.
  const asked = ask && (plans.find((one) => one === ask)?.id ?? '');
  const choosing = (pick: (id: string) => void) => (id: string) => {
    // The pattern another view asked for stays, whatever else is chosen.
    onPattern(pattern.id);
    pick(id);
    setSearch({}, { replace: true });
  };
  return (
    <div className="choices">
      <SelectField
        id="lead-pattern"
        label={t`Pattern`}
        value={pattern.id}
        options={titled(patterns)}
        onChoose={choosing(onPattern)}
      />
      <SelectField
        id="lead-plan"
        label={t`Plan`}
        value={asked ?? chosen.id}
        options={[...(asked === '' ? [['', ask!.title] as const] : []), ...titled(plans)]}
        onChoose={choosing(choose)}
      />
      {children}
    </div>
  );
}

/** How long the run takes, or why it cannot start. */
function Total({ made, naming }: { made: TimetableResult; naming: NamingId }) {
  return (
    <p className="lead-total" role="status">
      {made.ok ? (
        <>
          <strong>{durationText(made.timetable.seconds)}</strong>
          {counted(made.timetable.passes, 'pass', 'passes')}
        </>
      ) : (
        <span className="lead-trouble">{t`Cannot start: ${planTroubleText(made.trouble, naming)}.`}</span>
      )}
    </p>
  );
}
