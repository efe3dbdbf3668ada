import type { Child } from '../../../contract/child.ts';
import type { PracticeWeek } from '../../../contract/practice.ts';
import { ownBpm } from '../../../core/records/lineUp.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { daysOf, timesText } from './calendar.ts';

interface SlipsProps {
  readonly week: PracticeWeek;
  readonly children: readonly Child[];
  readonly minutes: readonly number[];
}

/** For paper: a slip for each child, to be cut off and stuck into the homework book. */
export function Slips({ week, children, minutes }: SlipsProps) {
  return (
    <div className="slips">
      {children.map((child) => (
        <Slip key={child.id} week={week} child={child} minutes={minutes} />
      ))}
    </div>
  );
}

function Slip({ week: { starts, plan }, child, minutes }: Omit<SlipsProps, 'children'> & { child: Child }) {
  return (
    <article className="slip">
      <h2>{child.name}</h2>
      <p>{plan.title}</p>
      {plan.items.map((item) => (
        <div key={item.patternId} className="slip-item">
          <p>
            <strong>{item.title}</strong>, {timesText(item.times)} a day at {ownBpm(item.bpm, child.adaptations)} beats
            a minute
          </p>
          <SlipNotes text={item.text} />
        </div>
      ))}
      <ol className="slip-days">
        {daysOf(starts).map(({ title }, day) =>
          minutes[day] ? (
            <li key={title}>
              <span className="slip-box" aria-hidden /> {title}, {minutes[day]} min
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
