import { t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import { parseScore } from '../../core/rhythm/scoreText.ts';
import { useCurrentClass } from '../domain/currentClass.ts';
import { useCounts, useLanes } from '../ruler/LaneChooser.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { storedThing } from '../store/stored.ts';

/** Steps smaller and larger than what fits. */
export const STEPS = { least: -3, most: 3, each: 1.2 } as const;
export const BOARD_STEP = storedThing<number>('board.step', (kept) =>
  typeof kept === 'number' && kept >= STEPS.least && kept <= STEPS.most ? Math.round(kept) : 0,
);

/** A rhythm as large as it fits, with the lanes and in the size that this device has chosen for its board. */
export function BoardRuler({ text }: { readonly text: string }) {
  const currentClass = useCurrentClass();
  const { lanes } = useLanes();
  const [step] = BOARD_STEP.use();
  const read = useMemo(() => parseScore(text), [text]);
  const counts = useCounts(lanes, currentClass);
  if (!read.ok) return <p>{t`This pattern cannot be read. Open it under Patterns and mend its text.`}</p>;
  const { notes, strips, hands, feet, oneLine } = lanes;
  const { parts } = read.score;
  return (
    <Ruler
      pattern={parts[0]!.pattern}
      parts={parts}
      oneLine={oneLine}
      size="board"
      fit
      fitBy={STEPS.each ** step}
      notes={notes}
      strips={strips}
      hands={hands}
      feet={feet}
      counts={counts}
    />
  );
}
