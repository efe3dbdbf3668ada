import { WHISPER_LEVEL, limit } from '../../core/sound/sounds.ts';
import { CHANNEL_IDS, type Channel } from '../../core/leading/cueSounds.ts';

export interface ChannelLevel {
  /** 0 to 1. */
  readonly level: number;
  readonly muted: boolean;
}
export type Levels = Readonly<Record<Channel, ChannelLevel>>;

/** Starts quiet (rules §10): a class can always ask for more. */
export const USUAL_LEVELS: Levels = {
  click: { level: 0.35, muted: false },
  count: { level: 0.5, muted: false },
  syllables: { level: 0.5, muted: false },
  claps: { level: 0.4, muted: false },
  feet: { level: 0.4, muted: false },
};

/** How loud a channel is, its mute taken into account. */
export function loudness({ level, muted }: ChannelLevel): number {
  return muted ? 0 : level;
}

/** A limiter without delay: a curve that bends what is louder than the knee towards full scale. */
function limiter(context: BaseAudioContext): AudioNode {
  const node = context.createWaveShaper();
  const points = 4097;
  node.curve = Float32Array.from({ length: points }, (_, i) => limit((i / (points - 1)) * 2 - 1));
  return node;
}

/** The channels of a run, through one limiter. */
export class Mixer {
  private readonly gains: Readonly<Record<Channel, GainNode>>;
  private readonly whispers: Readonly<Record<Channel, GainNode>>;

  constructor(
    private readonly context: BaseAudioContext,
    levels: Levels,
  ) {
    const master = limiter(context);
    master.connect(context.destination);
    const gain = (to: AudioNode, value: number) => {
      const node = context.createGain();
      node.gain.value = value;
      node.connect(to);
      return node;
    };
    this.gains = Object.fromEntries(CHANNEL_IDS.map((id) => [id, gain(master, loudness(levels[id]))])) as Record<
      Channel,
      GainNode
    >;
    this.whispers = Object.fromEntries(CHANNEL_IDS.map((id) => [id, gain(this.gains[id], WHISPER_LEVEL)])) as Record<
      Channel,
      GainNode
    >;
  }

  set(levels: Levels): void {
    for (const id of CHANNEL_IDS)
      this.gains[id].gain.setTargetAtTime(loudness(levels[id]), this.context.currentTime, 0.02);
  }

  into(channel: Channel, whispered: boolean): AudioNode {
    return whispered ? this.whispers[channel] : this.gains[channel];
  }
}
