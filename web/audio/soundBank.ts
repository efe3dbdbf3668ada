import { type Sound, soundKey, synthesise } from '../../core/sound/sounds.ts';
import type { Cue } from '../../core/leading/cue.ts';
import { bufferOf } from './clickClock.ts';
import { soundOf } from '../../core/leading/cueSounds.ts';
import { type Language, SOURCE, currentLanguage } from '../../core/words/say.ts';

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

/** The words that every language says alike, and before them those in its own voice. */
async function indexOf(language: Language): Promise<Index> {
  if (language === SOURCE) return indexIn(FOLDER);
  const [all, own] = await Promise.all([indexIn(FOLDER), indexIn(`${FOLDER}${language}/`)]);
  return { ...all, ...own };
}

/** Every sound of a run, made or fetched before it is needed. */
export class SoundBank {
  private readonly sounds = new Map<string, BankSound>();
  private index: Promise<Index> | undefined;

  constructor(private readonly context: BaseAudioContext) {}

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
    this.index ??= indexOf(currentLanguage());
    const entry = (await this.index)[word];
    if (!entry) return undefined;
    const response = await fetch(FOLDER + entry.file);
    return { buffer: await this.context.decodeAudioData(await response.arrayBuffer()), lead: entry.vowel };
  }
}
