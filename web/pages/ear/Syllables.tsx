import { type CountOptions, countPattern } from '../../../core/counting/count.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';

/** What is said, without the notes. */
export function Syllables({ pattern, counts }: { pattern: Pattern; counts: CountOptions }) {
  const counted = countPattern(pattern, counts);
  if (!counted.ok) return <p className="ear-syllables">{counted.reason}</p>;
  return (
    <p className="ear-syllables">
      {counted.measures.map(({ number, tokens }) => (
        <span key={number}>{tokens.map(({ text }) => text).join(' ')}</span>
      ))}
    </p>
  );
}
