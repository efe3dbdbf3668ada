import { t } from '../../core/words/say.ts';
import { type HeardWord, WordFinder } from '../../core/listening/spokenWord.ts';
import { audioContext, awake } from './context.ts';
import type { CapturedBlock } from './listenMessages.ts';
import { MicrophoneProblem, closeMicrophone, openCapture } from './microphone.ts';

export interface WordListener {
  readonly sampleRate: number;
  /** Waits for a word from here on. */
  readonly ask: () => void;
  /** How loud it is now, dB of full scale. */
  readonly loudness: () => number;
  /** The microphone went away. */
  readonly gone: () => boolean;
  readonly stop: () => void;
}

/** Listens for single words through the microphone. Throws a MicrophoneProblem. */
export async function listenForWords(onHeard: (heard: HeardWord) => void): Promise<WordListener> {
  const context = audioContext();
  if (!context || !(await awake(context)))
    throw new MicrophoneProblem(t`This browser gives the page no sound. Use another one to record your voice.`);
  const { port1, port2 } = new MessageChannel();
  const { isGone, close } = await openCapture(context, port1);
  const finder = new WordFinder(context.sampleRate);
  port2.onmessage = ({ data }: MessageEvent<CapturedBlock>) => {
    const heard = finder.hear(data.samples);
    if (heard) onHeard(heard);
  };
  return {
    sampleRate: context.sampleRate,
    ask: () => finder.ask(),
    loudness: () => finder.loudness,
    gone: isGone,
    stop: () => {
      close();
      port2.close();
      void closeMicrophone();
    },
  };
}
