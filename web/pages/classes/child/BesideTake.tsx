import { t } from '../../../../core/words/say.ts';
import type { Child } from '../../../../contract/child.ts';
import type { TakeDetail } from '../../../../contract/take.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';
import { Link } from 'react-router';
import { useTake } from '../../../api/takes.ts';
import { TogetherLine } from '../../../take/TogetherLine.tsx';

interface BesideProps {
  readonly take: TakeDetail;
  readonly classId: string;
  readonly children: readonly Child[];
  readonly naming: NamingId;
}

/** The take of another part that was played at the same time: how together the two were, and the way to it. */
export function BesideTake({ take, classId, children, naming }: BesideProps) {
  const { data: beside } = useTake(take.besideId ?? undefined);
  if (!beside) return null;
  const nameOf = ({ childId }: TakeDetail) => children.find(({ id }) => id === childId)?.name ?? '';
  const same = beside.childId === take.childId;
  const named = (one: TakeDetail) => ({ ...one, who: same ? (one.part ?? '') : nameOf(one) });
  return (
    <>
      <TogetherLine takes={[named(take), named(beside)]} naming={naming} />
      <p className="no-print">
        <Link to={`/classes/${classId}/takes/${beside.id}`}>
          {t`To the other part: ${beside.title}${same ? '' : `, ${nameOf(beside)}`}`}
        </Link>
      </p>
    </>
  );
}
