import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { ListedTake } from '../../../../contract/records.ts';
import { type Scale, highestOf, markLabel } from '../../../../core/judging/scale.ts';
import { markOfTake } from '../../../domain/markOfTake.ts';

/** Days that are named under the chart. */
const MOST_NAMED = 9;

/** Steps that are named beside the chart. */
const MOST_STEPS = 5;
/** What stands there needs so much, pixels. */
const FIGURES_WIDE = 44;
const WORDS_WIDE = 120;

/** Marks over time, each take a point; the newest takes, as they stand in the list. */
export default function MarksChart({ takes, scale }: { takes: readonly ListedTake[]; scale: Scale }) {
  const points = takes.map((take) => ({ at: take.takenAt, mark: markOfTake(take) })).reverse();
  const highest = highestOf(scale);
  const step = highest > MOST_STEPS ? highest / MOST_STEPS : 1;
  const steps = Array.from({ length: highest / step + 1 }, (_, i) => i * step);
  const [first, last] = [points[0]!.at, points.at(-1)!.at];
  const ticks = Array.from({ length: MOST_NAMED }, (_, i) => first + ((last - first) * i) / (MOST_NAMED - 1));
  return (
    <figure className="marks-chart">
      <figcaption>{t`Marks of the newest ${takes.length} takes`}</figcaption>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={points} margin={{ top: 8, right: 30, bottom: 4, left: 0 }} accessibilityLayer>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            type="number"
            dataKey="at"
            domain={[first, last]}
            ticks={ticks}
            tickFormatter={(at: number) => format(at, 'd MMM')}
            stroke="var(--ink-soft)"
          />
          <YAxis
            domain={[0, highest]}
            ticks={steps}
            tickFormatter={(mark: number) => markLabel(mark, scale)}
            interval={0}
            width={typeof scale === 'string' ? FIGURES_WIDE : WORDS_WIDE}
            stroke="var(--ink-soft)"
          />
          <Line dataKey="mark" stroke="var(--heard)" strokeWidth={2} dot={{ r: 5 }} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
