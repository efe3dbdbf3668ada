let shared: AudioContext | undefined;

/** The one sound context of the page; undefined where the browser has none. */
export function audioContext(): AudioContext | undefined {
  try {
    shared ??= new AudioContext({ latencyHint: 'interactive' });
    return shared;
  } catch {
    return undefined;
  }
}

/** Wakes the context; call it in answer to a key or a touch, else the browser keeps it silent. */
export async function awake(context: AudioContext): Promise<boolean> {
  if (context.state !== 'running') await Promise.race([context.resume(), new Promise((done) => setTimeout(done, 700))]);
  return (context.state as string) === 'running';
}

/** The moment on the audio clock that was heard at an event's `timeStamp`, output latency taken into account. */
export function heardAt(context: AudioContext, timeStamp: number): number {
  const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp();
  // A context that has only just started has no such pair yet.
  if (performanceTime <= 0)
    return context.currentTime - (context.outputLatency || 0) - (performance.now() - timeStamp) / 1000;
  return contextTime + (timeStamp - performanceTime) / 1000;
}
