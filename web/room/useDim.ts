import { useEffect, useState } from 'react';

/** Left alone for so long a device dims, milliseconds. */
export const DIM_AFTER_MS = 90_000;

/**
 * Whether the device is left alone: neither touched nor told anything new for a while.
 * @param news  another word with whatever is new
 */
export function useDim(news: string): boolean {
  const [isDim, setDim] = useState(false);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const wake = () => {
      clearTimeout(timer);
      setDim(false);
      timer = setTimeout(() => setDim(true), DIM_AFTER_MS);
    };
    wake();
    const touches = ['pointerdown', 'keydown'] as const;
    for (const touch of touches) addEventListener(touch, wake);
    return () => {
      clearTimeout(timer);
      for (const touch of touches) removeEventListener(touch, wake);
    };
  }, [news]);
  return isDim;
}
