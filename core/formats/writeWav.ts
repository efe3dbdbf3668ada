import type { Plan } from '../leading/plan.ts';
import { practiceTrack } from '../leading/practiceTrack.ts';
import { timetable } from '../leading/timetable.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { wavFile } from '../sound/wav.ts';
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

const planAt = (bpm: number): Plan => ({
  title: '',
  passes: [{ activity: 'clap', who: 'together' }],
  chunks: { kind: 'whole' },
  ladder: [{ bpm, passes: 1 }],
  restBeats: 0,
  countIn: 'measure',
  countInEach: true,
  divided: false,
  twoLines: false,
});

/** A pattern clapped once over the clicks of its beats, a measure of clicks before it: a mono WAV file. */
export function writeWav(pattern: Pattern, { bpm = USUAL_BPM, sound = 'clap' }: WavOptions = {}): Uint8Array {
  const made = timetable(pattern, planAt(bpm), { school: 'numbers' });
  if (!made.ok) throw new BadFile('the pattern is too long for one recording: choose fewer measures');
  const { cues, seconds } = made.timetable;
  const blocks = [
    ...practiceTrack(cues, { sampleRate: SAMPLE_RATE, seconds, levels: LEVELS, clapAs: sound, words: new Map() }),
  ];
  const samples = new Float32Array(blocks.reduce((length, { block }) => length + block.length, 0));
  let at = 0;
  for (const { block } of blocks) {
    samples.set(block, at);
    at += block.length;
  }
  return wavFile(samples, SAMPLE_RATE);
}
