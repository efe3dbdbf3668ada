import { t } from '../../core/words/say.ts';
import type { PlayedClicks } from '../../core/listening/playedClicks.ts';
import type { Seconds } from '../../core/timing/units.ts';
import type { ListenAnswer, ListenRequest, Outline } from './listenMessages.ts';
import { audioContext, awake } from './context.ts';
import { deadAir } from './deadAir.ts';
import captureUrl from './capture.worklet.ts?worker&url';
import { listenWorker } from './recordings.ts';

/** Why there is no microphone, in words that say what to do. */
export class MicrophoneProblem extends Error {}

/** Echo cancelling, noise suppression and gain control take claps for noise: the raw microphone is needed. */
const RAW: MediaTrackConstraints = {
  echoCancellation: false,
  noiseSuppression: false,
  autoGainControl: false,
  channelCount: 1,
};

function problemOf(error: unknown): MicrophoneProblem {
  const name = (error as { name?: string }).name;
  if (name === 'NotAllowedError' || name === 'SecurityError')
    return new MicrophoneProblem(
      t`The browser may not use the microphone. Allow it at the left of the address, or tap instead.`,
    );
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return new MicrophoneProblem(t`No microphone was found. Plug one in, or tap instead.`);
  if (name === 'NotReadableError')
    return new MicrophoneProblem(t`Another program holds the microphone. Close it, or tap instead.`);
  return new MicrophoneProblem(t`The microphone cannot be used in this browser. Tap instead.`);
}

let opened: Promise<MediaStream> | undefined;

/** Asks for the microphone; the browser asks the teacher the first time. Throws a MicrophoneProblem. */
export async function openMicrophone(): Promise<MediaStream> {
  const devices = (navigator as { mediaDevices?: MediaDevices }).mediaDevices;
  if (!devices)
    throw new MicrophoneProblem(t`A microphone needs a page that came over https, or from this machine. Tap instead.`);
  opened ??= devices.getUserMedia({ audio: RAW, video: false }).then(
    (stream) => {
      // Pulled out: the next time it is asked for anew.
      for (const track of stream.getTracks()) track.addEventListener('ended', () => (opened = undefined));
      return stream;
    },
    (error: unknown) => {
      opened = undefined;
      throw problemOf(error);
    },
  );
  return opened;
}

/** Lets go of the microphone: its light goes out. */
export async function closeMicrophone(): Promise<void> {
  const stream = await opened?.catch(() => undefined);
  opened = undefined;
  stream?.getTracks().forEach((track) => track.stop());
}

/** All that was heard, when it is over. */
export interface HeardLive {
  readonly onsets: readonly Seconds[];
  readonly outline: Outline;
  /** The sound itself, where it is to be kept. */
  readonly sound?: Blob;
}

/**
 * Listening that goes on; it owns what was heard. All times are of the audio clock, the delay of the input taken off as
 * far as the browser knows it.
 */
export interface LiveListener {
  /** Everything heard so far. */
  readonly onsets: () => readonly Seconds[];
  /** Loudest sample of the last moments, 0 to 1. */
  readonly level: () => number;
  /** The microphone went away: pulled out, taken by another program, asleep. */
  readonly gone: () => boolean;
  readonly finish: () => Promise<HeardLive>;
  readonly stop: () => void;
}

const NO_CLICKS: PlayedClicks = { times: [], countIn: 0 };

const loaded = new WeakSet<AudioContext>();
/** Of the way from the microphone into the page, where the browser does not say: two buffers of sound. */
const USUAL_INPUT_SECONDS: Seconds = 0.01;

async function loadCapture(context: AudioContext): Promise<void> {
  if (loaded.has(context)) return;
  await context.audioWorklet.addModule(captureUrl);
  loaded.add(context);
}

/** Opens the microphone, so that it hears from the first click on. Throws a MicrophoneProblem. */
export async function readyToListen(): Promise<void> {
  await openMicrophone();
  const context = audioContext();
  if (context) await loadCapture(context);
}

interface Capture {
  readonly late: Seconds;
  readonly isGone: () => boolean;
  readonly close: () => void;
}

/** The microphone, its samples on their way to a port. */
export async function openCapture(context: AudioContext, port: MessagePort): Promise<Capture> {
  const stream = await openMicrophone();
  await loadCapture(context);
  const [track] = stream.getAudioTracks();
  const settings = track?.getSettings() as { latency?: number } | undefined;
  const source = context.createMediaStreamSource(stream);
  const node = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
  node.port.postMessage(port, [port]);
  source.connect(node);
  return {
    late: settings?.latency ?? USUAL_INPUT_SECONDS,
    isGone: () => !track || track.readyState === 'ended' || track.muted,
    close: () => source.disconnect(),
  };
}

/**
 * Listens through the microphone: sound thread → worker; the page only hears of the onsets.
 * @param clicks  when the app's own clicks leave the page, on the audio clock: they are not taken for claps
 */
export async function listenLive(clicks = NO_CLICKS, keep = false): Promise<LiveListener> {
  const context = audioContext();
  if (!context || !(await awake(context)))
    throw new MicrophoneProblem(t`This browser gives the page no sound. Tap instead.`);
  const channel = new MessageChannel();
  const { late, isGone, close } = await openCapture(context, channel.port1);
  const worker = listenWorker();
  const ask = (request: ListenRequest, transfer: Transferable[] = []) => worker.postMessage(request, transfer);
  const way = late + (context.outputLatency || 0);
  const heardClicks = { ...clicks, times: clicks.times.map((click) => click + way) };
  const { sampleRate } = context;
  ask({ kind: 'live', port: channel.port2, sampleRate, clicks: heardClicks, keep }, [channel.port2]);

  const heard: Seconds[] = [];
  let level = 0;
  let dead = false;
  const isDead = deadAir();
  let finished: ((last: Extract<ListenAnswer, { kind: 'finished' }>) => void) | undefined;
  worker.addEventListener('message', ({ data }: MessageEvent<ListenAnswer>) => {
    if (data.kind === 'progress') return;
    heard.push(...data.onsets.map((onset) => onset - late));
    if (data.kind === 'heard') {
      level = Math.max(data.level, level * 0.9);
      dead = isDead(data.level, data.seconds);
    }
    if (data.kind === 'finished') finished?.(data);
  });
  const stop = () => {
    close();
    worker.terminate();
  };
  const finish = async (): Promise<HeardLive> => {
    close();
    const { outline, sound } = await new Promise<Extract<ListenAnswer, { kind: 'finished' }>>((resolve) => {
      finished = resolve;
      ask({ kind: 'finish' });
    });
    stop();
    return { onsets: heard, outline: { ...outline, from: outline.from - late }, ...(sound ? { sound } : {}) };
  };
  return { onsets: () => heard, level: () => level, gone: () => dead || isGone(), stop, finish };
}
