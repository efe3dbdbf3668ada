import { useState } from 'react';
import { t } from '../../../core/words/say.ts';
import type { School } from '../../../contract/school.ts';
import { format } from '../../words/dates.ts';
import { KEPT, daysText } from './keptWords.ts';

/** How long a school keeps things, to read. */
export function KeptCard({ school: { retention, retentionFrom } }: { school: School }) {
  return (
    <section className="card-paper">
      <h2>{t`How long things are kept`}</h2>
      <dl className="kept">
        {KEPT().map(({ kind, name, usual }) => (
          <div key={kind}>
            <dt>{name}</dt>
            <dd>{retention[kind] === null ? usual : daysText(retention[kind])}</dd>
          </div>
        ))}
      </dl>
      <HoldsFrom at={retentionFrom} />
      <p>{t`What you need for longer you can hold: a child on its page, a class under More.`}</p>
    </section>
  );
}

/** When new times begin to hold, where that is still to come. */
export function HoldsFrom({ at }: { at: number }) {
  const [now] = useState(() => Date.now());
  if (at <= now) return null;
  return (
    <p className="from-then">{t`These times hold from ${format(at, 'd MMMM')}: until then nothing is removed.`}</p>
  );
}
