import { t } from '../../core/words/say.ts';
import { EPSILON } from '../../core/timing/tolerance.ts';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { everyFew, roundTicks } from './roundTicks.ts';

/** Measures that are named under the chart. */
const MOST_NAMED = 16;

/** Tempo from place to place, beside the set one. */
export default function TempoChart({
  points,
  bpm,
  ticks,
}: {
  points: readonly { at: number; bpm: number }[];
  bpm: number;
  ticks: readonly { at: number; name: string }[];
}) {
  const levels = roundTicks([bpm - 2, bpm + 2, ...points.map((point) => point.bpm)]);
  const nameAt = (at: number) => ticks.find((tick) => Math.abs(tick.at - at) < EPSILON)?.name ?? '';
  return (
    <figure className="tempo-chart">
      <figcaption>{t`Tempo, beats a minute; the dashed line is the set one`}</figcaption>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={[...points]} margin={{ top: 8, right: 20, bottom: 4, left: 0 }} accessibilityLayer>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            type="number"
            dataKey="at"
            domain={['dataMin', 'dataMax']}
            ticks={everyFew(ticks, MOST_NAMED).map(({ at }) => at)}
            tickFormatter={nameAt}
            stroke="var(--ink-soft)"
          />
          <YAxis domain={[levels[0]!, levels.at(-1)!]} ticks={levels} width={44} stroke="var(--ink-soft)" />
          <ReferenceLine y={bpm} stroke="var(--beat)" strokeDasharray="6 4" strokeWidth={2} />
          <Line dataKey="bpm" stroke="var(--heard)" strokeWidth={3} dot={{ r: 3 }} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
