import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { SPOKEN_WORDS, recordingFile } from '../../core/leading/spokenWords.ts';
import { vowelOnset } from '../../core/sound/vowel.ts';

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

function render(): void {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  const scratch = mkdtempSync(join(tmpdir(), 'speech-'));
  for (const [word, said] of Object.entries(SPOKEN_WORDS)) {
    const wav = join(scratch, `${recordingFile(word)}.wav`);
    execFileSync('espeak-ng', ['-v', 'en-gb', '-s', '190', '-p', '45', '-a', '140', '-w', wav, said]);
    tidy(wav, join(FOLDER, `${recordingFile(word)}.flac`));
  }
  rmSync(scratch, { recursive: true, force: true });
}

if (!process.argv.includes('--align')) render();

const files = new Map(
  readdirSync(FOLDER)
    .filter((file) => !file.endsWith('.json'))
    .map((file) => [basename(file).replace(/\.[^.]+$/, ''), file]),
);
const index = Object.fromEntries(
  Object.keys(SPOKEN_WORDS).flatMap((word) => {
    const file = files.get(recordingFile(word));
    return file
      ? [[word, { file, vowel: Math.round(vowelOnset(samplesOf(join(FOLDER, file)), RATE) * 1000) / 1000 }] as const]
      : [];
  }),
);
writeFileSync(join(FOLDER, 'index.json'), `${JSON.stringify(index, null, 1)}\n`);
const bytes = [...files.values()].reduce((sum, file) => sum + readFileSync(join(FOLDER, file)).length, 0);
console.log(`${Object.keys(index).length} words in ${FOLDER}, ${Math.round(bytes / 1024)} kB`);
