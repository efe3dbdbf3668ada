import { useEffect, useState, useSyncExternalStore } from 'react';
import { useRefresh } from './useRefresh.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { onOutboxChange, sendTakes, waitingTakes, wouldBeLost } from './outbox.ts';

const AGAIN_MS = 4_000;

/** The takes of this teacher that the server does not have yet. */
export function useWaitingTakes(teacherId: string | undefined): readonly Waiting[] {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  useEffect(() => {
    let gone = false;
    const read = () =>
      void waitingTakes().then((takes) => !gone && setWaiting(takes.filter((take) => take.teacherId === teacherId)));
    read();
    const off = onOutboxChange(read);
    return () => {
      gone = true;
      off();
    };
  }, [teacherId]);
  return waiting;
}

/** Is there a take that would be lost with this page? */
export function useWouldBeLost(): boolean {
  return useSyncExternalStore(onOutboxChange, wouldBeLost);
}

/** Sends the outbox now, when the network is back, and every few seconds while something waits. */
export function useSendOutbox(
  teacherId: string | undefined,
  ...waiting: readonly (readonly { readonly refused?: unknown }[])[]
): void {
  const refresh = useRefresh();
  const toSend = waiting.flat().filter(({ refused }) => refused === undefined).length;
  useEffect(() => {
    if (!teacherId || toSend === 0) return undefined;
    const send = () => void sendTakes(teacherId).then((all) => all && refresh('/'));
    send();
    const timer = setInterval(send, AGAIN_MS);
    addEventListener('online', send);
    return () => {
      clearInterval(timer);
      removeEventListener('online', send);
    };
    // `refresh` is another function each time, but does the same.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [teacherId, toSend]);
}
