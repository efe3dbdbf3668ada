import { oncePlan } from '../leading/plan.ts';
import { practiceTrack } from '../leading/practiceTrack.ts';
import { timetable } from '../leading/timetable.ts';
import type { Channel } from '../leading/cueSounds.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { Score } from '../rhythm/score.ts';
import { partSound } from '../sound/partSounds.ts';
import { type Struck, limit } from '../sound/sounds.ts';
import { wavFile, wavOfChannels } from '../sound/wav.ts';
import { BadFile } from './piece.ts';

export interface WavOptions {
  /** Counted beats a minute. */
  readonly bpm?: number;
  readonly sound?: 'clap' | 'wood';
}

const USUAL_BPM = 84;
const SAMPLE_RATE = 44_100;
/** The clicks stand behind the claps. */
const LEVELS = { click: 0.5, count: 0, syllables: 0, claps: 1, feet: 0 } as const;

/** A measure of clicks, then a pattern struck once over the clicks of its beats. */
function track(
  pattern: Pattern,
  bpm: number,
  clapAs: Struck,
  levels: Readonly<Record<Channel, number>> = LEVELS,
): Float32Array {
  const made = timetable(pattern, oncePlan(bpm, 'clap'), { school: 'numbers' });
  if (!made.ok) throw new BadFile('the pattern is too long for one recording: choose fewer measures');
  const { cues, seconds } = made.timetable;
  const blocks = [...practiceTrack(cues, { sampleRate: SAMPLE_RATE, seconds, levels, clapAs, words: new Map() })];
  const samples = new Float32Array(blocks.reduce((length, { block }) => length + block.length, 0));
  let at = 0;
  for (const { block } of blocks) {
    samples.set(block, at);
    at += block.length;
  }
  return samples;
}

/** A pattern clapped once over the clicks of its beats, a measure of clicks before it: a mono WAV file. */
export function writeWav(pattern: Pattern, { bpm = USUAL_BPM, sound = 'clap' }: WavOptions = {}): Uint8Array {
  return wavFile(track(pattern, bpm, sound), SAMPLE_RATE);
}

/**
 * A score in stereo, each part with a sound of its own: the first and third on the left, the second and fourth on the
 * right, the clicks in the middle. Who turns one side off claps that part.
 */
export function writeWavScore({ parts }: Score, { bpm = USUAL_BPM }: WavOptions = {}): Uint8Array {
  const only = (channel: Channel) => ({
    click: 0,
    count: 0,
    syllables: 0,
    claps: 0,
    feet: 0,
    [channel]: LEVELS[channel],
  });
  const clicks = track(parts[0]!.pattern, bpm, 'clap', only('click'));
  const sides = [0, 1].map((side) => {
    const mixed = Float32Array.from(clicks);
    parts.forEach(({ name, pattern }, i) => {
      if (i % 2 !== side) return;
      track(pattern, bpm, partSound(name, i).struck, only('claps')).forEach((sample, k) => (mixed[k]! += sample));
    });
    return mixed.map(limit);
  });
  return wavOfChannels(sides, SAMPLE_RATE);
}
