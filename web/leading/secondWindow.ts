import { useEffect, useRef, useState } from 'react';
import type { Bracket } from '../../contract/pattern.ts';
import type { Plan } from '../../core/leading/plan.ts';
import type { LeadState, ShownMoment } from './ClassView.tsx';

/** What the teacher's window shows the class, told to a second one on the same device. */
export type Told =
  | { readonly kind: 'board'; readonly title: string; readonly text: string }
  | {
      readonly kind: 'lead';
      readonly text: string;
      readonly brackets: readonly Bracket[] | undefined;
      readonly plan: Plan;
      readonly state: LeadState;
      readonly moment: ShownMoment | undefined;
      readonly rate: number;
      readonly covered: number;
      readonly turned: readonly number[];
      /** So often the groups have changed over. */
      readonly turn: number;
      /** Table time that was heard at a time of the clock of the device, milliseconds since 1970. */
      readonly heard: { readonly time: number; readonly at: number } | undefined;
    };

const CHANNEL = 'clapboard.board';
/** A window that was opened asks what is shown. */
const ASKED = 'asked';

/** The clock that all windows of a device share, to parts of a millisecond. */
export const deviceNow = (): number => performance.timeOrigin + performance.now();

/** While a run goes it is told at least every second: after so long the other window is gone, and so is its sound. */
const LONGEST_SILENCE = 2.5;

/** Where the mark of a run stands now, by what was told last; it stands still while nothing runs. */
export function timeNow({ state, rate, heard }: Extract<Told, { kind: 'lead' }>, at: number): number | undefined {
  if (!heard) return undefined;
  return state === 'running' ? heard.time + Math.min((at - heard.at) / 1000, LONGEST_SILENCE) * rate : heard.time;
}

/** Tells a second window what this one shows, at every change and when it asks. */
export function useTellSecondWindow(told: Told): void {
  const latest = useRef(told);
  const channel = useRef<BroadcastChannel>(undefined);
  useEffect(() => {
    const opened = new BroadcastChannel(CHANNEL);
    channel.current = opened;
    opened.addEventListener('message', ({ data }: MessageEvent) => {
      if (data === ASKED) opened.postMessage(latest.current);
    });
    return () => {
      channel.current = undefined;
      opened.close();
    };
  }, []);
  useEffect(() => {
    latest.current = told;
    channel.current?.postMessage(told);
  });
}

/** What the teacher's window shows; undefined until it says so. */
export function useTold(): Told | undefined {
  const [told, setTold] = useState<Told>();
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = ({ data }: MessageEvent<Told | typeof ASKED>) => data !== ASKED && setTold(data);
    channel.postMessage(ASKED);
    return () => channel.close();
  }, []);
  return told;
}

/** Opens the window for the class, or brings it back: it is drawn to the projector. */
export function openSecondWindow(): void {
  open('/show', 'clapboard-show', 'popup,width=1280,height=800');
}
