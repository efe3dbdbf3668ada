import { buildPattern } from '../../core/formats/buildPattern.ts';
import type { ReadFile } from '../../core/formats/piece.ts';
import { readAbc } from '../../core/formats/readAbc.ts';
import { readMidi } from '../../core/formats/readMidi.ts';
import { readMusicXml } from '../../core/formats/readMusicXml.ts';
import { writeAbc } from '../../core/formats/writeAbc.ts';
import { writeMidi } from '../../core/formats/writeMidi.ts';
import { writeMusicXml } from '../../core/formats/writeMusicXml.ts';
import { printRhythm } from '../../core/rhythm/text.ts';
import { read, report, timed } from './benchReport.ts';

const MEASURES = 200;
const MUSICXML = 5_000_000;

/** A file as a pattern, beside reading the same pattern as rhythm text. */
function benchFile(name: string, work: () => ReadFile, text: string): void {
  const runs = Array.from({ length: 9 }, () => [
    timed(() => {
      const file = work();
      if (file.ok) buildPattern(file.pieces[0]!.parts[0]!.voices[0]!);
    }).seconds,
    timed(() => read(text)).seconds,
  ]);
  const median = (k: 0 | 1) => runs.map((run) => run[k]!).sort((a, b) => a - b)[4]!;
  report(name, `${(median(0) * 1000).toFixed(1)} ms`, `${(median(0) / median(1)).toFixed(0)} × reading its text`);
}

/** Files of others: 200 measures of each format, and 5 MB of MusicXML. */
export function benchFiles(): void {
  const text = `4/4 ${Array.from({ length: MEASURES }, () => 'q. e 3{e e e} e e').join(' | ')}`;
  const pattern = read(text);
  const xml = writeMusicXml(pattern);
  const abc = writeAbc(pattern);
  const midi = writeMidi(pattern);
  benchFile(`${MEASURES} measures of MusicXML`, () => readMusicXml(xml), text);
  benchFile(`${MEASURES} measures of ABC`, () => readAbc(abc), text);
  benchFile(`${MEASURES} measures of MIDI`, () => readMidi(midi), text);
  const [, measures] = /<part id="P1">([\s\S]*)<\/part>/.exec(xml)! as unknown as [string, string];
  const large = xml.replace(measures, measures.repeat(Math.ceil(MUSICXML / measures.length)));
  const all = timed(() => readMusicXml(large));
  const copy = timed(() => printRhythm(pattern).length + [...large].length).seconds;
  report(
    '5 MB of MusicXML',
    `${(all.seconds * 1000).toFixed(0)} ms`,
    `${(all.seconds / copy).toFixed(1)} × its letters`,
  );
}
