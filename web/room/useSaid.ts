import { useEffect, useRef, useState } from 'react';
import type { RoomProblem } from './roomApi.ts';

const AGAIN_MS = 1_500;

/** Says something to the room until it has arrived; what is said later takes the place of what was said before. */
export function useSaid() {
  const [trouble, setTrouble] = useState<string>();
  const turn = useRef(0);
  useEffect(() => () => void turn.current++, []);
  const say = (send: () => Promise<unknown>) => {
    const own = ++turn.current;
    const trying = () => {
      if (own !== turn.current) return;
      send().then(
        () => own === turn.current && setTrouble(undefined),
        (problem: RoomProblem) => {
          if (own !== turn.current) return;
          setTrouble(problem.message);
          if (problem.passes) setTimeout(trying, AGAIN_MS);
        },
      );
    };
    trying();
  };
  return { say, trouble };
}
