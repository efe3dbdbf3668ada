import { EPSILON } from '../../../core/timing/tolerance.ts';
import { useCallback, useEffect, useRef, useState } from 'react';
import {
  type Cue,
  type CueKind,
  type Section,
  type Timetable,
  lastAt,
  measureStarts,
} from '../../../core/leading/timetable.ts';
import { scheduleOf } from '../../../core/timing/schedule.ts';
import { toNumber } from '../../../core/rhythm/fraction.ts';
import { audioContext, awake } from '../../audio/context.ts';
import { LeadPlayer } from '../../audio/leadPlayer.ts';
import { type Levels, Mixer } from '../../audio/mixer.ts';
import { SoundBank } from '../../audio/soundBank.ts';

/** What is to be done at a moment. */
export interface Moment {
  /** Index of the section. */
  readonly section: number;
  /** Index of the measure in it, -1 during the count-in. */
  readonly measure: number;
  /** The word of the count-in; undefined once it has begun. */
  readonly leadIn: string | undefined;
  readonly mouth: string;
  readonly hands: string;
  readonly foot: string;
  readonly secondsLeft: number;
}

export type LeadState = 'starting' | 'running' | 'paused' | 'over' | 'silent';

const HAND_WORDS: Partial<Record<CueKind, string>> = { clap: 'clap', push: 'push', open: 'open' };

/** The cues of each part of the body, so that a moment is found quickly. */
function byBody({ cues }: Timetable) {
  const of = (...kinds: CueKind[]) => cues.filter(({ kind }) => kinds.includes(kind));
  return { mouth: of('syllable', 'count-in'), hands: of('clap', 'push', 'open'), feet: of('foot') };
}

function at(cues: readonly Cue[], time: number, section: number): Cue | undefined {
  const cue = cues[lastAt(cues, time + EPSILON)];
  return cue?.section === section ? cue : undefined;
}

/** Index of the section a moment lies in. */
export function sectionAt(sections: readonly Section[], time: number): number {
  let index = 0;
  while (index + 1 < sections.length && sections[index + 1]!.from <= time + EPSILON) index++;
  return index;
}

const MIN_RATE = 0.25;
const MAX_RATE = 4;

/** Runs a timetable: sound, the moment for the eye, and everything a key can ask for. */
export function useLeadRun(table: Timetable, levels: Levels, clapAs: 'clap' | 'wood') {
  const [state, setState] = useState<LeadState>('starting');
  const [moment, setMoment] = useState<Moment>();
  const [rate, setRateShown] = useState(1);
  const [loops, setLoops] = useState(false);
  const player = useRef<LeadPlayer>(undefined);
  const mixer = useRef<Mixer>(undefined);

  useEffect(() => {
    let gone = false;
    const begin = async () => {
      const context = audioContext();
      if (!context || !(await awake(context))) {
        if (!gone) setState('silent');
        return;
      }
      const bank = new SoundBank(context);
      await bank.prepare(table.cues, clapAs);
      if (gone) return;
      mixer.current = new Mixer(context, levels);
      player.current = new LeadPlayer(context, bank, mixer.current, table, clapAs);
      player.current.start();
      setState('running');
    };
    void begin();
    return () => {
      gone = true;
      player.current?.stop();
      player.current = undefined;
    };
    // Levels reach a running mixer below; a run keeps its timetable.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [table, clapAs]);

  useEffect(() => mixer.current?.set(levels), [levels]);

  useEffect(() => {
    const body = byBody(table);
    const starts = measureStarts(table);
    let frame = 0;
    let shown = '';
    const look = () => {
      frame = requestAnimationFrame(look);
      const playing = player.current;
      if (!playing) return;
      const time = playing.now();
      const index = sectionAt(table.sections, time);
      const section = table.sections[index]!;
      const first =
        section.start +
        toNumber(scheduleOf(section.pattern, section.bpm).measures[0]!.at) *
          scheduleOf(section.pattern, section.bpm).whole;
      const counting = time < first - EPSILON;
      const mouth = at(body.mouth, time, index);
      const word = mouth && time < mouth.time + Math.max(0.2, mouth.seconds) ? mouth : undefined;
      const hands = counting ? undefined : at(body.hands, time, index);
      const start = starts[lastAt(starts, time + EPSILON)];
      const next: Moment = {
        section: index,
        measure: counting ? -1 : start?.section === index ? start.measure : 0,
        leadIn: counting ? (word?.kind === 'count-in' ? word.text : '') : undefined,
        mouth: word?.kind === 'syllable' ? (word.whispered ? `(${word.text})` : word.text) : '',
        hands: hands ? (HAND_WORDS[hands.kind] ?? '') : '',
        foot: counting ? '' : (at(body.feet, time, index)?.text ?? ''),
        secondsLeft: Math.max(0, Math.ceil((table.seconds - time) / playing.rate)),
      };
      const key = JSON.stringify(next);
      if (key !== shown) {
        shown = key;
        setMoment(next);
      }
      if (playing.over) {
        playing.stop();
        setState('over');
      }
    };
    look();
    return () => cancelAnimationFrame(frame);
  }, [table]);

  const now = useCallback(() => player.current?.now(), []);
  const toggle = () => {
    const playing = player.current;
    if (!playing) return;
    if (state === 'running') playing.pause();
    else if (state === 'over') playing.start();
    else playing.resume();
    setState(state === 'running' ? 'paused' : 'running');
  };
  const setRate = (next: number) => {
    const kept = Math.min(MAX_RATE, Math.max(MIN_RATE, next));
    player.current?.setRate(kept);
    setRateShown(kept);
  };
  const go = (to: number) => {
    const playing = player.current;
    if (!playing) return;
    if (state === 'over') {
      playing.start(to);
      setState('running');
    } else playing.jump(to);
  };
  /** To a measure of the pass that goes now, counted in again. */
  const goToMeasure = (measure: number) => {
    const section = sectionAt(table.sections, player.current?.now() ?? 0);
    const start = measureStarts(table).find((one) => one.section === section && one.measure === measure);
    if (start) go(start.time);
  };
  const loop = () => {
    const playing = player.current;
    if (!playing) return;
    const section = table.sections[sectionAt(table.sections, playing.now())]!;
    const whole = table.sections.filter(({ pass }) => pass === section.pass);
    const range = playing.loops ? undefined : { from: whole[0]!.from, to: whole.at(-1)!.end };
    playing.loop(range);
    setLoops(range !== undefined);
  };
  return { state, moment, rate, loops, now, toggle, setRate, go, goToMeasure, loop };
}
