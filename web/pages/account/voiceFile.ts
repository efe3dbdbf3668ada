import type { VoiceWord } from '../../../contract/voice.ts';
import { LONGEST_WORD, VOICE_RATE } from '../../../core/listening/voiceFacts.ts';
import { type ZipEntry, unzip, zip } from '../../../core/formats/zip.ts';
import { cutWord } from '../../../core/listening/spokenWord.ts';
import { wavFile } from '../../../core/sound/wav.ts';
import { LANGUAGE_IDS, SOURCE, t } from '../../../core/words/say.ts';
import { keptWord, soundText, spokenWord } from '../../audio/voiceSound.ts';
import { wordTroubleText } from './wordTroubles.ts';

/** What no file system allows in a name, and the sign that stands for such. */
const FORBIDDEN = /[\\:*?"<>|%]/g;
const LARGEST_WORD_BYTES = 4_000_000;
const ENDING = /\.(wav|wave|mp3|m4a|ogg|oga|webm|flac|aac)$/i;

/** A word as the name of its file: a folder for each language but English. */
const pathOf = (word: string) =>
  `${word.replace(FORBIDDEN, (sign) => `%${sign.charCodeAt(0).toString(16).padStart(2, '0')}`)}.wav`;

/** The word of a sound file, whatever folder all of them were put into; undefined where its name is no word. */
function wordOfPath(path: string): string | undefined {
  const [name = '', folder = ''] = path.replace(ENDING, '').split('/').toReversed();
  const language = LANGUAGE_IDS.find((id) => id === folder && id !== SOURCE);
  const word = name.replace(/%([0-9a-f]{2})/gi, (_, code: string) => String.fromCharCode(parseInt(code, 16)));
  const known = word.trim().toLowerCase();
  if (known === '' || known.length + 3 > LONGEST_WORD || /\s/.test(known)) return undefined;
  return language ? `${language}/${known}` : known;
}

/** In a zip of our own: where each sound has its vowel, and how long it is. A sound that was changed is another. */
const INDEX = 'voice.json';
type Index = Readonly<Record<string, { readonly vowel: number; readonly samples: number }>>;

/** A voice as one file: a zip of a WAV file each word. */
export function voiceFile(words: readonly VoiceWord[]): Uint8Array {
  const files = words.map((one) => {
    const { samples } = spokenWord(one);
    return { name: pathOf(one.word), bytes: wavFile(samples, VOICE_RATE), vowel: one.vowel, samples: samples.length };
  });
  const index: Index = Object.fromEntries(files.map(({ name, vowel, samples }) => [name, { vowel, samples }]));
  return zip([...files, { name: INDEX, bytes: JSON.stringify(index) }]);
}

/** What a zip says of its sounds; nothing where it says nothing that can be read. */
function indexIn(entries: readonly ZipEntry[]): Index {
  const entry = entries.find(({ name }) => name === INDEX);
  try {
    return entry ? (JSON.parse(new TextDecoder().decode(entry.bytes)) as Index) : {};
  } catch {
    return {};
  }
}

export interface ReadVoice {
  readonly words: readonly VoiceWord[];
  /** A sentence for each file that gives no word. */
  readonly troubles: readonly string[];
}

async function wordIn({ name, bytes }: ZipEntry, index: Index): Promise<VoiceWord | string | undefined> {
  if (!ENDING.test(name) || name.includes('__MACOSX/')) return undefined;
  const word = wordOfPath(name);
  if (word === undefined) return t`“${name}”: name the file after its word, for one 1.wav`;
  if (bytes.length > LARGEST_WORD_BYTES) return t`“${name}”: too large for one word`;
  const context = new OfflineAudioContext(1, 1, VOICE_RATE);
  const buffer = await context.decodeAudioData(Uint8Array.from(bytes).buffer).catch(() => undefined);
  if (!buffer) return t`“${name}”: not a sound this browser can read`;
  const samples = buffer.getChannelData(0);
  const known = Object.hasOwn(index, name) ? index[name] : undefined;
  if (known?.samples === samples.length && known.vowel >= 0 && known.vowel * VOICE_RATE < samples.length)
    return { word, vowel: known.vowel, sound: soundText(samples) };
  const heard = cutWord(samples, VOICE_RATE);
  return heard.ok ? keptWord(word, heard.word, VOICE_RATE) : t`“${name}”: ${wordTroubleText(heard.trouble)}`;
}

/** The words in files: those of a zip, or sounds themselves, each cut, levelled and aligned like one that is said. */
export async function readVoiceFiles(files: readonly File[]): Promise<ReadVoice> {
  const words = new Map<string, VoiceWord>();
  const troubles: string[] = [];
  for (const file of files) {
    const bytes = new Uint8Array(await file.arrayBuffer());
    let entries: readonly ZipEntry[] = [{ name: file.name, bytes }];
    if (/\.zip$/i.test(file.name))
      try {
        entries = unzip(bytes, (name) => ENDING.test(name) || name === INDEX);
      } catch (error) {
        troubles.push(t`“${file.name}”: ${(error as Error).message}`);
        continue;
      }
    const found = words.size + troubles.length;
    const index = indexIn(entries);
    for (const entry of entries) {
      const word = await wordIn(entry, index);
      if (typeof word === 'string') troubles.push(word);
      else if (word) words.set(word.word, word);
    }
    if (words.size + troubles.length === found) troubles.push(t`“${file.name}”: no words in it`);
  }
  return { words: [...words.values()], troubles };
}
