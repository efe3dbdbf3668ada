import Button from 'react-bootstrap/Button';
import { KeyButtons, type KeyEntry } from '../../ui/KeyButtons.tsx';
import type { LeadCommands } from './leadCommands.ts';
import type { LeadRun } from './useLeadRun.ts';

const TOGGLE_NAMES: Readonly<Record<LeadRun['state'], string>> = {
  running: 'Pause',
  over: 'From the start',
  paused: 'Go on',
  starting: 'Go on',
  silent: 'Go on',
};

interface LeadButtonsProps {
  readonly run: LeadRun;
  readonly commands: LeadCommands;
  /** Whether the class is heard; undefined where several parts go at once. */
  readonly hears: boolean | undefined;
}

/** Everything that can be done while a run goes, each at its key. */
export function LeadButtons({ run, commands, hears }: LeadButtonsProps) {
  const { allCovered, changeOver } = commands;
  const entries: readonly KeyEntry[] = [
    ['Slower', '↓', commands.slower],
    ['Faster', '↑', commands.faster],
    ['Half', 'H', commands.half, run.rate === 0.5],
    ['Again', 'A', commands.again],
    ['Next', '→', commands.nextPass],
    allCovered ? ['Uncover', 'U', commands.uncover] : ['Cover', 'C', commands.cover],
    [run.loops ? 'Looping' : 'Loop', 'L', run.loop, run.loops],
    ...(changeOver ? [['Change over', 'G', changeOver] as const] : []),
    ['Full screen', 'F', commands.fullScreen],
    ['Second window', 'O', commands.secondWindow],
    ...(hears === undefined
      ? []
      : [[hears ? 'Hearing the class' : 'Hear the class', 'E', commands.hear, hears] as const]),
    ['Stop', 'Esc', commands.end],
  ];
  return (
    <div className="stage-actions no-print">
      <Button size="sm" onClick={run.toggle}>
        {TOGGLE_NAMES[run.state]} <kbd>space</kbd>
      </Button>
      <KeyButtons entries={entries} />
      <LineButtons commands={commands} loops={run.loops} />
    </div>
  );
}

/** Of a page of lines one line alone, again and again, or all of it. */
function LineButtons({ commands: { lines, page }, loops }: { commands: LeadCommands; loops: boolean }) {
  if (lines.length === 0) return null;
  return (
    <span className="lead-lines" role="group" aria-label="One line alone">
      <span aria-hidden>Line</span>
      {lines.map(({ number, press }) => (
        <Button key={number} size="sm" variant="outline-dark" aria-label={`Line ${number} alone`} onClick={press}>
          {number}
        </Button>
      ))}
      <Button size="sm" variant="outline-dark" disabled={!loops} onClick={page}>
        All lines <kbd>0</kbd>
      </Button>
    </span>
  );
}
