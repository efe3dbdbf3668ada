import { perLanguage, t } from '../../../../core/words/say.ts';
import { formatDistanceToNowStrict } from '../../../words/ago.ts';
import Button from 'react-bootstrap/Button';
import { BIN_DAYS, type Binned } from '../../../../contract/bin.ts';
import { post, remove } from '../../../api/client.ts';
import { useBin } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

const DAY_MS = 86_400_000;

const WORDS = perLanguage((): Readonly<Record<Binned['kind'], string>> => ({
  class: t`class`,
  child: t`child`,
  take: t`take`,
  column: t`marks from paper`,
  'line-up': 'line-up',
  lesson: t`lesson`,
  practice: t`practice week`,
  tally: t`score of the class`,
  hearing: t`pass of the class`,
}));

const whatIs = ({ kind, className = t`a class`, children = 0 }: Binned) =>
  kind === 'class' ? t`class, ${children} children` : t`${kind === 'child' ? '' : `${WORDS()[kind]} `}of ${className}`;

/** What was removed in the last weeks, to be taken out again or thrown away for good. */
export function BinList() {
  const { data } = useBin();
  const path = ({ kind, id }: Binned) => `/bin/${kind}/${id}`;
  const out = useSave((thing: Binned) => post(`${path(thing)}/out`, {}), '/bin', '/classes', '/takes');
  const gone = useSave((thing: Binned) => remove(path(thing)), '/bin');
  const problem = out.problem ?? gone.problem;
  if (!data || data.length === 0) return problem ? <Notice problem={problem} /> : null;
  const throwAway = (thing: Binned) => {
    const all = thing.kind === 'class' || thing.kind === 'child' ? t` with all takes` : '';
    if (confirm(t`Delete ${thing.name}${all} for good? This cannot be undone.`)) void gone.save(thing);
  };
  return (
    <section className="bin" aria-label={t`Bin`}>
      <h2>{t`Bin`}</h2>
      {problem && <Notice problem={problem} />}
      <ul>
        {data.map((thing) => (
          <li key={thing.id}>
            <strong>{thing.name}</strong>
            <span>
              {t`${whatIs(thing)}, gone for good in
                ${formatDistanceToNowStrict(thing.binnedAt + BIN_DAYS * DAY_MS)}`}
            </span>
            <Button size="sm" variant="outline-dark" onClick={() => void out.save(thing)}>
              {t`Take ${thing.name} out again`}
            </Button>
            <Button size="sm" variant="link" onClick={() => throwAway(thing)} aria-label={t`Delete ${thing.name} now`}>
              {t`Delete now`}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
