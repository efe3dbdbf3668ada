import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { Link, useSearchParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { SavedPattern } from '../../../contract/school.ts';
import type { PlanEdit } from '../../../contract/plan.ts';
import { lastMeasure } from '../../../core/leading/chunks.ts';
import { type Plan, READY_PLANS } from '../../../core/leading/plan.ts';
import { type Timetable, durationText, timetable } from '../../../core/leading/timetable.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { put, remove } from '../../api/client.ts';
import { usePatterns, usePlans, useRefresh } from '../../api/hooks.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { SelectField, titled } from '../../ui/SelectField.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { countsOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../api/currentClass.ts';
import { useStored } from '../../ui/stored.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { LeadStage } from './LeadStage.tsx';
import { PlanForm } from './PlanForm.tsx';
import { SoundPanel, useSoundSettings } from './SoundPanel.tsx';
import { usePracticeTrack } from './usePracticeTrack.ts';
import './lead.scss';

type ChosenPlan = Plan & { readonly id: string };

/** Run a rhythm in front of the class. */
export default function LeadPage() {
  const [search] = useSearchParams();
  const patterns = usePatterns();
  const plans = usePlans();
  const [storedPattern, setStoredPattern] = useStored('take.pattern', '');
  const problem = patterns.error ?? plans.error;
  if (problem && !(patterns.data && plans.data)) return <Notice problem={problem} />;
  if (!patterns.data || !plans.data) return null;
  const wanted = search.get('pattern') ?? storedPattern;
  const pattern = patterns.data.find(({ id }) => id === wanted) ?? patterns.data[0];
  if (!pattern) {
    return (
      <div className="empty">
        <p>First write a rhythm to lead.</p>
        <Link className="btn btn-primary" to="/patterns">
          To the patterns
        </Link>
      </div>
    );
  }
  return (
    <LeadSetup
      patterns={patterns.data}
      pattern={pattern}
      onPattern={setStoredPattern}
      plans={[...READY_PLANS, ...(plans.data as ChosenPlan[])]}
      ask={askedFor(search)}
    />
  );
}

/** "Measure 2 alone, at 60": what another view asked to be practised. */
function askedFor(search: URLSearchParams): Plan | undefined {
  const from = Number(search.get('from'));
  const bpm = Number(search.get('bpm'));
  if (!from || !bpm) return undefined;
  return {
    ...READY_PLANS[0]!,
    title: 'Practise a measure',
    passes: [
      { activity: 'say-clap', who: 'together' },
      { activity: 'clap', who: 'together' },
    ],
    chunks: { kind: 'range', from, to: Number(search.get('to')) || from },
    ladder: [{ bpm, passes: 4 }],
  };
}

interface SetupProps {
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
  readonly onPattern: (id: string) => void;
  readonly plans: readonly ChosenPlan[];
  readonly ask: Plan | undefined;
}

function LeadSetup({ patterns, pattern, onPattern, plans, ask }: SetupProps) {
  const [, setSearch] = useSearchParams();
  const [storedPlan, setStoredPlan] = useStored('lead.plan', READY_PLANS[0]!.id);
  const chosen = plans.find(({ id }) => id === storedPlan) ?? plans[0]!;
  const [plan, setPlan] = useState<Plan>(ask ?? chosen);
  const [sound, setSound] = useSoundSettings();
  const [running, setRunning] = useState<Timetable>();
  const [saved, setSaved] = useState('');
  const [problem, setProblem] = useState<Error>();
  const refresh = useRefresh();
  const room = useCurrentClass();
  const counts = useMemo(() => [room ? countsOf(room) : { school: 'numbers' as const }], [room]);
  const read = useMemo(() => parseRhythm(pattern.text), [pattern.text]);
  const made = useMemo(() => (read.ok ? timetable(read.pattern, plan, counts[0]!) : undefined), [read, plan, counts]);
  const track = usePracticeTrack();
  const start = () => made?.ok && setRunning(made.timetable);
  useKeys(running ? {} : { ' ': start, PageDown: start });

  if (!read.ok)
    return <Notice problem={{ message: 'This pattern cannot be read. Open it under Patterns and mend its text.' }} />;
  if (running)
    return <LeadStage table={running} plan={plan} counts={counts} sound={sound} onEnd={() => setRunning(undefined)} />;

  const choose = (id: string) => {
    setStoredPlan(id);
    const next = plans.find((one) => one.id === id);
    if (next) setPlan(next);
    setSearch({}, { replace: true });
  };
  const own = !READY_PLANS.some(({ id }) => id === chosen.id) && ask === undefined;
  const edit = (): PlanEdit => {
    const { title, passes, chunks, ladder, restBeats, countIn, countInWords, countInEach, divided, twoLines } = plan;
    const words = countInWords?.filter((word) => word !== '');
    return structuredClone({
      title: title.trim() || 'My plan',
      passes,
      chunks,
      ladder,
      restBeats,
      countIn,
      ...(words?.length ? { countInWords: words } : {}),
      countInEach,
      divided,
      twoLines,
    }) as PlanEdit;
  };
  const save = async (id: string) => {
    setProblem(undefined);
    try {
      await put(`/plans/${id}`, edit());
      await refresh('/plans');
      setStoredPlan(id);
      setSaved('Saved');
    } catch (error) {
      setProblem(error as Error);
    }
  };
  const removeIt = async () => {
    await remove(`/plans/${chosen.id}`).catch((error: Error) => setProblem(error));
    await refresh('/plans');
    choose(READY_PLANS[0]!.id);
  };
  return (
    <div className="lead-setup">
      <div className="choices">
        <SelectField
          id="lead-pattern"
          label="Pattern"
          value={pattern.id}
          options={titled(patterns)}
          onChoose={(id) => {
            onPattern(id);
            setSearch({}, { replace: true });
          }}
        />
        <SelectField
          id="lead-plan"
          label="Plan"
          value={ask ? '' : chosen.id}
          options={[...(ask ? [['', ask.title] as const] : []), ...titled(plans)]}
          onChoose={choose}
        />
        <p className="lead-total" role="status">
          {made?.ok ? (
            <>
              <strong>{durationText(made.timetable.seconds)}</strong>
              {made.timetable.passes === 1 ? '1 pass' : `${made.timetable.passes} passes`}
            </>
          ) : (
            <span className="lead-trouble">Cannot start: {made?.reason}.</span>
          )}
        </p>
        <Button size="lg" className="start" disabled={!made?.ok} onClick={start}>
          Start <kbd>space</kbd>
        </Button>
      </div>
      <Ruler pattern={read.pattern} counts={counts} feet={plan.twoLines} />
      <PlanForm
        plan={plan}
        lastMeasure={lastMeasure(read.pattern)}
        onChange={(next) => (setPlan(next), setSaved(''))}
      />
      <div className="lead-below">
        <SoundPanel settings={sound} onChange={setSound} />
        <div className="lead-keep">
          <fieldset>
            <legend>Keep this plan</legend>
            <div className="plan-row">
              <Form.Control
                aria-label="Name of the plan"
                value={plan.title}
                maxLength={60}
                onChange={(event) => (setPlan({ ...plan, title: event.target.value }), setSaved(''))}
              />
              {own && (
                <Button variant="outline-dark" onClick={() => void save(chosen.id)}>
                  Save
                </Button>
              )}
              <Button variant="outline-dark" onClick={() => void save(uuid())}>
                Save as new
              </Button>
              {own && (
                <Button variant="outline-dark" onClick={() => void removeIt()}>
                  Remove
                </Button>
              )}
              <span role="status">{saved}</span>
            </div>
            {problem && <Notice problem={problem} />}
          </fieldset>
          <fieldset>
            <legend>Practise at home</legend>
            <div className="plan-row">
              <Button
                variant="outline-dark"
                disabled={!made?.ok || track.part !== undefined}
                onClick={() => made?.ok && void track.make(made.timetable, sound, `${pattern.title}.wav`)}
              >
                Make a sound file
              </Button>
              {track.part !== undefined && (
                <ProgressBar
                  className="flex-grow-1"
                  now={track.part * 100}
                  label={`${Math.round(track.part * 100)} %`}
                  aria-label="Making the sound file"
                />
              )}
              {track.problem && <span className="lead-trouble">{track.problem}</span>}
            </div>
          </fieldset>
        </div>
      </div>
    </div>
  );
}
