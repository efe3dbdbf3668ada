import type { CapturedBlock } from './listenMessages.ts';

/** Runs in the sound thread: gathers what the microphone hears and hands it straight to a worker, past the page. */
declare const currentTime: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples handed over at once: some eleven milliseconds, little beside the sixty in which an onset is to be known. */
const BLOCK = 512;

class Capture extends AudioWorkletProcessor {
  private target: MessagePort | undefined;
  private block = new Float32Array(BLOCK);
  private filled = 0;
  private time = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<MessagePort>) => {
      this.target = data;
    };
  }

  process([input]: Float32Array[][]): boolean {
    const [channel] = input ?? [];
    if (!channel || !this.target) return true;
    for (let i = 0; i < channel.length; i++) {
      if (this.filled === 0) this.time = currentTime + i / sampleRate;
      this.block[this.filled++] = channel[i]!;
      if (this.filled === BLOCK) {
        const message: CapturedBlock = { samples: this.block, time: this.time };
        this.target.postMessage(message, [this.block.buffer]);
        this.block = new Float32Array(BLOCK);
        this.filled = 0;
      }
    }
    return true;
  }
}

registerProcessor('capture', Capture);
