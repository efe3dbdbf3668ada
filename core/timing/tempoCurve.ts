/**
 * When expected claps are heard: time + lag + tempo·τ + bend·τ², τ from 0 at the first clap to 1 at the last; all in
 * seconds.
 */
export interface TempoCurve {
  readonly lag: number;
  readonly tempo: number;
  readonly bend: number;
  /** τ = (time − from) / length. */
  readonly from: number;
  readonly length: number;
}

export function heardTime({ lag, tempo, bend, from, length }: TempoCurve, time: number): number {
  const tau = (time - from) / length;
  return time + lag + tempo * tau + bend * tau * tau;
}

/** How fast time runs at an expected clap: seconds heard for each written one. */
export function paceAt({ tempo, bend, from, length }: TempoCurve, time: number): number {
  return Math.max(0.05, 1 + (tempo + 2 * bend * ((time - from) / length)) / length);
}

/** The written time that sounds at a heard one: the curve turned round. */
export function writtenTime(curve: TempoCurve, heard: number): number {
  let time = heard - curve.lag;
  for (let i = 0; i < 6; i++) {
    // Outside the take the curve goes straight on at the pace of its end.
    const inside = Math.min(curve.from + curve.length, Math.max(curve.from, time));
    const at = heardTime(curve, inside) + (time - inside) * paceAt(curve, inside);
    time -= (at - heard) / paceAt(curve, inside);
  }
  return time;
}
