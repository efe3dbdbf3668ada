import { useCallback, useEffect, useRef } from 'react';

/** The same function all along that does what the newest one does: for what is set up once and calls back later. */
export function useLatest<A extends readonly unknown[]>(action: (...args: A) => void): (...args: A) => void {
  const newest = useRef(action);
  useEffect(() => {
    newest.current = action;
  });
  return useCallback((...args: A) => newest.current(...args), []);
}
