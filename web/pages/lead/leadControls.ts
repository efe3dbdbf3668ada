import { measureStarts, sectionAt } from '../../../core/leading/moment.ts';
import type { Timetable } from '../../../core/leading/timetable.ts';
import type { LeadPlayer } from '../../audio/leadPlayer.ts';

/** When a measure of a section begins. */
function measureTime(table: Timetable, section: number, measure: number) {
  return measureStarts(table).find((one) => one.section === section && one.measure === measure)?.time;
}

/** What plays a run, as far as keys ask for it. */
export type Played = Pick<
  LeadPlayer,
  'now' | 'start' | 'jump' | 'pause' | 'resume' | 'setRate' | 'loop' | 'state' | 'running'
>;

/**
 * Everything a key can ask for.
 * @param over  the run has come to its end: what goes on begins it again
 */
export function leadControls(player: Played, table: Timetable, over: boolean) {
  const go = (to: number) => (over ? player.start(to) : player.jump(to));
  const here = () => sectionAt(table.sections, player.now());
  return {
    toggle: () => {
      if (over) player.start();
      else if (player.running) player.pause();
      else player.resume();
    },
    setRate: (rate: number) => player.setRate(rate),
    go,
    /** To a measure of the pass that goes now, counted in again. */
    goToMeasure: (measure: number) => {
      const time = measureTime(table, here(), measure);
      if (time !== undefined) go(time);
    },
    /** Some measures of the section that goes now, counted in, then again and again. */
    stay: (first: number, last: number) => {
      const section = here();
      const { start, end } = table.sections[section]!;
      const time = measureTime(table, section, first) ?? start;
      player.loop({ from: Math.max(start, time), to: measureTime(table, section, last + 1) ?? end });
      go(time);
    },
    goOn: () => player.loop(undefined),
    /** The pass that goes now again and again; or no longer. */
    loop: () => {
      const { pass } = table.sections[here()]!;
      const whole = table.sections.filter((section) => section.pass === pass);
      player.loop(player.state().loops ? undefined : { from: whole[0]!.from, to: whole.at(-1)!.end });
    },
  };
}
