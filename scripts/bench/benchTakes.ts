import { judge } from '../../core/judging/judge.ts';
import { type MisreadingCode, MISREADINGS, MISREADING_CODES } from '../../core/judging/misreadings/table.ts';
import { simulate } from '../../core/judging/simulatedChild.ts';
import { type Random, randomFrom } from '../../core/random.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { beatTimes } from '../../core/timing/pulses.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { read } from './benchReport.ts';
import { METERS, UNSTEADY, clapped, someMeasures } from './clappedTakes.ts';

/**
 * Takes as children make them, apart from the misreadings' own table: a central clock that wanders and hands that do
 * not quite follow it, by age; and what children do that is no misreading of one place.
 */

/** One take to be judged, and what a teacher would say of it. */
interface Scene {
  /** Codes that must be named; none for a clean take. */
  readonly codes: readonly string[];
  /** What may be said besides. */
  readonly fine?: readonly string[];
  readonly meant: readonly number[];
  readonly pace?: number;
}

interface Setting {
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly beat: number;
  readonly times: readonly number[];
  readonly free: boolean;
  readonly random: Random;
}

type Scenario = (setting: Setting) => Scene | undefined;

/** A written event somewhere in the middle of the take. */
const middle = ({ times, random }: Setting, margin = 2) =>
  times.length < 2 * margin + 3 ? undefined : margin + random.below(times.length - 2 * margin - 1);

/** A bar line with at least two measures before it and after it, and six notes. */
function barLine({ pattern, bpm, times, random }: Setting): number | undefined {
  const { measures, whole } = scheduleOf(pattern, bpm);
  const lines = measures.slice(2, -1).map(({ at }) => toNumber(at) * whole);
  const some = lines.filter(
    (line) => times.filter((time) => time < line).length >= 6 && times.filter((time) => time >= line).length >= 6,
  );
  return some.length > 0 ? random.pick(some) : undefined;
}

const later = (times: readonly number[], from: number, by: number) =>
  times.map((time, i) => (i >= from ? time + by : time));

/** The places of one kind of misreading, all of them at once. */
function habit(code: MisreadingCode): Scenario {
  return ({ pattern, bpm, random }) => {
    const { onsets, slips } = simulate(pattern, bpm, { spread: 0, habits: { [code]: 1 } }, random.below(2 ** 31));
    return slips.length >= 2 ? { codes: [code], meant: onsets } : undefined;
  };
}

/** A stop at a rest or a long note is one of these too. */
const STOPS = ['hold-too-long', 'rest-too-long'];

