import { VOICE_RATE } from '../../core/listening/voiceFacts.ts';
import { type Sound, soundKey, synthesise } from '../../core/sound/sounds.ts';
import type { Cue } from '../../core/leading/cue.ts';
import { bufferOf } from './clickClock.ts';
import { type OwnWords, rendered, wordsToSpeakWith } from './voiceSound.ts';
import { soundOf } from '../../core/leading/cueSounds.ts';

export interface BankSound {
  readonly buffer: AudioBuffer;
  /** Seconds from its start to what has to fall on the beat. */
  readonly lead: number;
}

type Index = Readonly<Record<string, { readonly file: string; readonly vowel: number }>>;

const FOLDER = '/speech/';

async function indexIn(folder: string): Promise<Index> {
  const response = await fetch(`${folder}index.json`);
  return (await response.json()) as Index;
}

/** In which folder a word lies, and what it is called there: “de/+” is in that of German. */
function placeOf(word: string): readonly [folder: string, word: string] {
  const [, language, own] = /^([a-z]{2})\/(.+)$/.exec(word) ?? [];
  return language === undefined ? [FOLDER, word] : [`${FOLDER}${language}/`, own!];
}

/** Every sound of a run, made or fetched before it is needed. */
export class SoundBank {
  private readonly sounds = new Map<string, BankSound>();
  private readonly indexes = new Map<string, Promise<Index>>();

  /** @param own  words in the teacher's own voice; the app's take the place of those that are missing */
  constructor(
    private readonly context: BaseAudioContext,
    private readonly own: OwnWords = wordsToSpeakWith(),
  ) {}

  /** Makes ready what some cues need. Words whose recordings cannot be fetched are left out: they are still shown. */
  async prepare(cues: readonly Cue[], clapAs: 'clap' | 'wood'): Promise<void> {
    const wanted = new Map<string, Sound>();
    for (const cue of cues) {
      const found = soundOf(cue, clapAs);
      if (found && !this.sounds.has(soundKey(found.sound))) wanted.set(soundKey(found.sound), found.sound);
    }
    await Promise.all(
      [...wanted].map(async ([key, sound]) => {
        const made =
          sound.kind === 'word'
            ? await this.recording(sound.word).catch(() => undefined)
            : { buffer: bufferOf(this.context, synthesise(sound, this.context.sampleRate)), lead: 0 };
        if (made) this.sounds.set(key, made);
      }),
    );
  }

  get(sound: Sound): BankSound | undefined {
    return this.sounds.get(soundKey(sound));
  }

  /** The recorded words that are ready. */
  words(): ReadonlyMap<string, BankSound> {
    return new Map(
      [...this.sounds].flatMap(([key, sound]) => (key.startsWith('word ') ? [[key.slice(5), sound] as const] : [])),
    );
  }

  private async recording(word: string): Promise<BankSound | undefined> {
    const said = this.own.get(word);
    if (said) return { buffer: await this.atRate(said.samples), lead: said.vowel };
    const [folder, own] = placeOf(word);
    if (!this.indexes.has(folder)) this.indexes.set(folder, indexIn(folder));
    const index = await this.indexes.get(folder)!;
    if (!Object.hasOwn(index, own)) return undefined;
    const entry = index[own]!;
    const response = await fetch(folder + entry.file);
    return { buffer: await this.context.decodeAudioData(await response.arrayBuffer()), lead: entry.vowel };
  }

  /** A word at the rate of the context: what is mixed without it takes its samples as they are. */
  private async atRate(samples: Float32Array): Promise<AudioBuffer> {
    const { sampleRate } = this.context;
    const context = new OfflineAudioContext(1, Math.ceil((samples.length / VOICE_RATE) * sampleRate), sampleRate);
    return rendered(context, samples, VOICE_RATE);
  }
}
