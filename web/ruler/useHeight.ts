import { type RefObject, useEffect, useState } from 'react';

/** The height of an element as it is laid out, in whole pixels; 0 until it is known, and where nobody asks. */
export function useHeight(ref: RefObject<HTMLElement | null>, wanted: boolean): number {
  const [height, setHeight] = useState(0);
  useEffect(() => {
    const here = ref.current;
    if (!here || !wanted) return undefined;
    const measure = () => setHeight(Math.floor(here.clientHeight));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(here);
    return () => observer.disconnect();
  }, [ref, wanted]);
  return height;
}