const SCENARIOS: Readonly<Record<string, Scenario>> = {
  clean: ({ times }) => ({ codes: [], meant: times }),
  'a note missed': (setting) => {
    const at = middle(setting);
    return at === undefined ? undefined : { codes: [], meant: setting.times.filter((_, i) => i !== at) };
  },
  stray: ({ times, random }) => {
    const long = times.findIndex((time, i) => i > 0 && time - times[i - 1]! > 0.7);
    if (long < 1) return undefined;
    const at = times[long - 1]! + (times[long]! - times[long - 1]!) * (0.3 + 0.1 * random.next());
    return { codes: [], fine: ['hold-pulsed', 'rest-clapped'], meant: [...times, at] };
  },
  bounces: ({ times, random }) => ({
    codes: [],
    meant: times.flatMap((time) => (random.next() < 0.3 ? [time, time + 0.03 + 0.045 * random.next()] : [time])),
  }),
  stop: (setting) => {
    const at = middle(setting);
    const by = setting.beat * (1 + 3 * setting.random.next());
    return at === undefined ? undefined : { codes: ['hesitated'], fine: STOPS, meant: later(setting.times, at, by) };
  },
  restart: ({ pattern, bpm, times, beat, random }) => {
    const { measures, whole } = scheduleOf(pattern, bpm);
    if (measures.length < 3 || times.length < 8) return undefined;
    const at = 3 + random.below(times.length - 5);
    const bar = (i: number) => toNumber(measures[i]!.at) * whole;
    const measure = random.next() < 0.5 ? 0 : measures.findLastIndex((_, i) => bar(i) <= times[at]! + 1e-6);
    const from = bar(measure);
    // A single clap that comes again is no new beginning.
    if (times.filter((time) => time >= from - 1e-6 && time <= times[at]! + 1e-6).length < 2) return undefined;
    const back = Math.ceil((times[at]! - from) / beat + 0.5 + 2 * random.next()) * beat;
    const last =
      times[at + 1] === undefined ||
      times[at + 1]! >= bar(measure + 1 < measures.length ? measure + 1 : measure) - 1e-6;
    if (last && measures[measure + 1] && Math.abs(back - (bar(measure + 1) - from)) < 0.4 * beat) return undefined;
    const again = times.filter((time) => time >= from - 1e-6).map((time) => time + back);
    return { codes: ['started-again'], meant: [...times.slice(0, at + 1), ...again] };
  },
  'own tempo': ({ times, free, random }) => {
    if (free || times.length < 5) return undefined;
    const pace = random.next() < 0.5 ? 0.62 + 0.25 * random.next() : 1.15 + 0.4 * random.next();
    return { codes: ['own-tempo'], meant: times, pace: 1 / pace };
  },
  'claps before': ({ times, beat, pattern, free, random }) => {
    const meter = pattern.measures[0]!.meter;
    const count = free ? 1 + random.below(3) : Math.min(4, meter.upper);
    const gap = free ? beat * (1.2 + random.next()) : beat;
    const first = free ? times[0]! : 0;
    return { codes: [], meant: [...Array.from({ length: count }, (_, i) => first - gap * (count - i)), ...times] };
  },
  'only the beat': ({ pattern, bpm, times }) => {
    const beats = beatTimes(pattern, bpm).map(({ time }) => time);
    const alike = times.filter((time) => beats.some((at) => Math.abs(at - time) < 0.01)).length;
    const part = alike / Math.max(times.length, beats.length);
    return part > 0.7 ? undefined : { codes: ['only-the-beat'], meant: beats };
  },
  'another rhythm': ({ pattern, bpm, times, random }) => {
    const { upper, lower } = pattern.measures[0]!.meter;
    const other = read(someMeasures(`${upper}/${lower}`, pattern.measures.length, random));
    const meant = scheduleOf(other, bpm).notes.map(({ time }) => time);
    const alike = times.filter((time) => meant.some((at) => Math.abs(at - time) < 0.01)).length;
    if (alike / Math.max(times.length, meant.length) > 0.62) return undefined;
    return { codes: ['another-rhythm'], fine: ['only-the-beat'], meant };
  },
  'two claps': ({ times }) => (times.length < 8 ? undefined : { codes: ['stopped-early'], meant: times.slice(0, 2) }),
  'another tempo from a bar line on': (setting) => {
    const from = barLine(setting);
    if (from === undefined) return undefined;
    const { times, random } = setting;
    const slower = random.next() < 0.5 ? 0.14 + 0.2 * random.next() : -(0.12 + 0.15 * random.next());
    const meant = times.map((time) => (time <= from ? time : time + (time - from) * slower));
    return { codes: [slower > 0 ? 'dragging' : 'rushing'], meant };
  },
  'the measure before again': (setting) => {
    const from = barLine(setting);
    if (from === undefined) return undefined;
    const { pattern, bpm, times } = setting;
    const { measures, whole } = scheduleOf(pattern, bpm);
    const starts = measures.map(({ at }) => toNumber(at) * whole);
    const at = starts.findIndex((start) => Math.abs(start - from) < 1e-6);
    const length = starts[at]! - starts[at - 1]!;
    const inside = (time: number, begin: number) => time >= begin - 1e-6 && time < begin + length - 1e-6;
    const again = times.filter((time) => inside(time, starts[at - 1]!)).map((time) => time + length);
    const here = times.filter((time) => inside(time, from));
    const alike = here.filter((time) => again.some((other) => Math.abs(other - time) < 0.01)).length;
    if (here.length + again.length - 2 * alike < 4) return undefined;
    const meant = [...times.filter((time) => !inside(time, from)), ...again];
    return { codes: ['measure-repeated'], fine: ['lost-and-recovered'], meant };
  },
  'half a beat after the click': ({ times, beat, free }) =>
    free ? undefined : { codes: ['behind-the-click'], meant: times.map((time) => time + beat / 2) },
  'the first note twice': ({ times, beat, free }) =>
    free
      ? undefined
      : { codes: ['entered-late'], fine: ['hesitated'], meant: [times[0]!, ...times.map((time) => time + beat)] },
  'every dot ignored': habit('dot-too-short'),
  'every rest skipped': habit('rest-skipped'),
  'every half cut': habit('hold-cut'),
  'every rest clapped': habit('rest-clapped'),
  'every half pulsed': habit('hold-pulsed'),
};

const ALIKE: Readonly<Record<string, readonly string[]>> = {
  'hold-cut': ['rest-skipped'],
  'rest-skipped': ['hold-cut'],
  hesitated: STOPS,
  'rest-too-long': ['hesitated'],
  'hold-too-long': ['hesitated'],
};

/** Without a click less is not named (rules §8); and by so much the clock that wanders may hide what was meant. */
const NAMED_CHANGE = 0.08 + 0.02;

/** By how much the tempo at the end is another than at the beginning, as a part, where it bends evenly. */
function changeOf(meant: readonly number[], times: readonly number[]): number {
  const span = (all: readonly number[]) => all.at(-1)! - all[0]!;
  return Math.abs(1 / (2 * (span(meant) / span(times)) - 1) - 1);
}

/** One misreading at one place, by the table. */
function single(code: MisreadingCode): Scenario {
  return ({ pattern, bpm, free, times, random }) => {
    if (free && MISREADINGS[code].needsClick) return undefined;
    const { onsets, slips } = simulate(pattern, bpm, { spread: 0, misreads: [{ code }] }, random.below(2 ** 31));
    if (free && MISREADINGS[code].ofTempo && changeOf(onsets, times) < NAMED_CHANGE) return undefined;
    return slips.length > 0 ? { codes: [code], fine: ALIKE[code] ?? [], meant: onsets } : undefined;
  };
}

