import { useEffect } from 'react';
import type { RoomProblem } from './roomApi.ts';

const AGAIN_MS = 1_500;

/**
 * Tells the room once that this device can begin a round.
 * @param say  tells it; what does not arrive is said again
 */
export function useReadied(
  round: number | undefined,
  isReady: boolean,
  say: (round: number) => Promise<unknown>,
): void {
  useEffect(() => {
    if (round === undefined || !isReady) return undefined;
    let timer: ReturnType<typeof setTimeout>;
    let over = false;
    const tell = () => {
      say(round).catch((problem: RoomProblem) => {
        if (!over && problem.passes) timer = setTimeout(tell, AGAIN_MS);
      });
    };
    tell();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [round, isReady, say]);
}
