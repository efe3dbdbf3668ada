import { t } from '../../../core/words/say.ts';
import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { BOARD_STEP, BoardRuler, STEPS } from '../../leading/BoardRuler.tsx';
import { openSecondWindow, useTellSecondWindow } from '../../leading/secondWindow.ts';
import { KeyButtons, type KeyEntry } from '../../ui/KeyButtons.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { type Lanes, useLanes } from '../../ruler/LaneChooser.tsx';
import './board.scss';

/** Only the ruler, for the back row: patterns one after the other, larger and smaller, lanes on and off. */
export default function BoardPage() {
  const { patternId } = useParams();
  const { data, error, mutate } = useOfferedPatterns(patternId);
  if (!data) return <Loading title={t`Board`} problem={error} again={() => void mutate()} />;
  const at = Math.max(
    0,
    data.findIndex(({ id }) => id === patternId),
  );
  const pattern = data[at];
  if (!pattern)
    return <Notice problem={{ message: t`There are no patterns yet. Write the first one under Patterns.` }} />;
  return <Board patterns={data} at={at} pattern={pattern} />;
}

interface BoardProps {
  readonly patterns: readonly SavedPattern[];
  readonly at: number;
  readonly pattern: SavedPattern;
}

function Board({ patterns, at, pattern }: BoardProps) {
  const navigate = useNavigate();
  const { lanes, set } = useLanes();
  const [size, setSize] = BOARD_STEP.use();
  const { element, toggle } = useFullScreen();
  const go = useCallback(
    (by: number) => {
      const next = patterns[at + by];
      if (next) void navigate(`/board/${next.id}`, { replace: true });
    },
    [patterns, at, navigate],
  );
  const resize = (by: number) => setSize(Math.max(STEPS.least, Math.min(STEPS.most, size + by)));
  const leave = () => void navigate(`/patterns/${pattern.id}`);
  const entries: readonly KeyEntry[] = [
    [t`Back`, '←', () => go(-1)],
    [t`Next`, '→', () => go(1)],
    [t`Smaller`, '-', () => resize(-1)],
    [t`Larger`, '+', () => resize(1)],
    ...laneEntries(lanes, set),
    ...(hasTwoParts(pattern.text) ? [oneLineEntry(lanes, set)] : []),
    [t`Full screen`, 'F', toggle],
    [t`Second window`, 'O', openSecondWindow],
    [t`Close`, 'Esc', leave],
  ];
  useKeys({
    ...Object.fromEntries(entries.map(([, key, press]) => [KEY_NAMES[key] ?? key.toLowerCase(), press])),
    '=': () => resize(1),
    ' ': () => go(1),
  });
  useTellSecondWindow({ kind: 'board', title: pattern.title || t`Untitled`, text: pattern.text });
  return (
    <div className="board" ref={element}>
      <div className="board-head">
        <h1>{pattern.title || t`Untitled`}</h1>
        <span role="status" aria-live="polite">
          {t`${at + 1} of ${patterns.length}`}
        </span>
      </div>
      <div className="board-ruler ruler-card">
        <BoardRuler text={pattern.text} />
      </div>
      <div className="stage-actions no-print">
        <KeyButtons entries={entries} />
      </div>
    </div>
  );
}

const KEY_NAMES: Readonly<Record<string, string>> = { '←': 'ArrowLeft', '→': 'ArrowRight', Esc: 'Escape' };

function hasTwoParts(text: string): boolean {
  const read = parseScore(text);
  return read.ok && read.score.parts.length === 2;
}

function oneLineEntry(lanes: Lanes, set: (change: Partial<Lanes>) => void): KeyEntry {
  return [t`One line`, 'P', () => set({ oneLine: !lanes.oneLine }), lanes.oneLine];
}

function laneEntries(lanes: Lanes, set: (change: Partial<Lanes>) => void): KeyEntry[] {
  const some = lanes.schools.length > 0;
  return [
    [t`Notes`, 'N', () => set({ notes: !lanes.notes }), lanes.notes],
    [t`Strips`, 'S', () => set({ strips: !lanes.strips }), lanes.strips],
    [t`Counts`, 'C', () => set({ schools: some ? [] : ['numbers'] }), some],
    [t`Hands`, 'H', () => set({ hands: !lanes.hands }), lanes.hands],
    [t`Steps`, 'T', () => set({ feet: !lanes.feet }), lanes.feet],
  ];
}
