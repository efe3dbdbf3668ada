import { audioContext, awake } from '../audio/context.ts';

/** Call it in answer to a touch: the browser lets the page sound from then on, and the screen stays awake. */
export function prepareSound(): void {
  const context = audioContext();
  if (context) void awake(context);
  void stayAwake();
}

/** Not every browser can. */
async function stayAwake(): Promise<void> {
  const { wakeLock } = navigator as { wakeLock?: { request: (kind: 'screen') => Promise<unknown> } };
  await wakeLock?.request('screen').catch(() => undefined);
}

/** A page that was looked away from lets the screen sleep again. */
export function watchAwake(): () => void {
  const seen = () => {
    if (document.visibilityState === 'visible') void stayAwake();
  };
  document.addEventListener('visibilitychange', seen);
  return () => document.removeEventListener('visibilitychange', seen);
}

/** The whole screen, where the browser gives it; call it in answer to a touch. */
export function fillScreen(): void {
  void document.documentElement.requestFullscreen?.().catch(() => undefined);
}
