import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { type Moment, MomentFinder } from '../../../core/leading/moment.ts';
import type { Timetable } from '../../../core/leading/timetable.ts';
import { audioContext, awake } from '../../audio/context.ts';
import { LeadPlayer, type PlayerState } from '../../audio/leadPlayer.ts';
import { type Levels, Mixer } from '../../audio/mixer.ts';
import { SoundBank } from '../../audio/soundBank.ts';
import type { LeadState, ShownMoment } from '../../leading/ClassView.tsx';
import { leadControls } from './leadControls.ts';

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

const nothing = () => undefined;
const NO_CONTROLS: ReturnType<typeof leadControls> = {
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
    () => (player ? leadControls(player, table, state === 'over') : NO_CONTROLS),
    [player, table, state],
  );
  const audioAt = useCallback((time: number) => player?.audioAt(time), [player]);
  return { state, moment, rate, loops, now, audioAt, ...controls };
}

function runState(player: LeadPlayer | undefined, played: PlayerState['state'], silent: boolean): LeadState {
  if (!player) return silent ? 'silent' : 'starting';
  return played === 'stopped' ? 'over' : played;
}

export type LeadRun = ReturnType<typeof useLeadRun>;
