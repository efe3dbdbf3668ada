import type { Beat } from '../../core/leading/countIn.ts';

/** Click sounds: short tones, quiet to start with (handbook §10); the first beat of a measure is higher. */
const CLICK = { accentHz: 1568, beatHz: 1046, seconds: 0.05, level: 0.35 } as const;

let shared: AudioContext | undefined;

function audio(): AudioContext | undefined {
  try {
    shared ??= new AudioContext({ latencyHint: 'interactive' });
    return shared;
  } catch {
    return undefined;
  }
}

/** Time of a run, in seconds from its own zero, tied to what is heard. */
export interface RunningClock {
  /** The moment that is being heard now. */
  now(): number;
  /** The moment that was heard at an event's `timeStamp`. */
  at(timeStamp: number): number;
  /** Silences what is still to come. */
  stop(): void;
}

/** Waits before the first click, so that the first one is whole. */
const AHEAD = 0.2;

/**
 * Starts the clicks of a run; call it in answer to a key or a touch, else the browser keeps silent.
 * Every click is given to the audio clock beforehand, so nothing the page does can move one. Without sound the
 * clock runs on silently.
 * @param beats  times in seconds; the clock starts a moment before the first
 */
export async function startClicks(beats: readonly Beat[]): Promise<RunningClock> {
  const first = beats[0]?.time ?? 0;
  const context = audio();
  const running = context && (await resumed(context));
  if (!context || !running) return silentClock(first);
  const zero = context.currentTime + AHEAD - first;
  const master = context.createGain();
  master.gain.value = CLICK.level;
  master.connect(context.destination);
  for (const { time, accent } of beats) click(context, master, zero + time, accent);
  const heard = (timeStamp: number) => {
    const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp();
    // A context that has only just started has no such pair yet.
    if (performanceTime <= 0) return context.currentTime - (context.outputLatency || 0) - (performance.now() - timeStamp) / 1000;
    return contextTime + (timeStamp - performanceTime) / 1000;
  };
  return { now: () => heard(performance.now()) - zero, at: (timeStamp) => heard(timeStamp) - zero, stop: () => master.disconnect() };
}

async function resumed(context: AudioContext): Promise<boolean> {
  if (context.state !== 'running') await Promise.race([context.resume(), new Promise((done) => setTimeout(done, 700))]);
  return (context.state as string) === 'running';
}

function silentClock(first: number): RunningClock {
  const zero = performance.now() / 1000 + AHEAD - first;
  return { now: () => performance.now() / 1000 - zero, at: (timeStamp) => timeStamp / 1000 - zero, stop: () => {} };
}

function click(context: AudioContext, to: AudioNode, time: number, accent: boolean): void {
  const tone = context.createOscillator();
  const gain = context.createGain();
  tone.frequency.value = accent ? CLICK.accentHz : CLICK.beatHz;
  gain.gain.setValueAtTime(0, time);
  gain.gain.linearRampToValueAtTime(1, time + 0.001);
  gain.gain.exponentialRampToValueAtTime(0.001, time + CLICK.seconds);
  tone.connect(gain).connect(to);
  tone.start(time);
  tone.stop(time + CLICK.seconds + 0.01);
}
