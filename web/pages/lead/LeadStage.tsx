import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { CountOptions } from '../../../core/counting/count.ts';
import { chunkName } from '../../../core/leading/chunks.ts';
import { ACTIVITIES, type Activity, type Plan } from '../../../core/leading/plan.ts';
import { type Role, type Section, type Timetable, durationText } from '../../../core/leading/timetable.ts';
import { MovingBeat } from '../../ruler/MovingBeat.tsx';
import { Ruler } from '../../ruler/Ruler.tsx';
import type { RulerLayout, RulerSystem } from '../../ruler/layout.ts';
import { useKeys } from '../../ui/useKeys.ts';
import type { SoundSettings } from './SoundPanel.tsx';
import { type Moment, useLeadRun } from './useLeadRun.ts';

const ROLES: Readonly<Record<Role, string>> = {
  together: 'Together',
  listen: 'Listen',
  answer: 'Your turn',
  check: 'Check',
};
/** Where the counts are spoken aloud; in the other activities they are thought. */
const SAID: ReadonlySet<Activity> = new Set<Activity>(['say', 'say-clap', 'backwards']);
const NO_COUNTS: readonly CountOptions[] = [];
/** Steps of tempo at a key, as parts of the planned tempo. */
const STEP = 0.05;

interface StageProps {
  readonly table: Timetable;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly sound: SoundSettings;
  readonly onEnd: () => void;
}

/** What the class sees while a run goes. */
export function LeadStage({ table, plan, counts, sound, onEnd }: StageProps) {
  const run = useLeadRun(table, sound.levels, sound.clapAs);
  const [covered, setCovered] = useState(0);
  const stage = useRef<HTMLDivElement>(null);
  const index = run.moment?.section ?? 0;
  const section = table.sections[index]!;
  const moment = run.moment;
  const bpm = Math.round(section.bpm * run.rate);
  const next = table.sections[index + 1];
  const goToPass = (step: number) => {
    const found = table.sections.find(({ pass }) => pass === Math.min(table.passes, Math.max(1, section.pass + step)));
    if (found) run.go(found.from);
  };
  const faster = (step: number) => run.setRate(Math.round((run.rate + step) * 100) / 100);
  const half = () => run.setRate(run.rate === 0.5 ? 1 : 0.5);
  const fullScreen = () =>
    void (document.fullscreenElement ? document.exitFullscreen() : stage.current?.requestFullscreen());
  useKeys({
    ' ': run.toggle,
    Escape: onEnd,
    ArrowUp: () => faster(STEP),
    ArrowDown: () => faster(-STEP),
    h: half,
    a: () => run.go(section.from),
    ArrowRight: () => goToPass(1),
    PageDown: () => goToPass(1),
    ArrowLeft: () => goToPass(-1),
    PageUp: () => goToPass(-1),
    c: () => setCovered(Math.min(section.pattern.measures.length, covered + 1)),
    u: () => setCovered(0),
    '[': () => run.goToMeasure(Math.max(0, (moment?.measure ?? 0) - 1)),
    ']': () => run.goToMeasure(Math.min(section.pattern.measures.length - 1, (moment?.measure ?? 0) + 1)),
    l: run.loop,
    f: fullScreen,
  });
  return (
    <div className="lead-stage" ref={stage}>
      <div className="lead-words">
        <p className="lead-now" role="status">
          <span className="lead-role">
            {run.state === 'over' ? 'Done' : run.state === 'paused' ? 'Paused' : ROLES[section.role]}
          </span>{' '}
          {section.pass} of {table.passes} · {ACTIVITIES[section.activity]}
          {plan.twoLines ? ', feet on the beat' : ''} · {section.chunk.whole ? '' : `${chunkName(section.chunk)} · `}
          {bpm}
        </p>
        <p className="lead-left">{moment ? `${durationText(moment.secondsLeft)} left` : ''}</p>
      </div>
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
        covered={Math.max(covered, section.covered)}
        now={run.now}
        moment={moment}
        onMeasure={run.goToMeasure}
      />
      <div className="lead-cues" aria-hidden>
        <CueBox
          name={moment?.leadIn !== undefined || SAID.has(section.activity) ? 'Mouth' : 'Think'}
          text={moment?.leadIn ?? moment?.mouth ?? ''}
          soft={moment?.leadIn === undefined && !SAID.has(section.activity)}
        />
        <CueBox name="Hands" text={section.activity === 'say' ? '' : (moment?.hands ?? '')} />
        <CueBox name="Feet" text={moment?.foot ?? ''} />
      </div>
      <p className="lead-next">{next ? `Next: ${nextWords(section, next, run.rate)}` : 'Then it is done.'}</p>
      <div className="stage-actions no-print">
        <Button size="sm" onClick={run.toggle}>
          {run.state === 'running' ? 'Pause' : run.state === 'over' ? 'From the start' : 'Go on'} <kbd>space</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => faster(-STEP)}>
          Slower <kbd>↓</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => faster(STEP)}>
          Faster <kbd>↑</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" aria-pressed={run.rate === 0.5} onClick={half}>
          Half <kbd>H</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => run.go(section.from)}>
          Again <kbd>A</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => goToPass(1)}>
          Next <kbd>→</kbd>
        </Button>
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => setCovered(covered >= section.pattern.measures.length ? 0 : covered + 1)}
        >
          {covered >= section.pattern.measures.length ? 'Uncover' : 'Cover'}{' '}
          <kbd>{covered >= section.pattern.measures.length ? 'U' : 'C'}</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" aria-pressed={run.loops} onClick={run.loop}>
          {run.loops ? 'Looping' : 'Loop'} <kbd>L</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={fullScreen}>
          Full screen <kbd>F</kbd>
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onEnd}>
          Stop <kbd>Esc</kbd>
        </Button>
      </div>
    </div>
  );
}

