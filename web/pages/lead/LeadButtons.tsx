import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { KeyButtons, type KeyEntry } from '../../ui/KeyButtons.tsx';
import type { LeadCommands } from './leadCommands.ts';
import type { LeadRun } from './useLeadRun.ts';

const TOGGLE_NAMES = perLanguage((): Readonly<Record<LeadRun['state'], string>> => ({
  running: t`Pause`,
  over: t`From the start`,
  paused: t`Go on`,
  starting: t`Go on`,
  silent: t`Go on`,
}));

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
    [t`Slower`, '↓', commands.slower],
    [t`Faster`, '↑', commands.faster],
    [t`Half`, 'H', commands.half, run.rate === 0.5],
    [t`Again`, 'A', commands.again],
    [t`Next`, '→', commands.nextPass],
    allCovered ? [t`Uncover`, 'U', commands.uncover] : [t`Cover`, 'C', commands.cover],
    [run.loops ? t`Looping` : t`Loop`, 'L', run.loop, run.loops],
    ...(changeOver ? [[t`Change over`, 'G', changeOver] as const] : []),
    [t`Full screen`, 'F', commands.fullScreen],
    [t`Second window`, 'O', commands.secondWindow],
    ...(hears === undefined
      ? []
      : [[hears ? t`Hearing the class` : t`Hear the class`, 'E', commands.hear, hears] as const]),
    [t`Stop`, 'Esc', commands.end],
  ];
  return (
    <div className="stage-actions no-print">
      <Button size="sm" onClick={run.toggle}>
        {TOGGLE_NAMES()[run.state]} <kbd>{t`space`}</kbd>
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
    <span className="lead-lines" role="group" aria-label={t`One line alone`}>
      <span aria-hidden>{t`Line`}</span>
      {lines.map(({ number, press }) => (
        <Button key={number} size="sm" variant="outline-dark" aria-label={t`Line ${number} alone`} onClick={press}>
          {number}
        </Button>
      ))}
      <Button size="sm" variant="outline-dark" disabled={!loops} onClick={page}>
        {rich`All lines ${<kbd>0</kbd>}`}
      </Button>
    </span>
  );
}
