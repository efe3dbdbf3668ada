import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readWav } from '../../cli/readWav.ts';
import { detectOnsets } from '../../core/listening/detector.ts';
import { PowerSpectrum } from '../../core/listening/fft.ts';
import { REVERBERATIONS, type Reverberation, STRUCK_THINGS, synthesiseClaps } from '../../core/sound/clapSynth.ts';
import { CLICK_LOUDNESS, CLICK_SOUNDS, clickedTake } from '../../core/listening/clickedTake.ts';
import { CONDITIONS, RATE_OF, under } from '../../core/sound/conditions.ts';
import { type Random, randomFrom } from '../../core/random.ts';
import { report, timed } from './benchReport.ts';

const NEAR_SECONDS = 0.03;
const RATE = 44_100;

interface Recording {
  readonly condition: string;
  readonly onsets: readonly number[];
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

/** A folder of recordings, each with its true onsets in the JSON beside it ({ onsets, condition }). */
function recordingsIn(folder: string): Recording[] {
  return readdirSync(folder)
    .filter((file) => file.endsWith('.wav'))
    .map((file) => {
      const { onsets, condition } = JSON.parse(readFileSync(join(folder, file.replace(/wav$/, 'json')), 'utf8')) as {
        onsets: number[];
        condition: string;
      };
      return { condition, onsets, ...readWav(join(folder, file)) };
    });
}

function playedTimes(random: Random): number[] {
  const onsets: number[] = [];
  for (let time = 0.6; time < 11; time += random.pick([0.3, 0.3, 0.6, 0.15]))
    onsets.push(time + 0.02 * random.normal());
  return onsets.sort((a, b) => a - b).filter((onset, i, all) => i === 0 || onset - all[i - 1]! > 0.1);
}

/** Claps of all kinds in all rooms, some in hiss, and under all that surrounds them in a classroom. */
function synthesised(): Recording[] {
  const random = randomFrom(8);
  const conditions = STRUCK_THINGS.flatMap((thing, k) =>
    CONDITIONS.map((condition, i): Recording => {
      const onsets = playedTimes(random);
      const sampleRate = RATE_OF(condition);
      const seed = 100 + 10 * k + i;
      const claps = synthesiseClaps(onsets, { thing, sampleRate, reverberation: 'classroom', seed, variesDb: 9 });
      return { condition: `made, ${condition}`, onsets, samples: under(condition, claps, onsets, seed), sampleRate };
    }),
  );
  const rooms = STRUCK_THINGS.flatMap((thing, k) =>
    [
      ...(Object.keys(REVERBERATIONS) as Reverberation[]).map((room) => ({ room, noiseDb: undefined })),
      { room: 'classroom' as Reverberation, noiseDb: -38 },
    ].map(({ room, noiseDb }, i): Recording => {
      const onsets = playedTimes(random);
      const samples = synthesiseClaps(onsets, {
        thing,
        reverberation: room,
        seed: 10 * k + i,
        variesDb: 9,
        ...(noiseDb === undefined ? {} : { noiseDb }),
      });
      return {
        condition: `made, ${room}${noiseDb === undefined ? '' : ' and hiss'}`,
        onsets,
        samples,
        sampleRate: RATE,
      };
    }),
  );
  return [...rooms, ...conditions];
}

function table(recordings: readonly Recording[]): void {
  const counts = new Map<string, { right: number; found: number; written: number }>();
  const spreads: number[] = [];
  for (const { condition, onsets, samples, sampleRate } of recordings) {
    const found = detectOnsets(samples, sampleRate);
    const errors = onsets.flatMap((onset) => {
      const near = found
        .filter((time) => Math.abs(time - onset) <= NEAR_SECONDS)
        .sort((a, b) => Math.abs(a - onset) - Math.abs(b - onset));
      return near[0] === undefined ? [] : [near[0] - onset];
    });
    for (const name of [condition, 'all']) {
      const so = counts.get(name) ?? { right: 0, found: 0, written: 0 };
      counts.set(name, {
        right: so.right + errors.length,
        found: so.found + found.length,
        written: so.written + onsets.length,
      });
    }
    const middle = [...errors].sort((a, b) => a - b)[errors.length >> 1] ?? 0;
    spreads.push(errors.map((error) => Math.abs(error - middle)).sort((a, b) => a - b)[errors.length >> 1] ?? 0);
  }
  for (const [name, { right, found, written }] of counts) {
    const f = ((2 * right) / (found + written)).toFixed(4);
    console.log(`  ${name.padEnd(28)} F ${f}   missed ${written - right}, too many ${found - right}`);
  }
  console.log(
    `  median jitter within a take ${(spreads.sort((a, b) => a - b)[spreads.length >> 1]! * 1000).toFixed(2)} ms\n`,
  );
}

const TAKES_WITH_CLICKS = 12;

/** Claps from 40 ms before to 60 ms after the app's own clicks, at every loudness of these. */
function clicksTable(): void {
  for (const surroundings of ['quiet', 'noise', 'talk', 'laptop'] as const) {
    for (const loudness of CLICK_LOUDNESS) {
      const count = { claps: 0, lost: 0, clicks: 0, asClaps: 0 };
      for (let seed = 0; seed < TAKES_WITH_CLICKS; seed++) {
        const sound = CLICK_SOUNDS[seed % CLICK_SOUNDS.length]!;
        const { samples, sampleRate, clicks, claps, heard } = clickedTake({ loudness, sound, surroundings }, 50 + seed);
        const left = detectOnsets(samples, sampleRate, clicks);
        for (const clap of claps) {
          const k = left.findIndex((onset) => Math.abs(onset - clap) <= NEAR_SECONDS);
          if (k >= 0) left.splice(k, 1);
          else count.lost++;
        }
        count.claps += claps.length;
        count.clicks += heard.length;
        count.asClaps += left.filter((onset) => heard.some((click) => Math.abs(click - onset) < 0.1)).length;
      }
      const { claps, lost, clicks, asClaps } = count;
      console.log(
        `  ${surroundings.padEnd(7)} click ${String(loudness).padStart(4)} dB   ` +
          `lost ${lost} of ${claps} claps, ${asClaps} of ${clicks} clicks taken for claps`,
      );
    }
  }
}

/** How well and how fast claps are found; RECORDINGS names a folder of recordings with true onsets. */
export function benchListening(): void {
  console.log('\nclaps found, match within ± 30 ms');
  table(synthesised());
  console.log("claps around the app's own clicks");
  clicksTable();
  const folder = process.env['RECORDINGS'];
  if (folder && existsSync(folder)) table(recordingsIn(folder));
  const random = randomFrom(2);
  const samples = Float32Array.from({ length: 120 * RATE }, () => 0.02 * random.normal());
  const spectrum = new PowerSpectrum(256);
  const [frame, out] = [new Float64Array(256), new Float64Array(129)];
  detectOnsets(samples.subarray(0, 10 * RATE), RATE);
  const transforms = timed(() => {
    for (let from = 0; from + 256 < samples.length; from += 128) spectrum.of(frame, out);
  }).seconds;
  const { seconds } = timed(() => detectOnsets(samples, RATE));
  report(
    'listening to two minutes at 44.1 kHz',
    `${Math.round(120 / seconds)} times real time`,
    `${(seconds / transforms).toFixed(1)} × its Fourier transforms alone`,
  );
}
