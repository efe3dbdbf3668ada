import { t } from '../../../core/words/say.ts';
import { Link, useLocation, useSearchParams } from 'react-router';
import { type Plan, READY_PLANS } from '../../../core/leading/plan.ts';
import { usePlans } from '../../api/hooks.ts';
import { Loading } from '../../ui/Loading.tsx';
import { useStored } from '../../store/stored.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { type ChosenPlan, LeadSetup } from './LeadSetup.tsx';
import './lead.scss';

/** What a lesson asks for: which part of it this is, and how it is led. */
interface AskedByLesson {
  readonly stop?: string;
  readonly plan?: Plan;
}

/** Run a rhythm in front of the class. */
export default function LeadPage() {
  const [search] = useSearchParams();
  const { state } = useLocation() as { readonly state: AskedByLesson | null };
  const patterns = useOfferedPatterns();
  const plans = usePlans();
  const [storedPattern, setStoredPattern] = useStored('take.pattern', '');
  const problem = patterns.error ?? plans.error;
  if (!patterns.data || !plans.data) return <Loading title={t`Lead`} problem={problem} />;
  const wanted = search.get('pattern') ?? storedPattern;
  const pattern = patterns.data.find(({ id }) => id === wanted) ?? patterns.data[0];
  if (!pattern) {
    return (
      <div className="empty">
        <p>{t`First write a rhythm to lead.`}</p>
        <Link className="btn btn-primary" to="/patterns">{t`To the patterns`}</Link>
      </div>
    );
  }
  return (
    <LeadSetup
      key={state?.stop ?? ''}
      patterns={patterns.data}
      pattern={pattern}
      plans={[...READY_PLANS(), ...(plans.data as ChosenPlan[])]}
      ask={askedFor(search) ?? READY_PLANS().find(({ id }) => id === search.get('plan')) ?? state?.plan}
      onPattern={setStoredPattern}
      over={pattern.id === search.get('pattern') ? turnedOver(search) : NONE}
    />
  );
}

const NONE: readonly number[] = [];

/** "over=0,2": the first and the third measure stay covered. */
function turnedOver(search: URLSearchParams): readonly number[] {
  return (search.get('over') ?? '').split(',').flatMap((place) => (/^\d{1,3}$/.test(place) ? [Number(place)] : []));
}

/** "Measure 2 alone, at 60": what another view asked to be practised. */
function askedFor(search: URLSearchParams): Plan | undefined {
  const from = Number(search.get('from'));
  const bpm = Number(search.get('bpm'));
  if (!from || !bpm) return undefined;
  return {
    ...READY_PLANS()[0]!,
    title: t`Practise a measure`,
    passes: [
      { activity: 'say-clap', who: 'together' },
      { activity: 'clap', who: 'together' },
    ],
    chunks: { kind: 'range', from, to: Number(search.get('to')) || from },
    ladder: [{ bpm, passes: 4 }],
  };
}
