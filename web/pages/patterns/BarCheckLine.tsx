import { Check, TriangleAlert } from 'lucide-react';
import { counted } from '../../../core/wording/plurals.ts';
import { partBarTrouble } from '../../../core/wording/partTroubles.ts';
import { type NamingId, capital, measureName } from '../../../core/wording/valueNames.ts';
import type { DraftParse } from './patternDraft.ts';

/** So many wrong measures are named beside the first. */
const MORE = 3;

/** Says which measure does not add up, and by how much. */
export function BarCheckLine({ parse: { score, error, bars }, naming }: { parse: DraftParse; naming: NamingId }) {
  if (!score || error) return <p className="bar-check" />;
  const { length } = score.parts;
  const measures = bars.filter(({ number, part }) => number > 0 && part === score.parts[0]!.name).length;
  const count = counted(measures, measureName(naming), measureName(naming, true));
  const [first, ...others] = bars.flatMap((bar) => partBarTrouble(bar, naming) ?? []);
  if (first === undefined) {
    return (
      <p className="bar-check bar-right" role="status">
        <Check size={20} aria-hidden /> {count}
        {bars[0]?.verdict === 'pickup' ? ' after a pickup' : ''}
        {length > 1 ? ` in ${length} parts` : ''}, every one adds up
      </p>
    );
  }
  return (
    <p className="bar-check bar-wrong" role="status">
      <TriangleAlert size={20} aria-hidden /> {capital(first)}
      {others.slice(0, MORE).map((trouble) => `; ${trouble}`)}
      {others.length > MORE && ' …'}
    </p>
  );
}
