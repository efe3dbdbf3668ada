import type { Section, Timetable } from '../../../core/leading/timetable.ts';
import { linesOf } from '../../../core/rhythm/lines.ts';
import type { Keys } from '../../ui/useKeys.ts';
import type { LeadRun } from './useLeadRun.ts';

/** Steps of tempo at a key, as parts of the planned tempo. */
const STEP = 0.05;
const HALF = 0.5;

interface Context {
  readonly run: LeadRun;
  readonly table: Timetable;
  readonly section: Section;
  /** So many measures from the first are covered by hand. */
  readonly covered: number;
  readonly setCovered: (covered: number) => void;
  /** Of several parts: each group takes the next one. */
  readonly changeOver: (() => void) | undefined;
  readonly fullScreen: () => void;
  readonly secondWindow: () => void;
  /** Hears the class, or no longer; and leads the measure again that was not together. */
  readonly hear: () => void;
  readonly onceMore: (() => void) | undefined;
  readonly onEnd: () => void;
}

export interface LeadCommands {
  readonly faster: () => void;
  readonly slower: () => void;
  readonly half: () => void;
  readonly again: () => void;
  readonly nextPass: () => void;
  readonly cover: () => void;
  readonly uncover: () => void;
  readonly allCovered: boolean;
  /** Of a page of lines each alone, at its number. */
  readonly lines: readonly { readonly number: number; readonly press: () => void }[];
  readonly page: () => void;
  readonly changeOver: (() => void) | undefined;
  readonly fullScreen: () => void;
  readonly secondWindow: () => void;
  readonly hear: () => void;
  readonly end: () => void;
  readonly keys: Keys;
}

/** What buttons and keys do while a run goes. */
export function leadCommands(context: Context): LeadCommands {
  const { run, table, section, covered, setCovered, changeOver, fullScreen, secondWindow, onEnd } = context;
  const { hear, onceMore } = context;
  const measures = section.pattern.measures.length;
  const changeRate = (by: number) => () => run.setRate(Math.round((run.rate + by) * 100) / 100);
  const goToPass = (step: number) => () => {
    const wanted = Math.min(table.passes, Math.max(1, section.pass + step));
    const found = table.sections.find(({ pass }) => pass === wanted);
    if (found) run.go(found.from);
  };
  const goToMeasure = (step: number) => () => {
    const wanted = (run.moment?.measure ?? 0) + step;
    run.goToMeasure(Math.min(measures - 1, Math.max(0, wanted)));
  };
  const commands = {
    faster: changeRate(STEP),
    slower: changeRate(-STEP),
    half: () => run.setRate(run.rate === HALF ? 1 : HALF),
    again: () => run.go(section.from),
    nextPass: goToPass(1),
    cover: () => setCovered(Math.min(measures, covered + 1)),
    uncover: () => setCovered(0),
    allCovered: covered >= measures,
    lines: linesOf(section.pattern).map(({ number, first, last }) => ({ number, press: () => run.stay(first, last) })),
    page: run.goOn,
    changeOver,
    fullScreen,
    secondWindow,
    hear,
    end: onEnd,
  };
  return {
    ...commands,
    keys: {
      // At the ends a presenter in the hand goes on to what is before or after it in the lesson.
      ...(section.pass < table.passes ? { PageDown: commands.nextPass } : {}),
      ...(section.pass > 1 ? { PageUp: goToPass(-1) } : {}),
      ' ': run.toggle,
      Escape: onEnd,
      ArrowUp: commands.faster,
      ArrowDown: commands.slower,
      h: commands.half,
      a: commands.again,
      ArrowRight: commands.nextPass,
      ArrowLeft: goToPass(-1),
      c: commands.cover,
      u: commands.uncover,
      '[': goToMeasure(-1),
      ']': goToMeasure(1),
      l: run.loop,
      ...Object.fromEntries(commands.lines.filter(({ number }) => number < 10).map((one) => [one.number, one.press])),
      ...(commands.lines.length > 0 ? { 0: commands.page } : {}),
      ...(changeOver ? { g: changeOver } : {}),
      f: fullScreen,
      o: secondWindow,
      e: hear,
      ...(onceMore ? { m: onceMore } : {}),
    },
  };
}