function nextWords(now: Section, next: Section, rate: number): string {
  const parts = [
    next.role === 'together' ? '' : ROLES[next.role].toLowerCase(),
    next.activity === now.activity && next.pass === now.pass ? '' : ACTIVITIES[next.activity],
  ];
  if (next.chunk !== now.chunk) parts.push(chunkName(next.chunk));
  if (next.bpm !== now.bpm) parts.push(`at ${Math.round(next.bpm * rate)}`);
  return parts.filter(Boolean).join(', ') || 'the same again';
}

function CueBox({ name, text, soft = false }: { name: string; text: string; soft?: boolean }) {
  return (
    <div className={`cue-box ${soft ? 'cue-soft' : ''}`}>
      <span className="cue-name">{name}</span>
      <span className="cue-text">{text}</span>
    </div>
  );
}

interface SectionRulerProps {
  readonly section: Section;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly covered: number;
  readonly now: () => number | undefined;
  readonly moment: Moment | undefined;
  readonly onMeasure: (measure: number) => void;
}

/** The measures of this pass, the line that is being played always in sight. */
function SectionRuler({ section, plan, counts, covered, now, moment, onMeasure }: SectionRulerProps) {
  const box = useRef<HTMLDivElement>(null);
  const { pattern, bpm, start, hidden } = section;
  const inSection = useMemo(
    () => () => {
      const time = now();
      return time === undefined ? undefined : time - start;
    },
    [now, start],
  );
  const measure = moment?.measure ?? 0;
  // The ruler is drawn again only when it changes; what a press does is looked up when it comes.
  const jump = useRef(onMeasure);
  useEffect(() => {
    jump.current = onMeasure;
  });
  const pick = useCallback(({ measure: picked }: { measure: number }) => jump.current(picked), []);
  useEffect(() => {
    const mark = [...(box.current?.querySelectorAll<HTMLElement>('.ruler-system') ?? [])].find((line) =>
      line.querySelector('[data-here="true"]'),
    );
    mark?.scrollIntoView({ block: 'nearest' });
  }, [measure, pattern]);
  const overlay = (system: RulerSystem, layout: RulerLayout) => (
    <>
      {system.measures.map(
        ({ index, x, width }) =>
          index < covered &&
          !hidden && (
            <div
              key={index}
              className="cover"
              style={{ left: x - 14, width: width - 4 }}
              aria-label={`Measure ${index + 1} is covered`}
            />
          ),
      )}
      <MovingBeat pattern={pattern} bpm={bpm} now={inSection} system={system} layout={layout} />
      <span hidden data-here={system.measures.some(({ index }) => index === Math.max(0, measure))} />
    </>
  );
  return (
    <div
      className={`lead-ruler ${hidden ? 'lead-hidden' : ''}`}
      ref={box}
      tabIndex={0}
      role="group"
      aria-label="The rhythm"
    >
      <Ruler
        pattern={pattern}
        size="board"
        notes={!hidden}
        strips={false}
        counts={hidden ? NO_COUNTS : counts}
        feet={plan.twoLines}
        overlay={overlay}
        onPick={pick}
        pickName="Go to"
      />
      {hidden && <p className="lead-ear">Use your ears. The notes come afterwards.</p>}
    </div>
  );
}
