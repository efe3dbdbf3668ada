import { useEffect } from 'react';

/** While `asking`, the browser asks before it reloads or closes the page. */
export function useAskBeforeLeaving(asking: boolean): void {
  useEffect(() => {
    if (!asking) return undefined;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [asking]);
}
