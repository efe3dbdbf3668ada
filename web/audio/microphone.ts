import type { ListenAnswer, ListenRequest, Outline } from '../workers/listen.worker.ts';
import { audioContext, awake } from './context.ts';
import captureUrl from './capture.worklet.ts?worker&url';

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
      'The browser may not use the microphone. Allow it at the left of the address, or tap instead.',
    );
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return new MicrophoneProblem('No microphone was found. Plug one in, or tap instead.');
  if (name === 'NotReadableError')
    return new MicrophoneProblem('Another program holds the microphone. Close it, or tap instead.');
  return new MicrophoneProblem('The microphone cannot be used in this browser. Tap instead.');
}

let opened: Promise<MediaStream> | undefined;

/** Asks for the microphone; the browser asks the teacher the first time. Throws a MicrophoneProblem. */
export async function openMicrophone(): Promise<MediaStream> {
  const devices = (navigator as { mediaDevices?: MediaDevices }).mediaDevices;
  if (!devices)
    throw new MicrophoneProblem('A microphone needs a page that came over https, or from this machine. Tap instead.');
  opened ??= devices.getUserMedia({ audio: RAW, video: false }).catch((error: unknown) => {
    opened = undefined;
    throw problemOf(error);
  });
  return opened;
}

/** Lets go of the microphone: its light goes out. */
export async function closeMicrophone(): Promise<void> {
  const stream = await opened?.catch(() => undefined);
  opened = undefined;
  stream?.getTracks().forEach((track) => track.stop());
}

/** Listening that goes on. All times are of the audio clock, the delay of the input taken off as far as the browser knows it. */
export interface LiveListener {
  /** Everything heard so far. */
  readonly onsets: () => readonly number[];
  /** Loudest sample of the last moments, 0 to 1. */
  readonly level: () => number;
  /** Ends it; the outline of the sound, and the sound itself where it is to be kept. */
  readonly finish: () => Promise<{
    readonly onsets: readonly number[];
    readonly outline: Outline;
    readonly sound?: Blob;
  }>;
  readonly stop: () => void;
}

const loaded = new WeakSet<AudioContext>();
/** Of the way from the microphone into the page, where the browser does not say: two buffers of sound. */
const USUAL_INPUT_SECONDS = 0.01;

/**
 * Listens through the microphone: sound thread → worker; the page only hears of the onsets.
 * @param clicks  when the app's own clicks leave the loudspeaker, on the audio clock
 */
export async function listenLive(clicks: readonly number[] = [], keep = false): Promise<LiveListener> {
  const context = audioContext();
  if (!context || !(await awake(context)))
    throw new MicrophoneProblem('This browser gives the page no sound. Tap instead.');
  const stream = await openMicrophone();
  if (!loaded.has(context)) {
    await context.audioWorklet.addModule(captureUrl);
    loaded.add(context);
  }
  const settings = stream.getAudioTracks()[0]?.getSettings() as { latency?: number } | undefined;
  const late = settings?.latency ?? USUAL_INPUT_SECONDS;
  const source = context.createMediaStreamSource(stream);
  const node = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
  const worker = new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' });
  const channel = new MessageChannel();
  const heard: number[] = [];
  let level = 0;
  let finished: ((answer: Extract<ListenAnswer, { kind: 'finished' }>) => void) | undefined;
  worker.addEventListener('message', ({ data }: MessageEvent<ListenAnswer>) => {
    if (data.kind === 'heard') {
      heard.push(...data.onsets.map((onset) => onset - late));
      level = Math.max(data.level, level * 0.9);
    } else if (data.kind === 'finished') finished?.(data);
  });
  const ask = (request: ListenRequest, transfer: Transferable[] = []) => worker.postMessage(request, transfer);
  ask(
    {
      kind: 'live',
      port: channel.port2,
      sampleRate: context.sampleRate,
      clicks: clicks.map((click) => click + late + (context.outputLatency || 0)),
      keep,
    },
    [channel.port2],
  );
  node.port.postMessage(channel.port1, [channel.port1]);
  source.connect(node);
  const stop = () => {
    source.disconnect();
    worker.terminate();
  };
  return {
    onsets: () => heard,
    level: () => level,
    stop,
    finish: async () => {
      source.disconnect();
      const answer = await new Promise<Extract<ListenAnswer, { kind: 'finished' }>>((resolve) => {
        finished = resolve;
        ask({ kind: 'finish' });
      });
      stop();
      const { outline, onsets, sound } = answer;
      return {
        onsets: onsets.map((onset) => onset - late),
        outline: { ...outline, from: outline.from - late },
        ...(sound ? { sound } : {}),
      };
    },
  };
}

/** Rate at which recordings are listened to. */
const RECORDING_RATE = 44_100;
const LARGEST_BYTES = 200 * 2 ** 20;
const LONGEST_SECONDS = 15 * 60;

export interface HeardRecording {
  readonly onsets: readonly number[];
  readonly outline: Outline;
  readonly seconds: number;
}

/** Listens to a sound file of any kind the browser reads. Throws an Error that says what is wrong with it. */
export async function listenToFile(
  file: File,
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<HeardRecording> {
  if (file.size > LARGEST_BYTES) throw new Error('larger than 200 MB; cut it into shorter recordings');
  const bytes = await file.arrayBuffer();
  const buffer = await new OfflineAudioContext(1, 1, RECORDING_RATE).decodeAudioData(bytes).catch(() => {
    throw new Error('not a sound file this browser can read; try WAV, MP3, M4A, OGG or WebM');
  });
  if (buffer.duration > LONGEST_SECONDS) throw new Error('longer than 15 minutes; cut it into shorter recordings');
  const samples = buffer.getChannelData(0).slice();
  for (let channel = 1; channel < buffer.numberOfChannels; channel++)
    buffer.getChannelData(channel).forEach((sample, i) => (samples[i]! += sample));
  if (signal.aborted) throw new Error('stopped');
  const worker = new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await new Promise<HeardRecording>((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('stopped')));
      worker.addEventListener('error', () =>
        reject(new Error('could not be listened to; reload the page and try again')),
      );
      worker.addEventListener('message', ({ data }: MessageEvent<ListenAnswer>) => {
        if (data.kind === 'progress') onProgress(data.done);
        if (data.kind === 'finished') resolve({ onsets: data.onsets, outline: data.outline, seconds: buffer.duration });
      });
      const request: ListenRequest = { kind: 'recording', samples, sampleRate: buffer.sampleRate };
      worker.postMessage(request, [samples.buffer]);
    });
  } finally {
    worker.terminate();
  }
}
