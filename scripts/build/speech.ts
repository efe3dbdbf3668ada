import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { SPOKEN_WORDS, isOwnWord, recordingFile } from '../../core/leading/spokenWords.ts';
import { vowelOnset } from '../../core/listening/vowel.ts';
import { loadSpeech } from '../../core/words/catalogues.ts';
import { LANGUAGES, LANGUAGE_IDS, type Language, SOURCE, inSpeech } from '../../core/words/say.ts';

// Renders every word of the list with espeak-ng, or with --align measures recordings that were put in their place.
// Needs Debian's espeak-ng and sox.

const FOLDER = 'web/public/speech';
const RATE = 22_050;
const LONGEST_SECONDS = 0.6;

/** Silence cut off at both ends, a short fade at the end, one loudness, one format. */
function tidy(from: string, to: string): void {
  const trim = ['silence', '1', '0.003', '0.6%'];
  const bare = `${from}.bare.wav`;
  execFileSync('sox', [from, '-r', String(RATE), '-c', '1', '-b', '16', bare, ...trim, 'reverse', ...trim, 'reverse']);
  const seconds = Math.min(LONGEST_SECONDS, Number(execFileSync('soxi', ['-D', bare], { encoding: 'utf8' })) - 0.001);
  execFileSync(
    'sox',
    [bare, to, 'trim', '0', String(seconds), 'fade', 't', '0.002', String(seconds), '0.02', 'norm', '-4'],
    { stdio: 'pipe' },
  );
}

function samplesOf(file: string): Float32Array {
  const raw = execFileSync('sox', [file, '-r', String(RATE), '-c', '1', '-t', 'raw', '-e', 'float', '-b', '32', '-'], {
    maxBuffer: 2 ** 26,
  });
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength));
}

const folderOf = (language: Language) => (language === SOURCE ? FOLDER : join(FOLDER, language));

/** The words of the language in its voice, each in a file. */
function render(language: Language): void {
  const folder = folderOf(language);
  mkdirSync(folder, { recursive: true });
  for (const file of readdirSync(folder)) if (/\.(flac|json)$/.test(file)) rmSync(join(folder, file));
  const scratch = mkdtempSync(join(tmpdir(), 'speech-'));
  for (const [word, said] of wordsOf(language)) {
    const wav = join(scratch, `${recordingFile(word)}.wav`);
    execFileSync('espeak-ng', ['-v', LANGUAGES[language].voice, '-s', '190', '-p', '45', '-a', '140', '-w', wav, said]);
    tidy(wav, join(folder, `${recordingFile(word)}.flac`));
  }
  rmSync(scratch, { recursive: true, force: true });
}

/** English has all words, other languages those that they say themselves. */
const wordsOf = (language: Language) =>
  Object.entries(SPOKEN_WORDS()).filter(([word]) => language === SOURCE || isOwnWord(word));

function align(language: Language): void {
  const folder = folderOf(language);
  const files = new Map(
    readdirSync(folder)
      .filter((file) => file.endsWith('.flac'))
      .map((file) => [basename(file).replace(/\.[^.]+$/, ''), file]),
  );
  const index = Object.fromEntries(
    wordsOf(language).flatMap(([word]) => {
      const file = files.get(recordingFile(word));
      const vowel = () => Math.round(vowelOnset(samplesOf(join(folder, file!)), RATE) * 1000) / 1000;
      return file ? [[word, { file, vowel: vowel() }] as const] : [];
    }),
  );
  writeFileSync(join(folder, 'index.json'), `${JSON.stringify(index, null, 1)}\n`);
  const bytes = [...files.values()].reduce((sum, file) => sum + readFileSync(join(folder, file)).length, 0);
  console.log(`${Object.keys(index).length} words in ${folder}, ${Math.round(bytes / 1024)} kB`);
}

// Of some languages, or of all: npm run speech -- de es
const chosen = LANGUAGE_IDS.filter((language) => process.argv.includes(language));
for (const language of chosen.length > 0 ? chosen : LANGUAGE_IDS) {
  const speech = await loadSpeech(language, 'web');
  inSpeech(speech, () => {
    if (!process.argv.includes('--align')) render(language);
    align(language);
  });
}
