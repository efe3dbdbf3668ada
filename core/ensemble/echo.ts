/** How the sound of one strike dies away, in frames: a short body, and the echo of the room under it. */
export interface Decay {
  /** What is left of the body, and of the echo, a frame later. */
  readonly body: number;
  readonly echo: number;
  /** How loud the echo begins, beside all of the body. */
  readonly level: number;
}

/** Seconds in which the energy of a clap itself has died to a third: skin on skin. */
const BODY_SECONDS = 0.008;
/** Energy that has died by 60 dB is a millionth. */
const LOG_60_DB = Math.log(1e6);

/**
 * @param hop  seconds of a frame
 * @param seconds  in which the echo dies by 60 dB
 * @param db  how loud all of the echo is beside the strike itself
 */
export function decayOf(hop: number, seconds: number, db: number): Decay {
  const echo = Math.exp((-LOG_60_DB * hop) / seconds);
  return { body: Math.exp(-hop / BODY_SECONDS), echo, level: 10 ** (db / 10) * (1 - echo) };
}

/** What is heard of strikes in a room. */
function sounding(strikes: Float64Array, { body, echo, level }: Decay, out: Float64Array): void {
  let [room, hands] = [0, 0];
  for (let t = 0; t < strikes.length; t++) {
    room = echo * room + strikes[t]!;
    hands = body * hands + strikes[t]!;
    out[t] = level * room + (1 - body) * hands;
  }
}

/** The other way: what each moment gave to all that was heard after it. */
function given(heard: Float64Array, { body, echo, level }: Decay, out: Float64Array): void {
  let [room, hands] = [0, 0];
  for (let t = heard.length - 1; t >= 0; t--) {
    room = echo * room + heard[t]!;
    hands = body * hands + heard[t]!;
    out[t] = level * room + (1 - body) * hands;
  }
}

/** Part of a mean strike at which what is struck begins to be looked for, where nothing was found to stand. */
const LEAST = 0.02;

/**
 * What was struck, from what is heard, by Richardson and Lucy: never below 0, and as much in all as is heard.
 * @param heard  power, frame by frame
 * @param floor  power of what surrounds the class
 * @param where  frames in which something may have been struck; left out: in all
 */
export function struckIn(
  heard: Float64Array,
  decay: Decay,
  floor: number,
  rounds: number,
  where?: Uint8Array,
): { struck: Float64Array; misfit: number } {
  const count = heard.length;
  const [model, ratio, back, all] = [0, 1, 2, 3].map(() => new Float64Array(count)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  given(new Float64Array(count).fill(1), decay, all);
  const gain = 1 + decay.level / (1 - decay.echo);
  const least = (LEAST * heard.reduce((sum, power) => sum + power, 0)) / Math.max(1, count) / gain;
  const struck = new Float64Array(count);
  let [room, hands] = [0, 0];
  // It begins with what stands above the echo of what was before.
  for (let t = 0; t < count; t++) {
    room *= decay.echo;
    hands *= decay.body;
    const above = heard[t]! - floor - decay.level * room - (1 - decay.body) * hands;
    struck[t] = where?.[t] === 0 ? 0 : Math.max(least, above / (1 - decay.body + decay.level));
    room += struck[t]!;
    hands += struck[t]!;
  }
  for (let round = 0; round < rounds; round++) {
    sounding(struck, decay, model);
    for (let t = 0; t < count; t++) ratio[t] = heard[t]! / (model[t]! + floor);
    given(ratio, decay, back);
    for (let t = 0; t < count; t++) struck[t]! *= back[t]! / all[t]!;
  }
  sounding(struck, decay, model);
  // As noise of such a power is likely: its logarithm, and how far above it what is heard lies.
  let misfit = 0;
  for (let t = 0; t < count; t++) misfit += Math.log(model[t]! + floor) + heard[t]! / (model[t]! + floor);
  return { struck, misfit: misfit / Math.max(1, count) };
}
