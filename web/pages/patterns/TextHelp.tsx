import { perLanguage, t } from '../../../core/words/say.ts';
import { type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { VALUES } from '../../../core/rhythm/value.ts';

const LINES = perLanguage((): readonly (readonly [string, string])[] => [
  ['q.  q..', t`one dot, two dots`],
  ['(q)  (e.)', t`rests`],
  ['q~ e', t`a tie to the next note`],
  ['|  |:  :|  ||', t`bar, repeat from here, repeat to here, end`],
  ['4/4  6/8  7/8[2+2+3]', t`meter, at the start or after a bar; with its groups`],
  ['3{e e e}  5:4{s s s s s}', t`triplet; any group in the time of another`],
  ['^', t`before the first measure: it is a pickup`],
  ['(M7)', t`seven measures of rest`],
  ["q'crab'", t`a word or letter on a note`],
  ['#5  "A"', t`before a measure: it is number 5; its rehearsal letter`],
]);

export function TextHelp({ naming }: { naming: NamingId }) {
  const values = VALUES.map(({ letter }) => valueName({ base: letter, dots: 0 }, naming)).join(', ');
  return (
    <details className="text-help no-print">
      <summary>{t`How to write a rhythm`}</summary>
      <dl>
        {[['w h q e s t', values] as const, ...LINES()].map(([text, meaning]) => (
          <div key={text}>
            <dt>{text}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
