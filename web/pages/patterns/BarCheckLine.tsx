import { counted, t } from '../../../core/words/say.ts';
import { Check, TriangleAlert } from 'lucide-react';
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
    const pickup = bars[0]?.verdict === 'pickup' ? t` after a pickup` : '';
    const inParts = length > 1 ? t` in ${length} parts` : '';
    return (
      <p className="bar-check bar-right" role="status">
        <Check size={20} aria-hidden /> {t`${count}${pickup}${inParts}, every one adds up`}
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
