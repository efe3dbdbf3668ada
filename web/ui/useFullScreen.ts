import { useCallback, useRef } from 'react';

/** An element alone on the screen, and back. */
export function useFullScreen() {
  const element = useRef<HTMLDivElement>(null);
  const toggle = useCallback(
    () => void (document.fullscreenElement ? document.exitFullscreen() : element.current?.requestFullscreen()),
    [],
  );
  return { element, toggle };
}
