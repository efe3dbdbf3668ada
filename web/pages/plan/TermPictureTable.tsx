import { t } from '../../../core/words/say.ts';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import {
  type PictureCell,
  STANDINGS,
  type Standing,
  type TermPicture,
  mondayOf,
} from '../../../core/planning/picture.ts';
import { STANDING_WORDS, elementName } from '../../../core/wording/planWords.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';

interface TermPictureProps {
  readonly picture: TermPicture;
  readonly naming: NamingId;
  readonly today: string;
}

const SIZE = 14;
const HALF = SIZE / 2;
const RADIUS = 5.5;

/** A ring is met, half of it practised, all of it firm; what is planned is round, what was heard is square. */
function Sign({ standing, heard = false }: { standing: Standing; heard?: boolean }) {
  const filled = standing === 'firm' ? SIZE : standing === 'practised' ? HALF : 0;
  const shape = heard ? (
    <rect x={HALF - RADIUS} y={HALF - RADIUS} width={2 * RADIUS} height={2 * RADIUS} />
  ) : (
    <circle cx={HALF} cy={HALF} r={RADIUS} />
  );
  const id = `fill-${standing}-${heard ? 'heard' : 'planned'}`;
  return (
    <svg className={heard ? 'sign-heard' : 'sign-planned'} width={SIZE} height={SIZE} aria-hidden>
      <clipPath id={id}>{shape}</clipPath>
      <rect className="sign-fill" x={0} y={SIZE - filled} width={SIZE} height={filled} clipPath={`url(#${id})`} />
      {shape}
    </svg>
  );
}

function cellText({ planned, heard, right }: PictureCell): string {
  const parts = [
    ...(planned ? [t`planned: ${STANDING_WORDS()[planned]}`] : []),
    ...(heard ? [t`heard: ${STANDING_WORDS()[heard]}, ${Math.round(100 * (right ?? 0))} % right`] : []),
  ];
  return parts.join('; ');
}

/** Elements by weeks: what is planned, and what was heard. */
export function TermPictureTable({ picture: { weeks, rows }, naming, today }: TermPictureProps) {
  if (rows.length === 0) return <div className="empty">{t`Say on which days there are lessons, and what is new.`}</div>;
  const now = mondayOf(today);
  return (
    <div className="term-picture">
      <table>
        <caption className="visually-hidden">{t`Elements by weeks`}</caption>
        <thead>
          <tr>
            <td />
            {weeks.map((week) => (
              <th key={week} scope="col" className={week === now ? 'now' : undefined}>
                {format(parseISO(week), 'd')}
                <small>{format(parseISO(week), 'MMM')}</small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ element, cells }) => (
            <tr key={element}>
              <th scope="row">{capital(elementName(element, naming))}</th>
              {cells.map((cell, i) => (
                <td key={weeks[i]} className={weeks[i] === now ? 'now' : undefined} title={cellText(cell)}>
                  {cell.planned && <Sign standing={cell.planned} />}
                  {cell.heard && <Sign standing={cell.heard} heard />}
                  <span className="visually-hidden">{cellText(cell)}</span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="term-legend">
        {STANDINGS.map((standing) => (
          <span key={standing}>
            <Sign standing={standing} /> <Sign standing={standing} heard /> {STANDING_WORDS()[standing]}
          </span>
        ))}
        <span>{t`round: planned · square: heard`}</span>
      </p>
    </div>
  );
}
