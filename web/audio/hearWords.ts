import { overTheClick } from '../../core/leading/voiceWords.ts';
import type { Bpm } from '../../core/timing/units.ts';
import { audioContext, awake, heardAt } from './context.ts';
import { schedule } from './leadPlayer.ts';
import { Mixer, USUAL_LEVELS } from './mixer.ts';
import { SoundBank } from './soundBank.ts';
import type { OwnWords } from './voiceSound.ts';

const SOON = 0.15;
const LOOK_MS = 40;

/**
 * Says words over the click, one a beat.
 * @param told  which of them sounds, from 0; undefined when all is over
 * @returns what silences it
 */
export async function hearWords(
  words: readonly string[],
  spoken: OwnWords,
  bpm: Bpm,
  told: (index: number | undefined) => void,
): Promise<() => void> {
  const context = audioContext();
  if (!context || !(await awake(context))) return () => undefined;
  const cues = overTheClick(words, bpm);
  const bank = new SoundBank(context, spoken);
  await bank.prepare(cues, 'clap');
  const from = context.currentTime + SOON;
  const sources = schedule(context, bank, new Mixer(context, USUAL_LEVELS), cues, 'clap', ({ time }) => from + time);
  const said = cues.filter(({ kind }) => kind === 'syllable').map(({ time }) => from + time);
  let shown = -1;
  const timer = setInterval(() => {
    const now = heardAt(context, performance.now());
    const index = said.findLastIndex((time) => time <= now);
    if (now >= from + cues.at(-1)!.time + 60 / bpm) {
      stop();
      told(undefined);
    } else if (index !== shown) {
      shown = index;
      told(index);
    }
  }, LOOK_MS);
  const stop = () => {
    clearInterval(timer);
    for (const { source } of sources) source.stop();
  };
  return stop;
}
