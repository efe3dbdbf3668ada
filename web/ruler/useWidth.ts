import { type RefObject, useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';

/** What fits on a sheet of A4 or Letter with the usual margins, at 96 pixels an inch. */
export const PAPER_WIDTH = 680;

/** The width of an element as it is laid out, in whole pixels; while it is printed that of a sheet of paper. */
export function useWidth(): [RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const here = ref.current;
    if (!here) return undefined;
    let printing = false;
    const measure = () => {
      // Between `beforeprint` and the paper the element is laid out on the screen once more: that is not its width.
      if (!printing) setWidth(Math.floor(here.clientWidth));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(here);
    // A sheet of paper is narrower than the window, and it is laid out before anything here is told of it.
    const onPaper = () => {
      printing = true;
      flushSync(() => setWidth(PAPER_WIDTH));
    };
    const onScreen = () => {
      printing = false;
      measure();
    };
    addEventListener('beforeprint', onPaper);
    addEventListener('afterprint', onScreen);
    return () => {
      observer.disconnect();
      removeEventListener('beforeprint', onPaper);
      removeEventListener('afterprint', onScreen);
    };
  }, []);
  return [ref, width];
}
