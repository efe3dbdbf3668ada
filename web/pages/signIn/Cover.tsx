import { perLanguage, t } from '../../../core/words/say.ts';

/** The strips of the rhythm on the cover, in eighths, a rest where negative; and the count under each. */
const COVER = perLanguage(
  () =>
    [
      [2, '1'],
      [1, '2'],
      [1, t`&`],
      [2, '3'],
      [-2, '(4)'],
      [3, '1-₂'],
      [1, t`&`],
      [4, '3-4'],
    ] as const,
);

/** A rhythm as strips with its counts, to look at. */
export function Cover() {
  return (
    <section className="cover" aria-hidden>
      <div className="cover-strips">
        {COVER().map(([length], i) => (
          <span key={i} className={length < 0 ? 'rest' : 'note'} style={{ flexGrow: Math.abs(length) }} />
        ))}
      </div>
      <div className="cover-counts">
        {COVER().map(([length, count], i) => (
          <span key={i} style={{ flexGrow: Math.abs(length) }}>
            {count}
          </span>
        ))}
      </div>
    </section>
  );
}
