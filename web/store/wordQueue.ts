import type { VoiceWord } from '../../contract/voice.ts';
import { MOST_SENT } from '../../core/listening/voiceFacts.ts';
import { allIn, putInto, takeFrom } from './deviceBox.ts';

/** What a queue needs of its surroundings; in tests all of it is made up. */
export interface QueueDevices {
  readonly send: (words: readonly VoiceWord[]) => Promise<unknown>;
  /** Told when the server has them. */
  readonly stored: (words: readonly VoiceWord[]) => Promise<unknown>;
  readonly later: (action: () => void, ms: number) => void;
}

/** What the page shows of it. */
export interface QueueMoment {
  readonly waiting: readonly VoiceWord[];
  readonly problem: Error | undefined;
}

const AGAIN_MS = 5_000;

/** Sent again it would be refused again. */
const isRefused = (problem: unknown) => (problem as { worthRetrying?: boolean }).worthRetrying !== true;

/** Words in which each of some stands in the place of what was said before. */
export function replaced(words: readonly VoiceWord[], by: readonly VoiceWord[]): VoiceWord[] {
  return [...words.filter(({ word }) => !by.some((one) => one.word === word)), ...by];
}

/**
 * Words of a teacher's voice on their way to the server: on this device as soon as they are said, through a reload too,
 * and sent some at a time. What the server refuses stays, and is sent with the next word or the next visit.
 */
export class WordQueue {
  private shown: QueueMoment = { waiting: [], problem: undefined };
  private readonly listeners = new Set<() => void>();
  private sending: Promise<void> | undefined;
  private isOpen = false;

  constructor(
    private readonly teacherId: string,
    private readonly devices: QueueDevices,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly moment = (): QueueMoment => this.shown;

  readonly open = (): (() => void) => {
    this.isOpen = true;
    void this.send();
    return () => {
      this.isOpen = false;
    };
  };

  readonly keep = async (words: readonly VoiceWord[]): Promise<void> => {
    this.show({ ...this.shown, waiting: replaced(this.shown.waiting, words) });
    for (const word of words) await putInto('words', { id: this.idOf(word.word), teacherId: this.teacherId, word });
    await this.send();
  };

  /** Takes back words that wait; all of them where none is named. */
  readonly drop = async (word?: string): Promise<void> => {
    await this.sending;
    for (const one of await this.kept()) if (word === undefined || one.word === word) await this.take(one.word);
    this.show({ waiting: await this.kept(), problem: undefined });
  };

  /** One sending at a time: what comes meanwhile goes with it. */
  private async send(): Promise<void> {
    this.sending ??= this.sent().finally(() => (this.sending = undefined));
    await this.sending;
  }

  private async sent(): Promise<void> {
    try {
      for (let words = await this.kept(); words.length > 0; words = await this.kept()) {
        const some = words.slice(0, MOST_SENT);
        await this.devices.send(some);
        // Said again meanwhile, it is another that waits.
        for (const one of await this.kept())
          if (some.some(({ word, sound }) => word === one.word && sound === one.sound)) await this.take(one.word);
        await this.devices.stored(some);
      }
      this.show({ waiting: [], problem: undefined });
    } catch (error) {
      this.show({ waiting: await this.kept(), problem: error as Error });
      if (!isRefused(error)) this.devices.later(() => this.isOpen && void this.send(), AGAIN_MS);
    }
  }

  private readonly idOf = (word: string) => `${this.teacherId} ${word}`;
  private readonly take = (word: string) => takeFrom('words', this.idOf(word));

  private async kept(): Promise<VoiceWord[]> {
    const all = await allIn('words');
    return all.filter(({ teacherId }) => teacherId === this.teacherId).map(({ word }) => word);
  }

  private show(moment: QueueMoment): void {
    this.shown = moment;
    for (const listener of this.listeners) listener();
  }
}
