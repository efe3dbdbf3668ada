import type { Ages } from '../../core/judging/windows.ts';
import type { Random } from '../../core/random.ts';

/** Cells of measures by meter. */
export const MEASURES: Readonly<Record<string, readonly string[]>> = {
  '4/4': [
    ...['q q q q', 'q e e q q', 'h q q', 'e e e e h', 'q (q) q q', 'h. q', 'q. e q q', 'e q e q q', 'q q~ q q'],
    ...['(e) e q q q', 'q e (e) q q', 's s s s q q q', 'h h', 'q q h', 'e. s q q q', 'q e e q (q)', 'q. e h'],
  ],
  '3/4': ['q q q', 'h q', 'q e e q', 'e e q q', 'q (q) q', 'q. e q', 'h.', 'e e e e q', 'q q (q)'],
  '2/4': ['q q', 'e e q', 'q e e', 'e e e e', 'h', 'q. e', 'q (q)', 's s s s q', 'e q e'],
  '6/8': ['q. q.', 'e e e q.', 'q e q e', 'q. e e e', 'q e q.', 'e e e e e e', 'q. (q.)', 'h.'],
  '9/8': ['q. q. q.', 'e e e q. q.', 'q e q e q.', 'q. e e e q e'],
  '5/4': ['q q q q q', 'h q q q', 'q e e q h', 'h. h'],
  '7/8': ['q q q.', 'e e e e q e', 'q e e e e e', 'q q e e e'],
  '2/2': ['h h', 'h q q', 'q q h', 'q q q q', 'w', 'h. q', 'h (h)'],
};

export function someMeasures(meter: string, count: number, random: Random): string {
  const cells = MEASURES[meter]!;
  return `${meter} ${Array.from({ length: count }, () => random.pick(cells)).join(' | ')}`;
}

export const METERS = Object.keys(MEASURES);

/** Unsteadiness of a beat by age, seconds. */
export const UNSTEADY: readonly (readonly [Ages, number])[] = [
  ['5-6', 0.036],
  ['7-8', 0.029],
  ['9-10', 0.023],
  ['11-13', 0.017],
];

/** What was meant, as a clock that wanders and hands with their own spread bring it out. */
export function clapped(
  meant: readonly number[],
  beat: number,
  spread: number,
  free: boolean,
  random: Random,
): number[] {
  const lead = 0.03 + 0.02 * random.normal();
  let [phase, tempo, last] = [0, 0, meant[0] ?? 0];
  return meant
    .map((time) => {
      const beats = Math.min(8, Math.max(0, (time - last) / beat));
      last = time;
      const keeps = free ? 1 : 0.6 ** beats;
      tempo = 0.97 ** beats * tempo + (free ? 0.004 : 0) * Math.sqrt(beats) * random.normal();
      phase =
        keeps * phase + 0.6 * spread * Math.sqrt(beats) * random.normal() * (free ? 0.5 : 1) + tempo * beats * beat;
      return time + phase - lead + 0.7 * spread * random.normal();
    })
    .sort((a, b) => a - b);
}
