import { type Struck, clickSamples, synthesise } from '../../core/sound/sounds.ts';
import { audioContext, awake, heardAt } from './context.ts';
import type { BeatTime } from '../../core/timing/pulses.ts';

/** Quiet to start with (rules §10). */
const CLICK_LEVEL = 0.35;
const CLAP_LEVEL = 0.5;

/** Time of a run, in seconds from its own zero, tied to what is heard. */
export interface RunningClock {
  /** The moment that is being heard now. */
  now(): number;
  /** The moment that was heard at an event's `timeStamp`. */
  at(timeStamp: number): number;
  /** The moment that was heard at a time of the audio clock; undefined where there is no sound. */
  readonly atContext?: (contextTime: number) => number;
  /** When a moment's click leaves the page, on the audio clock. */
  readonly contextTime?: (moment: number) => number;
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
 * @param others  when the app itself claps, or makes another sound
 * @param at  when time 0 is to be heard, in milliseconds on the clock of the page's events; what is past by then is
 * left out. Without it the clock begins at once
 */
export async function startClicks(
  beats: readonly BeatTime[],
  others: readonly { readonly time: number; readonly struck: Struck }[] = [],
  at?: number,
): Promise<RunningClock> {
  const first = Math.min(beats[0]?.time ?? 0, others[0]?.time ?? Infinity);
  const context = audioContext();
  if (!context || !(await awake(context))) return silentClock(first, at);
  const zero = at === undefined ? context.currentTime + AHEAD - first : heardAt(context, at);
  const isToCome = ({ time }: { readonly time: number }) => at === undefined || zero + time > context.currentTime;
  const master = context.createGain();
  master.gain.value = CLICK_LEVEL;
  master.connect(context.destination);
  const [strong, weak] = [true, false].map((accent) =>
    bufferOf(context, clickSamples(accent ? 'measure' : 'beat', context.sampleRate)),
  );
  for (const { time, accent } of beats.filter(isToCome)) play(context, accent ? strong! : weak!, master, zero + time);
  const clapped = context.createGain();
  clapped.gain.value = CLAP_LEVEL;
  clapped.connect(context.destination);
  const made = new Map<Struck, AudioBuffer>();
  for (const { time, struck } of others.filter(isToCome)) {
    const sound = made.get(struck) ?? bufferOf(context, synthesise({ kind: struck }, context.sampleRate));
    made.set(struck, sound);
    play(context, sound, clapped, zero + time);
  }
  const heard = (timeStamp: number) => heardAt(context, timeStamp) - zero;
  const late = () => context.outputLatency || 0;
  return {
    now: () => heard(performance.now()),
    at: heard,
    atContext: (time) => time - zero - late(),
    contextTime: (moment) => zero + moment,
    stop: () => {
      master.disconnect();
      clapped.disconnect();
    },
  };
}

function silentClock(first: number, at: number | undefined): RunningClock {
  const zero = at === undefined ? performance.now() / 1000 + AHEAD - first : at / 1000;
  return { now: () => performance.now() / 1000 - zero, at: (timeStamp) => timeStamp / 1000 - zero, stop: () => {} };
}

export function bufferOf(context: BaseAudioContext, samples: Float32Array): AudioBuffer {
  const buffer = context.createBuffer(1, Math.max(1, samples.length), context.sampleRate);
  buffer.copyToChannel(new Float32Array(samples), 0);
  return buffer;
}

/** Gives a sound to the audio clock; a moment that is already past starts at once. */
export function play(
  context: BaseAudioContext,
  buffer: AudioBuffer,
  to: AudioNode,
  time: number,
): AudioBufferSourceNode {
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(to);
  source.start(Math.max(context.currentTime, time));
  return source;
}
