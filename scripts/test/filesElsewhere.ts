import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { writeAbc } from '../../core/formats/writeAbc.ts';
import { writeMidi } from '../../core/formats/writeMidi.ts';
import { writeMusicXml } from '../../core/formats/writeMusicXml.ts';
import { fullPattern } from '../../core/rhythm/arbitrary.test-helper.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { soundings } from '../../core/rhythm/soundings.ts';
import { printRhythm } from '../../core/rhythm/text.ts';

/**
 * What other programs make of our files, by hand: Debian's abcmidi plays our ABC, midicsv reads our MIDI, and
 * lilypond's musicxml2ly reads our MusicXML. Each must give the very onsets, or have nothing to complain of.
 */
const PROGRAMS = ['abc2midi', 'midicsv', 'musicxml2ly'];
const missing = PROGRAMS.filter((program) => spawnSync('which', [program]).status !== 0);
if (missing.length > 0) {
  console.error(`Not here: ${missing.join(', ')}. On Debian: apt-get install abcmidi midicsv lilypond`);
  process.exit(2);
}

/** How many patterns, and from which seed: `npm run files-elsewhere -- 200 7`. */
const [count = 100, seed = 7] = process.argv.slice(2).map(Number);
/** Parts of a whole note that two onsets may differ: a tick of a coarse file. */
const NEAR = 0.003;

/** Repeats that do not go together are no ABC that others play. */
function withoutRepeats(pattern: Pattern): Pattern {
  const measures = pattern.measures.map(({ repeatStart: _start, repeatEnd: _end, ...measure }) => measure);
  return { ...pattern, measures };
}

/** Onsets of a MIDI file from its first, in whole notes, as midicsv has them. */
function onsetsOf(path: string): number[] {
  const rows = execFileSync('midicsv', [path], { encoding: 'latin1' })
    .split('\n')
    .map((line) => line.split(', '));
  const division = Number(rows.find((row) => row[2] === 'Header')![5]);
  const onsets = rows
    .filter((row) => row[2] === 'Note_on_c' && row[5] !== '0')
    .map((row) => Number(row[1]) / division / 4)
    .sort((a, b) => a - b);
  return onsets.map((onset) => onset - onsets[0]!);
}

function sameOnsets(heard: readonly number[], pattern: Pattern): boolean {
  const written = soundings(pattern).map(toNumber);
  return (
    heard.length === written.length && heard.every((onset, i) => Math.abs(onset - (written[i]! - written[0]!)) < NEAR)
  );
}

const folder = mkdtempSync(join(tmpdir(), 'clapboard-elsewhere-'));
const wrong: string[] = [];
for (const any of fc.sample(fullPattern, { numRuns: count, seed })) {
  const pattern = withoutRepeats(any);
  const text = printRhythm(pattern);
  const path = (name: string) => join(folder, name);
  const complaints = (program: string, args: readonly string[], sign: RegExp) => {
    const { stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
    return `${stdout}\n${stderr}`.split('\n').filter((line) => sign.test(line));
  };
  writeFileSync(path('a.mid'), writeMidi(pattern));
  if (!sameOnsets(onsetsOf(path('a.mid')), pattern)) wrong.push(`MIDI ${text}`);
  writeFileSync(path('a.abc'), writeAbc(pattern));
  const said = complaints('abc2midi', [path('a.abc'), '-o', path('b.mid')], /Error/);
  if (said.length > 0 || !sameOnsets(onsetsOf(path('b.mid')), pattern)) wrong.push(`ABC ${text} ${said.join(' ')}`);
  writeFileSync(path('a.musicxml'), writeMusicXml(pattern, { title: 'Low "tide" & <wind>', quarters: 90 }));
  const complained = complaints('musicxml2ly', ['-o', path('a.ly'), path('a.musicxml')], /warning|error|Traceback/i);
  if (complained.length > 0) wrong.push(`MusicXML ${text} ${complained.join(' ')}`);
}
rmSync(folder, { recursive: true, force: true });
for (const line of wrong) console.log(line);
console.log(`${count} patterns as MIDI, ABC and MusicXML: ${wrong.length} not as written`);
process.exit(wrong.length === 0 ? 0 : 1);
