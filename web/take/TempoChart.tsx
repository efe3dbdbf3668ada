import { EPSILON } from '../../core/timing/tolerance.ts';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';

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
  const values = points.map((point) => point.bpm);
  const low = Math.floor((Math.min(bpm, ...values) - 4) / 5) * 5;
  const high = Math.ceil((Math.max(bpm, ...values) + 4) / 5) * 5;
  const nameAt = (at: number) => ticks.find((tick) => Math.abs(tick.at - at) < EPSILON)?.name ?? '';
  return (
    <figure className="tempo-chart">
      <figcaption>Tempo, beats a minute; the dashed line is the set one</figcaption>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={[...points]} margin={{ top: 8, right: 20, bottom: 4, left: 0 }} accessibilityLayer>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            type="number"
            dataKey="at"
            domain={['dataMin', 'dataMax']}
            ticks={ticks.map(({ at }) => at)}
            tickFormatter={nameAt}
            stroke="var(--ink-soft)"
          />
          <YAxis domain={[low, high]} width={44} stroke="var(--ink-soft)" />
          <ReferenceLine y={bpm} stroke="var(--beat)" strokeDasharray="6 4" strokeWidth={2} />
          <Line dataKey="bpm" stroke="var(--heard)" strokeWidth={3} dot={{ r: 3 }} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
