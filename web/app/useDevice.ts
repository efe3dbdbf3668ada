import { useEffect, useState, useSyncExternalStore } from 'react';
import { useSWRConfig } from 'swr';
import { later } from '../ui/later.ts';
import { answered, isInstalled, onNetwork, whenGone } from '../api/network.ts';

const WARM_AFTER_MS = 2_000;
const ASK_MS = 3_000;

/** Puts the app and what it works with onto the device. @returns loads a newer version, where one waits */
export function useInstalled(teacherId: string): (() => void) | undefined {
  const [newer, setNewer] = useState<() => void>();
  useEffect(() => {
    if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return undefined;
    void import('./installed.ts')
      .then(({ install }) => install((load) => setNewer(() => load)))
      // A browser that keeps no app works with a network, as before.
      .catch(() => undefined);
    const warm = () => void import('./warm.ts').then(({ warmUp }) => warmUp(teacherId)).catch(() => undefined);
    const container = navigator.serviceWorker;
    if (isInstalled()) return later(warm, WARM_AFTER_MS);
    // At the first visit the app is on the device when all its files are.
    container.addEventListener('controllerchange', warm, { once: true });
    return () => container.removeEventListener('controllerchange', warm);
  }, [teacherId]);
  return newer;
}

/**
 * Since when the server cannot be reached, on a device that works without; undefined while it answers. When it is back
 * all that is shown is fetched again.
 */
export function useAwaySince(): number | undefined {
  const { mutate } = useSWRConfig();
  const since = useSyncExternalStore(onNetwork, whenGone);
  const away = since !== undefined && isInstalled();
  useEffect(() => {
    if (!away) return undefined;
    const ask = async () => {
      const response = await fetch('/healthz', { cache: 'no-store' }).catch(() => undefined);
      if (!response?.ok) return;
      answered(true);
      await mutate(() => true);
    };
    const timer = setInterval(() => void ask(), ASK_MS);
    return () => clearInterval(timer);
  }, [away, mutate]);
  return away ? since : undefined;
}
