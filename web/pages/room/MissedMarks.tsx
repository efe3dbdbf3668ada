import type { ClassPicture } from '../../../core/judging/classPicture.ts';
import { toNumber } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import type { RulerLayout } from '../../../drawing/layout.ts';
import type { RulerSystem } from '../../../drawing/system.ts';

interface MissedMarksProps {
  readonly picture: ClassPicture;
  /** As it is played, measure by measure. */
  readonly pattern: Pattern;
  readonly system: RulerSystem;
  readonly layout: RulerLayout;
}

/** Over each note how many had it on time, where that is not all: at its place on the ruler. */
export function MissedMarks({ picture, pattern, system, layout }: MissedMarksProps) {
  const { notes } = scheduleOf(pattern, 60);
  return (
    <>
      {picture.notes.flatMap((note, i) => {
        const event = notes[i]?.event;
        const measure = system.measures.find(({ index }) => index === note.played);
        if (!event || !measure || note.onTime === picture.takes) return [];
        const x = measure.x + toNumber(event.onset) * layout.scale;
        const isHardest = picture.hardest?.index === note.index;
        return (
          <span key={note.index} className={`missed-mark ${isHardest ? 'missed-most' : ''}`} style={{ left: x }}>
            {note.onTime}/{picture.takes}
          </span>
        );
      })}
    </>
  );
}
