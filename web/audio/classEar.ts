import { t } from '../../core/words/say.ts';
import type { ClassPass, TogetherAnswer, TogetherRequest } from './togetherMessages.ts';
import { audioContext, awake } from './context.ts';
import { MicrophoneProblem, openCapture } from './microphone.ts';

/** Hears a class pass by pass. Nothing of its sound is kept. */
export interface ClassEar {
  /** A pass begins; times as they leave the page, on the audio clock. */
  readonly begin: (pass: ClassPass) => void;
  /** Asks how it was up to now; with `last` it is over. */
  readonly look: (id: string, last: boolean) => void;
  /** What was begun is not looked at any more. */
  readonly forget: (id: string) => void;
  /** The microphone went away: pulled out, taken by another program, asleep. */
  readonly gone: () => boolean;
  readonly stop: () => void;
}

const worker = () => new Worker(new URL('../workers/together.worker.ts', import.meta.url), { type: 'module' });

/** Opens the microphone for a class. Throws a MicrophoneProblem. */
export async function openClassEar(told: (answer: TogetherAnswer) => void): Promise<ClassEar> {
  const context = audioContext();
  if (!context || !(await awake(context))) throw new MicrophoneProblem(t`This browser gives the page no sound.`);
  const channel = new MessageChannel();
  const { late, isGone, close } = await openCapture(context, channel.port1);
  const hears = worker();
  const ask = (request: TogetherRequest, transfer: Transferable[] = []) => hears.postMessage(request, transfer);
  hears.addEventListener('message', ({ data }: MessageEvent<TogetherAnswer>) => told(data));
  ask({ kind: 'listen', port: channel.port2, sampleRate: context.sampleRate }, [channel.port2]);
  return {
    begin: ({ start, clicks, ...pass }) => {
      const way = late + (context.outputLatency || 0);
      const times = clicks.times.map((time) => time + way);
      ask({ kind: 'pass', pass: { ...pass, start: start + way, clicks: { ...clicks, times } } });
    },
    look: (id, last) => ask({ kind: 'look', id, last }),
    forget: (id) => ask({ kind: 'forget', id }),
    gone: isGone,
    stop: () => {
      close();
      hears.terminate();
    },
  };
}
