import { Check, TriangleAlert } from 'lucide-react';
import type { DraftParse } from './useDraft.ts';

/** Says which measure does not add up, and by how much. */
export function BarCheckLine({ reading: { pattern, error, bars, barTrouble } }: { reading: DraftParse }) {
  if (!pattern || error) return <p className="bar-check" />;
  const measures = bars.filter(({ number }) => number > 0).length;
  const count = `${measures === 1 ? '1 measure' : `${measures} measures`}${bars[0]?.verdict === 'pickup' ? ' after a pickup' : ''}`;
  if (barTrouble.length === 0) {
    return (
      <p className="bar-check bar-right" role="status">
        <Check size={20} aria-hidden /> {count}, every one adds up
      </p>
    );
  }
  const [first, ...others] = barTrouble;
  return (
    <p className="bar-check bar-wrong" role="status">
      <TriangleAlert size={20} aria-hidden /> {first!.charAt(0).toUpperCase() + first!.slice(1)}
      {others.length > 0 && `; ${others.slice(0, 3).join('; ')}${others.length > 3 ? ' …' : ''}`}
    </p>
  );
}
