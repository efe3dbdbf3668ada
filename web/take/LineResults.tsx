import { t } from '../../core/words/say.ts';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import { lineResults } from '../../core/judging/lineResults.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { ShownTake } from './shownTake.ts';

interface LineResultsProps {
  readonly take: ShownTake;
  readonly pattern: Pattern;
  /** At no more than this a line is practised alone. */
  readonly practiceBpm: number;
}

/** Of a page of lines what each was; a line that was not all right is practised alone. */
export function LineResults({ take: { patternId, bpm, result }, pattern, practiceBpm }: LineResultsProps) {
  const lines = lineResults(pattern, result);
  if (lines.length === 0) return null;
  return (
    <ol className="line-results" aria-label={t`Line by line`}>
      {lines.map(({ line, from, to, right, notes, extras }, i) => {
        const well = right === notes && extras === 0;
        const words = well ? t`all right` : t`${right} of ${notes}${extras > 0 ? t`, ${extras} too many` : ''}`;
        return (
          <li key={i} className={well ? 'line-well' : ''}>
            <strong>{t`Line ${line}`}</strong> {well && <Check size={16} aria-hidden />} {words}
            {!well && patternId && (
              <Link
                className="no-print"
                to={`/lead?pattern=${patternId}&from=${from}&to=${to}&bpm=${Math.min(practiceBpm, bpm)}`}
              >
                {t`practise it alone`}
              </Link>
            )}
          </li>
        );
      })}
    </ol>
  );
}
