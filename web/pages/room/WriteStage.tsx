import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import type { WriteTask } from '../../../contract/room.ts';
import { compareWritten } from '../../../core/ear/written.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { useHear } from '../../audio/useHear.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { type StageProps, Tally, useAnswering } from './stage.tsx';

/** What is heard is written on the devices; then it is shown, and how many had which measure. */
export function WriteStage(props: StageProps & { readonly task: WriteTask }) {
  const { room, task, voice } = props;
  const pattern = useMemo(() => {
    const read = parseRhythm(task.text);
    return read.ok ? read.pattern : undefined;
  }, [task.text]);
  const written = room.seats.flatMap(({ done }) => (done.text === null ? [] : [done.text]));
  const { hear, moment } = useHear();
  const play = () => pattern && void hear(pattern, task.bpm, { plays: 1, turn: false });
  const { isOpen, goOn } = useAnswering(props, () => void play());
  const right = pattern ? rightPerMeasure(task.text, written) : [];
  const counts = useMemo(() => [voice.counts], [voice]);
  return (
    <section className="room-round" aria-label={t`Write it`}>
      <h2 className="room-asked">{isOpen ? t`It was this` : t`Write what you hear`}</h2>
      {isOpen && pattern && (
        <>
          <div className="room-board-ruler">
            <Ruler pattern={pattern} size="board" fit counts={counts} />
          </div>
          <ol className="room-right" aria-label={t`Right, measure by measure`}>
            {right.map(({ measure, count }) => (
              <li key={measure}>{rich`${measure}: ${<strong>{count}</strong>} of ${written.length} right`}</li>
            ))}
          </ol>
        </>
      )}
      <div className="room-foot">
        <Tally count={written.length} of={room.seats.length} what={t`have written something`} />
        <Button size="lg" variant="outline-dark" onClick={play} aria-pressed={moment.state !== 'quiet'}>
          {rich`Play it ${<kbd>P</kbd>}`}
        </Button>
        <Button size="lg" onClick={goOn}>
          {isOpen ? t`Go on` : t`Show it`} <kbd>{t`space`}</kbd>
        </Button>
      </div>
    </section>
  );
}

/** How many wrote each measure so that it sounds as it should. */
function rightPerMeasure(text: string, written: readonly string[]) {
  const heard = parseRhythm(text);
  if (!heard.ok) return [];
  const compared = written.flatMap((one) => {
    const read = parseRhythm(one);
    return read.ok ? [compareWritten(heard.pattern, read.pattern)] : [];
  });
  return heard.pattern.measures.map((_, i) => ({
    measure: i + 1,
    count: compared.filter(({ measures }) => measures[i]?.right).length,
  }));
}