/** Misreadings of single places that can be put together. */
const OF_PLACES = MISREADING_CODES.filter(
  (code) => MISREADINGS[code].about === 'place' && 'hypotheses' in MISREADINGS[code],
);

/** So many different ones in one take, at least a measure apart. */
function several(count: number): Scenario {
  return ({ pattern, bpm, random }) => {
    const codes = new Set<MisreadingCode>();
    while (codes.size < count) codes.add(random.pick(OF_PLACES));
    const misreads = [...codes].map((code) => ({ code }));
    const { onsets, slips } = simulate(pattern, bpm, { spread: 0, misreads }, random.below(2 ** 31));
    if (slips.length < count) return undefined;
    const { notes, events } = scheduleOf(pattern, bpm);
    const times = slips.map(({ event }) => events[event]!.time).sort((a, b) => a - b);
    const apart = 8 * (notes.at(-1)!.time / Math.max(1, notes.length));
    if (times.some((time, i) => i > 0 && time - times[i - 1]! < apart)) return undefined;
    return { codes: [...codes], fine: [...codes].flatMap((code) => ALIKE[code] ?? []), meant: onsets };
  };
}

interface Tally {
  takes: number;
  named: number;
  first: number;
  pure: number;
  readonly said: Map<string, number>;
}

/** One take of a scenario by a child of some age, at some tempo, three in ten without a click. */
function oneTake(scenario: Scenario, random: Random) {
  const [ages, spread] = random.pick(UNSTEADY);
  const meter = random.pick(METERS);
  const text = someMeasures(meter, 4 + random.below(13), random);
  const pattern = read(text);
  const bpm = (meter === '7/8' ? 140 : meter.endsWith('/8') ? 50 : 66) + random.below(meter === '7/8' ? 60 : 40);
  const free = random.next() < 0.3;
  const beats = beatTimes(pattern, bpm);
  const beat = beats[1]!.time - beats[0]!.time;
  const times = scheduleOf(pattern, bpm).notes.map(({ time }) => time);
  const scene = scenario({ pattern, bpm, beat, times, free, random });
  if (!scene) return undefined;
  const pace = (free ? 0.85 + 0.3 * random.next() : 1) * (scene.pace ?? 1);
  const meant = [...scene.meant].sort((a, b) => a - b);
  const onsets = clapped(meant, beat, spread, free, random).map((time) => time * pace);
  const judged = judge({ pattern, bpm, onsets, free, ages });
  if (!judged.ok) throw new Error(judged.trouble.code);
  const codes: readonly string[] = judged.result.misreadings.map(({ code }) => code);
  return { scene, codes, take: { text, bpm, free, ages, codes, mark: judged.result.mark, onsets } };
}

function tallied(scenario: Scenario, takesEach: number, show: number): Tally {
  const random = randomFrom(11);
  const tally: Tally = { takes: 0, named: 0, first: 0, pure: 0, said: new Map() };
  let shown = 0;
  for (let tries = 0; tally.takes < takesEach && tries < 40 * takesEach; tries++) {
    const one = oneTake(scenario, random);
    if (!one) continue;
    const { scene, codes, take } = one;
    tally.takes++;
    const named = scene.codes.every((code) => codes.includes(code));
    const wrong = codes.filter((code) => !scene.codes.includes(code) && !scene.fine?.includes(code));
    if (named) tally.named++;
    if (scene.codes.length === 0 ? codes.length === 0 : scene.codes.includes(codes[0] ?? '')) tally.first++;
    if (wrong.length === 0) tally.pure++;
    for (const code of wrong) tally.said.set(code, (tally.said.get(code) ?? 0) + 1);
    if ((!named || wrong.length > 0) && shown++ < show)
      console.log(JSON.stringify({ ...take, onsets: take.onsets.map((time) => Math.round(time * 1000) / 1000) }));
  }
  return tally;
}

/**
 * The table of the harder takes.
 * @param only  keeps to scenarios with one of these words in their names
 * @param show  prints so many takes of each scenario that were not judged right
 */
export function benchTakes(only: readonly string[] = [], takesEach = 80, show = 0): void {
  console.log('\nscenario                  takes  named  first  nothing false   what else was said');
  const singles = MISREADING_CODES.map((code) => [code, single(code)] as const);
  const together = [2, 3].map((count) => [`${count} misreadings`, several(count)] as const);
  for (const [name, scenario] of [...Object.entries(SCENARIOS), ...singles, ...together]) {
    if (only.length > 0 && !only.some((word) => name.includes(word))) continue;
    const { takes, named, first, pure, said } = tallied(scenario, takesEach, show);
    const rates = [named, first, pure].map((n) => (n / Math.max(1, takes)).toFixed(2)).join('   ');
    const others = [...said].sort((a, b) => b[1] - a[1]).slice(0, 5);
    const besides = others.map(([code, times]) => `${code} ${times}`).join(', ');
    console.log(`${name.padEnd(25)} ${String(takes).padStart(5)}   ${rates}            ${besides}`);
  }
}
