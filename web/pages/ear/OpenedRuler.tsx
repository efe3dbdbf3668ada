import { t } from '../../../core/words/say.ts';
import { type Fraction, toNumber } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { playPattern } from '../../../core/rhythm/place.ts';
import type { CountOptions } from '../../../core/counting/count.ts';
import { useMemo } from 'react';
import { Ruler } from '../../ruler/Ruler.tsx';
import type { RulerLayout } from '../../../drawing/layout.ts';
import type { RulerSystem } from '../../../drawing/system.ts';
import { shownAmong } from './amongParts.ts';
import type { ReadPattern } from './earSettings.ts';

interface OpenedProps {
  readonly pattern: Pattern;
  readonly among?: ReadPattern['among'];
  /** What is opened one after the other: from where, and how long. */
  readonly beats: readonly { readonly at: Fraction; readonly length: Fraction }[];
  /** So many of them can be seen. */
  readonly opened: number;
  readonly counts?: CountOptions;
  readonly notes?: boolean;
}

/** A cover stands a little before its beat, so that the head on it is hidden. */
const BEFORE = 12;
/** Counts are wider than heads, and stand around their note. */
const BEFORE_COUNTS = 44;

/** Beats that are still covered on one line. */
function Covers({
  pattern,
  beats,
  opened,
  counts,
  system,
  scale,
}: OpenedProps & { system: RulerSystem; scale: number }) {
  const played = playPattern(pattern);
  return beats.slice(opened).map(({ at, length }, i, covered) => {
    const from = toNumber(at);
    const inside = played.findIndex(
      (one) => from >= toNumber(one.at) - 1e-9 && from < toNumber(one.at) + toNumber(one.measure.length) - 1e-9,
    );
    const measure = system.measures.find(({ placed }) => placed === played[inside]?.measure);
    if (!measure) return null;
    const before = counts ? BEFORE_COUNTS : BEFORE;
    const x = measure.x + (from - toNumber(played[inside]!.at)) * scale - before;
    // The last one reaches to the end of its strip.
    const width = toNumber(length) * scale + (i === covered.length - 1 ? before : 0);
    return <div key={from} className="cover" aria-hidden style={{ left: x, width }} />;
  });
}

/** What was heard, opened from the first beat on. */
export function OpenedRuler(props: OpenedProps) {
  const { pattern, among, beats, opened, counts, notes = true } = props;
  const shown = useMemo(() => shownAmong(pattern, among), [pattern, among]);
  const lanes = useMemo(() => (counts ? [counts] : []), [counts]);
  const overlay = (system: RulerSystem, { scale }: RulerLayout) => <Covers {...props} system={system} scale={scale} />;
  return (
    <div className="opened-ruler" role="group" aria-label={t`${opened} of ${beats.length} are open`}>
      <Ruler
        {...shown}
        size={counts ? 'board' : 'desk'}
        notes={notes}
        strips={false}
        counts={lanes}
        overlay={overlay}
      />
    </div>
  );
}
