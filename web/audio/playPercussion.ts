import { type Struck, clickSamples, synthesise } from '../../core/sound/sounds.ts';
import { bufferOf, play } from './clickClock.ts';
import { audioContext, awake } from './context.ts';
import type { BeatTime } from '../../core/timing/pulses.ts';

const LEVELS = { click: 0.25, clap: 0.5 };

/** Something struck at a moment, in seconds. */
export interface PercussionHit {
  readonly time: number;
  readonly sound: Struck;
}

/**
 * Plays claps, with the click they belong to where there is one. @returns what silences it and when it is over in
 * milliseconds; undefined where there is no sound
 */
export async function playPercussion(
  strikes: readonly PercussionHit[],
  beats: readonly BeatTime[] = [],
): Promise<{ stop: () => void; ms: number } | undefined> {
  const context = audioContext();
  if (!context || !(await awake(context))) return undefined;
  const first = Math.min(strikes[0]?.time ?? Infinity, beats[0]?.time ?? Infinity, 0);
  const zero = context.currentTime + 0.15 - first;
  const channel = (level: number) => {
    const gain = context.createGain();
    gain.gain.value = level;
    gain.connect(context.destination);
    return gain;
  };
  const [click, clap] = [channel(LEVELS.click), channel(LEVELS.clap)];
  const [strong, weak] = [
    bufferOf(context, clickSamples('measure', context.sampleRate)),
    bufferOf(context, clickSamples('beat', context.sampleRate)),
  ];
  const buffers = new Map(
    [...new Set(strikes.map(({ sound }) => sound))].map((kind) => [
      kind,
      bufferOf(context, synthesise({ kind }, context.sampleRate)),
    ]),
  );
  for (const { time, accent } of beats) play(context, accent ? strong : weak, click, zero + time);
  for (const { time, sound } of strikes) play(context, buffers.get(sound)!, clap, zero + time);
  const last = Math.max(strikes.at(-1)?.time ?? 0, beats.at(-1)?.time ?? 0);
  return {
    stop: () => {
      click.disconnect();
      clap.disconnect();
    },
    ms: (last - first + 0.5) * 1000,
  };
}
