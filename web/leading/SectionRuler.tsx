import { t } from '../../core/words/say.ts';
import { useEffect, useMemo, useRef } from 'react';
import type { ClassHeard, ClassNoteHeard } from '../../core/ensemble/classHeard.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import type { Bracket } from '../../contract/pattern.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Score } from '../../core/rhythm/score.ts';
import { placePattern, playPattern } from '../../core/rhythm/place.ts';
import type { Plan } from '../../core/leading/plan.ts';
import type { Section } from '../../core/leading/timetable.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { MovingBeat } from '../ruler/MovingBeat.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { bringInSight } from '../ruler/inSight.ts';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';
import { useLatest } from '../ui/useLatest.ts';
import { Covers } from './Covers.tsx';
import { TogetherBand } from './TogetherBand.tsx';

/** How together a class was, up to so many seconds after beat 1. */
export interface HeardSoFar {
  readonly heard: ClassHeard;
  readonly until: number;
}

const NO_COUNTS: readonly CountOptions[] = [];
const NOBODY: readonly ClassNoteHeard[] = [];

interface SectionRulerProps {
  readonly section: Section;
  readonly plan: Plan;
  readonly counts: readonly CountOptions[];
  readonly voice: Voice;
  /** So many measures from the first. */
  readonly covered: number;
  /** Measures of the rhythm, from 0, that are turned over. */
  readonly turned: readonly number[];
  readonly now: () => number | undefined;
  /** Index of the measure that is being played, -1 in the count-in. */
  readonly measure: number;
  /** How the class is heard to be together; null while nothing is known yet. */
  readonly heard?: HeardSoFar | null | undefined;
  readonly onMeasure: (measure: number) => void;
  /** The whole rhythm as it is written, and the words over stretches of it. */
  readonly score: Score;
  readonly brackets: readonly Bracket[] | undefined;
}

/** The numbers on paper of the measures of a section, in the order in which they are led. */
function numbersOf(rhythm: Pattern, { chunk }: Section): number[] {
  if (chunk.whole) return playPattern(rhythm).map(({ measure }) => measure.number);
  return placePattern(rhythm)
    .slice(chunk.first, chunk.last + 1)
    .map(({ number }) => number);
}

/** Keeps the line that is being played the first that is seen: under it the next one is read ahead. */
function useLineInSight(section: Section, measure: number) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const lines = [...(box.current?.querySelectorAll('.ruler-system') ?? [])];
    bringInSight(lines.find((line) => line.querySelector('[data-here="true"]')) ?? null);
  }, [measure, section.pattern]);
  return box;
}

/** The measures of this pass, the moving beat over them. */
export function SectionRuler(props: SectionRulerProps) {
  const { section, plan, counts, voice, covered, turned, now, measure, onMeasure, score, brackets, heard } = props;
  const rhythm = score.parts[0]!.pattern;
  const numbers = useMemo(() => numbersOf(rhythm, section), [rhythm, section]);
  const { pattern, bpm, start, hidden } = section;
  const inSection = useMemo(
    () => () => {
      const time = now();
      return time === undefined ? undefined : time - start;
    },
    [now, start],
  );
  const parts = useMemo(
    () => section.parts.map((own, i) => ({ name: score.parts[i]!.name, pattern: own })),
    [section.parts, score],
  );
  const resting = parts.flatMap((_, i) => (section.going.includes(i) ? [] : [i]));
  const box = useLineInSight(section, measure);
  // The same all along, so that the ruler is drawn again only when the rhythm changes.
  const pick = useLatest(({ measure: picked }: { measure: number }) => onMeasure(picked));
  const first = section.chunk.whole ? 0 : section.chunk.first;
  const isCovered = (index: number) => index < covered || turned.includes(index + first);
  const overlay = (system: RulerSystem, layout: RulerLayout) => (
    <>
      {!hidden && <Covers system={system} isCovered={isCovered} voice={voice} />}
      <MovingBeat pattern={pattern} bpm={bpm} now={inSection} system={system} layout={layout} />
      <span hidden data-here={system.measures.some(({ index }) => index === Math.max(0, measure))} />
    </>
  );
  const band = (system: RulerSystem, layout: RulerLayout) => (
    <TogetherBand
      {...{ pattern, bpm, system, layout }}
      notes={heard?.heard.notes ?? NOBODY}
      until={heard?.until ?? 0}
    />
  );
  return (
    <div className={`lead-ruler ${hidden ? 'lead-hidden' : ''}`} ref={box}>
      <Ruler
        pattern={pattern}
        parts={parts}
        resting={resting}
        size="board"
        fit
        notes={!hidden}
        strips={false}
        counts={hidden ? NO_COUNTS : counts}
        feet={plan.twoLines}
        fade={section.fade}
        brackets={hidden ? undefined : brackets}
        numbers={numbers}
        band={heard === undefined || hidden ? undefined : band}
        overlay={overlay}
        onPick={pick}
        pickName={t`Go to`}
      />
      {hidden && <p className="lead-ear">{t`Use your ears. The notes come afterwards.`}</p>}
    </div>
  );
}
