import { type Beat } from '../../core/leading/countIn.ts';
import { clickSamples, synthesise } from '../../core/leading/sounds.ts';
import { bufferOf, play } from './clickClock.ts';
import { audioContext, awake } from './context.ts';

const LEVELS = { click: 0.25, clap: 0.5 };

/**
 * Plays a take as claps against the click it was played to. @returns what silences it and when it is over in milliseconds;
 * undefined where there is no sound
 */
export async function playTake(onsets: readonly number[], beats: readonly Beat[]): Promise<{ stop: () => void; ms: number } | undefined> {
  const context = audioContext();
  if (!context || !(await awake(context))) return undefined;
  const first = Math.min(onsets[0] ?? Infinity, beats[0]?.time ?? Infinity, 0);
  const zero = context.currentTime + 0.15 - first;
  const channel = (level: number) => {
    const gain = context.createGain();
    gain.gain.value = level;
    gain.connect(context.destination);
    return gain;
  };
  const [click, clap] = [channel(LEVELS.click), channel(LEVELS.clap)];
  const [strong, weak] = [bufferOf(context, clickSamples('measure', context.sampleRate)), bufferOf(context, clickSamples('beat', context.sampleRate))];
  const hands = bufferOf(context, synthesise({ kind: 'clap' }, context.sampleRate));
  for (const { time, accent } of beats) play(context, accent ? strong : weak, click, zero + time);
  for (const time of onsets) play(context, hands, clap, zero + time);
  const last = Math.max(onsets.at(-1) ?? 0, beats.at(-1)?.time ?? 0);
  return {
    stop: () => {
      click.disconnect();
      clap.disconnect();
    },
    ms: (last - first + 0.5) * 1000,
  };
}
