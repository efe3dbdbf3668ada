/** So long after it was opened a page may be exchanged, where nobody has touched it. */
const JUST_OPENED_MS = 10_000;

const isUntouched = () => performance.now() < JUST_OPENED_MS && !navigator.userActivation?.hasBeenActive;

/**
 * Puts the app onto the device. A new version that waits takes over at once where the page has just been opened and
 * nothing was done in it; else only when the teacher says so, for a take may be running.
 * @param onNewer  a newer version is there; calling what it is given loads it
 */
export async function install(onNewer: (load: () => void) => void): Promise<void> {
  const registration = await navigator.serviceWorker.register('/sw.js');
  document.head.append(
    Object.assign(document.createElement('link'), { rel: 'manifest', href: '/manifest.webmanifest' }),
  );
  const offer = (atOnce: boolean) => {
    const { waiting } = registration;
    // The first version has nothing to take over from.
    if (!waiting || !navigator.serviceWorker.controller) return;
    const load = () => {
      navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
      waiting.postMessage({ type: 'SKIP_WAITING' });
    };
    if (atOnce) load();
    else onNewer(load);
  };
  offer(isUntouched());
  registration.addEventListener('updatefound', () => {
    registration.installing?.addEventListener('statechange', () => offer(false));
  });
}
