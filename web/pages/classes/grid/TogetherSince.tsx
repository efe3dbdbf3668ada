import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { changedText } from '../../../../core/wording/classTogetherWords.ts';
import { useHearings } from '../../../api/hearings.ts';
import { narrower, togetherPath, weeksOf } from '../../../domain/togetherWeeks.ts';

/** How together the class was when it was heard last; nothing where it never was. */
export function TogetherSince({ classId }: { classId: string }) {
  const { data } = useHearings(classId);
  const { mondays, rows } = useMemo(() => weeksOf(data ?? []), [data]);
  const [row] = rows;
  const last = row && mondays.flatMap((monday) => row.weeks.get(monday) ?? []).at(-1);
  if (!row || last?.heard.widthMs === undefined) return null;
  const change = changedText(narrower(row, mondays));
  return (
    <p className="together-since">
      {rich`${<Link to={togetherPath(classId)}>{t`Together`}</Link>}: in ${row.title} most
        claps come within ${Math.round(last.heard.widthMs)} ms`}
      {change !== '' && ` (${change})`}
    </p>
  );
}
