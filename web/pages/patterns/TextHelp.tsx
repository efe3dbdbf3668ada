import { type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { VALUES } from '../../../core/rhythm/value.ts';

const LINES: readonly (readonly [string, string])[] = [
  ['q.  q..', 'one dot, two dots'],
  ['(q)  (e.)', 'rests'],
  ['q~ e', 'a tie to the next note'],
  ['|  |:  :|  ||', 'bar, repeat from here, repeat to here, end'],
  ['4/4  6/8  7/8[2+2+3]', 'meter, at the start or after a bar; with its groups'],
  ['3{e e e}  5:4{s s s s s}', 'triplet; any group in the time of another'],
  ['^', 'before the first measure: it is a pickup'],
  ['(M7)', 'seven measures of rest'],
  ["q'crab'", 'a word or letter on a note'],
  ['#5  "A"', 'before a measure: it is number 5; its rehearsal letter'],
];

export function TextHelp({ naming }: { naming: NamingId }) {
  const values = VALUES.map(({ letter }) => valueName({ base: letter, dots: 0 }, naming)).join(', ');
  return (
    <details className="text-help no-print">
      <summary>How to write a rhythm</summary>
      <dl>
        {[['w h q e s t', values] as const, ...LINES].map(([text, meaning]) => (
          <div key={text}>
            <dt>{text}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
