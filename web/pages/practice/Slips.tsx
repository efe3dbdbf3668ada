import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import type { Child } from '../../../contract/child.ts';
import type { FromHome } from '../../../contract/home.ts';
import type { PracticeWeek } from '../../../contract/practice.ts';
import { ownBpm } from '../../../core/records/lineUp.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { DotsPicture } from '../../ui/DotsPicture.tsx';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { daysOf, timesText } from './calendar.ts';

interface SlipsProps {
  readonly week: PracticeWeek;
  readonly children: readonly Child[];
  readonly minutes: readonly number[];
  /** The secret of each child who has a way home. */
  readonly links: FromHome['links'];
}

/** For paper: a slip for each child, to be cut off and stuck into the homework book. */
export function Slips({ week, children, minutes, links }: SlipsProps) {
  return (
    <div className="slips">
      {children.map((child) => (
        <Slip
          key={child.id}
          week={week}
          child={child}
          minutes={minutes}
          secret={links.find(({ childId }) => childId === child.id)?.token}
        />
      ))}
    </div>
  );
}

type SlipProps = Omit<SlipsProps, 'children' | 'links'> & { child: Child; secret: string | undefined };

function Slip({ week: { starts, plan }, child, minutes, secret }: SlipProps) {
  return (
    <article className="slip">
      {secret && (
        <div className="slip-dots">
          <DotsPicture
            address={`${location.origin}/home#${secret}`}
            name={t`Picture of dots with the way to this week`}
          />
        </div>
      )}
      <h2>{child.name}</h2>
      <p>{plan.title}</p>
      {plan.items.map((item) => (
        <div key={item.patternId} className="slip-item">
          <p>
            {rich`${<strong>{item.title}</strong>}, ${timesText(item.times)} a day at
              ${ownBpm(item.bpm, child.adaptations)} beats a minute`}
          </p>
          <SlipNotes text={item.text} />
        </div>
      ))}
      <ol className="slip-days">
        {daysOf(starts).map(({ title }, day) =>
          minutes[day] ? (
            <li key={title}>
              <span className="slip-box" aria-hidden /> {t`${title}, ${minutes[day]} min`}
            </li>
          ) : undefined,
        )}
      </ol>
    </article>
  );
}

function SlipNotes({ text }: { text: string }) {
  const read = parseScore(text);
  if (!read.ok) return <p>{text}</p>;
  const { parts } = read.score;
  return <MiniNotes pattern={parts[0]!.pattern} parts={parts} whole />;
}
