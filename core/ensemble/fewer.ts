/** Notes before and after, at least: one soft note is no part of a class that stopped. */
const LEAST = 3;
/** So much fewer must clap on one side, and so clearly must that tell the loudness of the notes. */
const FEWER = 0.65;
const CLEARLY = 0.3;
/** A note that is hardly heard is as soft as this. */
const SOFTEST = 0.05;

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const away = (values: readonly number[]) => {
  const middle = median(values);
  return values.reduce((sum, value) => sum + Math.abs(value - middle), 0);
};

/** From a note on fewer clap than before, or only from then on all of them. */
export interface Fewer {
  /** The first note of the second part. */
  readonly index: number;
  readonly kind: 'stop' | 'join';
  /** How many of those who clap where all do clap where fewer do. */
  readonly share: number;
}

/**
 * Whether a part of a class stopped before the end, or joined in after the beginning: the place that parts loud notes
 * from soft ones best.
 * @param loudness  of each note, in order; in any measure
 */
export function fewerFrom(loudness: readonly number[]): Fewer | undefined {
  const logs = loudness.map((one) => Math.log(Math.max(SOFTEST, one)));
  const whole = logs.length < 2 * LEAST ? 0 : away(logs);
  let best: (Fewer & { readonly gain: number }) | undefined;
  for (let index = LEAST; index <= logs.length - LEAST; index++) {
    const [before, after] = [logs.slice(0, index), logs.slice(index)];
    const step = median(after) - median(before);
    if (-Math.abs(step) > Math.log(FEWER)) continue;
    // Both end with a note of their own kind.
    const isOf = (note: number, own: readonly number[], other: readonly number[]) =>
      Math.abs(note - median(own)) <= Math.abs(note - median(other));
    if (!isOf(after[0]!, after, before) || !isOf(before.at(-1)!, before, after)) continue;
    const gain = (whole - away(before) - away(after)) / whole;
    if (gain > (best?.gain ?? CLEARLY))
      best = { index, kind: step < 0 ? 'stop' : 'join', share: Math.exp(-Math.abs(step)), gain };
  }
  return best && { index: best.index, kind: best.kind, share: best.share };
}
