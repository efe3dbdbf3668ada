import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { type Moment, MomentFinder, measureStarts, sectionAt } from '../../../core/leading/moment.ts';
import type { Timetable } from '../../../core/leading/timetable.ts';
import { audioContext, awake } from '../../audio/context.ts';
import { LeadPlayer, type PlayerState } from '../../audio/leadPlayer.ts';
import { type Levels, Mixer } from '../../audio/mixer.ts';
import { SoundBank } from '../../audio/soundBank.ts';
import type { LeadState, ShownMoment } from '../../leading/ClassView.tsx';

/** Makes a player ready and starts it; undefined until then, `silent` where the browser lets no sound out. */
function usePlayer(table: Timetable, levels: Levels, clapAs: 'clap' | 'wood') {
  const [player, setPlayer] = useState<LeadPlayer>();
  const [silent, setSilent] = useState(false);
  const mixer = useRef<Mixer>(undefined);
  const first = useRef(levels);
  useEffect(() => {
    let gone = false;
    let made: LeadPlayer | undefined;
    const begin = async () => {
      const context = audioContext();
      if (!context || !(await awake(context))) {
        if (!gone) setSilent(true);
        return;
      }
      const bank = new SoundBank(context);
      await bank.prepare(table.cues, clapAs);
      if (gone) return;
      mixer.current = new Mixer(context, first.current);
      made = new LeadPlayer(context, bank, mixer.current, table, clapAs);
      made.start();
      setPlayer(made);
    };
    void begin();
    return () => {
      gone = true;
      made?.stop();
    };
  }, [table, clapAs]);
  useEffect(() => mixer.current?.set(levels), [levels]);
  return { player, silent };
}

/** What is shown while a place inside a pass is counted in. */
export function countedIn(moment: Moment, leadIn: string): Moment {
  return { ...moment, leadIn, mouth: '', hands: undefined, foot: '' };
}

/** The moment that is heard, looked up with every frame; when all is over the player is stopped. */
function useMoment(table: Timetable, player: LeadPlayer | undefined): ShownMoment | undefined {
  const [moment, setMoment] = useState<ShownMoment>();
  useEffect(() => {
    if (!player) return undefined;
    const finder = new MomentFinder(table);
    let frame = 0;
    let shown = '';
    const look = () => {
      frame = requestAnimationFrame(look);
      const time = player.now();
      const secondsLeft = Math.max(0, Math.ceil((table.seconds - time) / player.state().rate));
      const leadIn = player.countingIn();
      const moment = finder.at(time);
      // Counted in again: the screen says so, and asks nothing of hands and feet yet.
      const next: ShownMoment = { ...(leadIn === undefined ? moment : countedIn(moment, leadIn)), secondsLeft };
      const key = JSON.stringify(next);
      if (key !== shown) {
        shown = key;
        setMoment(next);
      }
      if (player.over) player.stop();
    };
    look();
    return () => cancelAnimationFrame(frame);
  }, [table, player]);
  return moment;
}

const NO_PLAYER: PlayerState = { state: 'stopped', rate: 1, loops: false };
const unsubscribed = () => () => undefined;
const noPlayer = () => NO_PLAYER;

/** When a measure of a section begins. */
function measureTime(table: Timetable, section: number, measure: number) {
  return measureStarts(table).find((one) => one.section === section && one.measure === measure)?.time;
}

/** Everything a key can ask for. */
function controlsOf(player: LeadPlayer, table: Timetable, over: boolean) {
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

const nothing = () => undefined;
const NO_CONTROLS: ReturnType<typeof controlsOf> = {
  toggle: nothing,
  setRate: nothing,
  go: nothing,
  goToMeasure: nothing,
  stay: nothing,
  goOn: nothing,
  loop: nothing,
};

/**
 * Runs a timetable: sound, the moment for the eye, and everything a key can ask for. Tempo and loop are the player's.
 */
export function useLeadRun(table: Timetable, levels: Levels, clapAs: 'clap' | 'wood') {
  const { player, silent } = usePlayer(table, levels, clapAs);
  const moment = useMoment(table, player);
  const {
    state: played,
    rate,
    loops,
  } = useSyncExternalStore(player?.subscribe ?? unsubscribed, player?.state ?? noPlayer);
  const state = runState(player, played, silent);
  const now = useCallback(() => player?.now(), [player]);
  const controls = useMemo(
    () => (player ? controlsOf(player, table, state === 'over') : NO_CONTROLS),
    [player, table, state],
  );
  return { state, moment, rate, loops, now, ...controls };
}

function runState(player: LeadPlayer | undefined, played: PlayerState['state'], silent: boolean): LeadState {
  if (!player) return silent ? 'silent' : 'starting';
  return played === 'stopped' ? 'over' : played;
}

export type LeadRun = ReturnType<typeof useLeadRun>;
