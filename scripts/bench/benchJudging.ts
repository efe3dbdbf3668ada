import { judge } from '../../core/judging/judge.ts';
import { type MisreadingCode, MISREADINGS, MISREADING_CODES } from '../../core/judging/misreadings/table.ts';
import { type SimulatedChild, simulate } from '../../core/judging/simulatedChild.ts';
import { randomFrom } from '../../core/random.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { read, report, timed } from './benchReport.ts';
import { METERS, someMeasures } from './clappedTakes.ts';

const CELLS = [
  'q q q q',
  'q e e q q',
  'h q q',
  'e e e e h',
  'q (q) q q',
  'h. q',
  'q. e q q',
  'e q e q q',
  '(e) e q q q',
  'q e (e) q q',
  's s s s q q q',
  'q q~ q q',
  'e e~ e e h',
  'q q e e (q)',
  'e. s q q q',
];
const NOTES_32 = '4/4 q e e s s s s q | e e e e e e e e | q s s s s e e q | e e e e e e e e';

function speed(name: string, pattern: Pattern, children: readonly SimulatedChild[], baseline: number): void {
  const takes = children.map((child, seed) => simulate(pattern, 76, child, seed).onsets);
  const { seconds } = timed(() => takes.map((onsets) => judge({ pattern, bpm: 76, onsets })));
  report(
    name,
    `${Math.round(takes.length / seconds)} takes a second`,
    `${(seconds / takes.length / baseline).toFixed(0)} × reading the pattern's text`,
  );
}

/** A computation that is always the same, to measure the machine by: sums of square roots. */
function fixedWork(): number {
  let sum = 0;
  for (let i = 0; i < 2_000_000; i++) sum += Math.sqrt(i + sum / 1e9);
  return sum;
}

/** Milliseconds of processor time. */
function processorTime(work: () => void): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

/** Processor time a take, each of another pattern of 4 to 16 measures, beside the fixed computation. */
function timeEach(): void {
  const fixed = Math.min(...Array.from({ length: 5 }, () => processorTime(fixedWork)));
  const random = randomFrom(8);
  const takes = (code?: MisreadingCode) => {
    for (let tries = 0; tries < 400; tries++) {
      const pattern = read(someMeasures(random.pick(METERS), 4 + random.below(13), random));
      const bpm = 60 + random.below(40);
      const child: SimulatedChild = { spread: 0.025, lead: 0.03, ...(code ? { misreads: [{ code }] } : {}) };
      const { onsets, slips } = simulate(pattern, bpm, child, random.below(2 ** 31));
      if (!code || slips.length > 0) return [{ pattern, bpm, onsets }];
    }
    return [];
  };
  const kinds = {
    clean: Array.from({ length: 200 }, () => takes()).flat(),
    misread: MISREADING_CODES.flatMap((code) => Array.from({ length: 8 }, () => takes(code)).flat()),
  };
  // The first ones are slower: they are judged twice, and measured the second time with patterns read anew.
  for (const [kind, some] of Object.entries(kinds)) {
    for (const take of some) judge(take);
    const anew = some.map((take) => ({ ...take, pattern: structuredClone(take.pattern) }));
    const each = processorTime(() => anew.forEach((take) => judge(take))) / some.length;
    report(
      `judging, ${kind}, processor time a take`,
      `${each.toFixed(2)} ms`,
      `${(each / fixed).toFixed(3)} × a fixed computation of ${fixed.toFixed(1)} ms`,
    );
  }
}

/** How fast takes are judged, and which misreading is taken for which. */
export function benchJudging(): void {
  const pattern = read(NOTES_32);
  const baseline = timed(() => Array.from({ length: 300 }, () => parseRhythm(NOTES_32))).seconds / 300;
  const many = (child: SimulatedChild) => Array.from({ length: 600 }, () => child);
  const steady = { spread: 0.025, lead: 0.03 };
  speed(
    'judging, 32 notes, warming up',
    pattern,
    many({ ...steady, misreads: [{ code: 'sixteenths-slow' }] }).slice(0, 200),
    baseline,
  );
  speed('judging, 32 notes, clean', pattern, many(steady), baseline);
  speed('judging, 32 notes, misread', pattern, many({ ...steady, misreads: [{ code: 'sixteenths-slow' }] }), baseline);

  const long = read(`4/4 ${Array.from({ length: 64 }, (_, i) => CELLS[i % CELLS.length]!).join(' | ')}`);
  const played = simulate(long, 90, { ...steady, misreads: [{ code: 'rest-skipped' }] }, 5).onsets;
  report(
    `judging, 64 measures, ${played.length} claps`,
    `${(timed(() => judge({ pattern: long, bpm: 90, onsets: played })).seconds * 1000).toFixed(0)} ms`,
    '',
  );
  const random = randomFrom(1);
  const taps = Array.from({ length: 5000 }, () => random.next() * 60).sort((a, b) => a - b);
  report(
    'judging, 5,000 taps for 4 notes',
    `${(timed(() => judge({ pattern: read('4/4 q q q q'), bpm: 60, onsets: taps })).seconds * 1000).toFixed(0)} ms`,
    '',
  );
  timeEach();
  confusions();
}

/** Simulated takes of each misreading, three in ten without a click: what is named first. */
function confusions(): void {
  const random = randomFrom(3);
  console.log('\nmisread            takes  named  first   and else first');
  const total = { takes: 0, named: 0, first: 0 };
  for (const code of [...MISREADING_CODES, 'none'] as const) {
    const first = new Map<string, number>();
    let [takes, named] = [0, 0];
    for (let tries = 0; takes < 60 && tries < 4000; tries++) {
      const needsClick = code !== 'none' && MISREADINGS[code].needsClick;
      const free = !needsClick && random.next() < 0.3;
      const pattern = read(`4/4 ${Array.from({ length: 3 + random.below(3) }, () => random.pick(CELLS)).join(' | ')}`);
      const bpm = 60 + random.below(50);
      const child: SimulatedChild = {
        spread: 0.01 + 0.025 * random.next(),
        lead: 0.05 * random.next(),
        ...(code === 'none' ? {} : { misreads: [{ code: code }] }),
      };
      const { onsets, slips } = simulate(pattern, bpm, child, random.below(2 ** 31));
      if (code !== 'none' && slips.length === 0) continue;
      takes++;
      const pace = free ? 0.85 + 0.3 * random.next() : 1;
      const judged = judge({ pattern, bpm, onsets: onsets.map((time) => time * pace), free });
      if (!judged.ok) throw new Error(judged.trouble.code);
      const codes: readonly string[] = judged.result.misreadings.map((misreading) => misreading.code);
      if (code === 'none' ? codes.length === 0 : codes.includes(code)) named++;
      first.set(codes[0] ?? 'none', (first.get(codes[0] ?? 'none') ?? 0) + 1);
    }
    const right = first.get(code) ?? 0;
    first.delete(code);
    if (code !== 'none')
      Object.assign(total, { takes: total.takes + takes, named: total.named + named, first: total.first + right });
    const others = [...first].map(([other, count]) => `${other} ${count}`).join(', ');
    const rates = [named, right].map((n) => (n / takes).toFixed(2)).join('   ');
    console.log(`${code.padEnd(25)} ${String(takes).padStart(3)}  ${rates}   ${others}`);
  }
  const rates = [total.named, total.first].map((n) => (n / total.takes).toFixed(3)).join('  ');
  console.log(`all                       ${total.takes}  ${rates}\n`);
}
