/** Power spectra of real frames of one size, a power of two from 16 on; tables are made once. */
export class PowerSpectrum {
  private readonly half: number;
  private readonly re: Float64Array;
  private readonly im: Float64Array;
  /** Cosines and sines of every stage, one after the other, as the stages need them. */
  private readonly stageCos: Float64Array;
  private readonly stageSin: Float64Array;
  private readonly cos: Float64Array;
  private readonly sin: Float64Array;
  /** Twice the place each number of a stage is taken from. */
  private readonly order: Uint16Array;

  constructor(readonly size: number) {
    const half = size / 2;
    this.half = half;
    this.re = new Float64Array(half);
    this.im = new Float64Array(half);
    this.cos = Float64Array.from({ length: half }, (_, k) => Math.cos((-2 * Math.PI * k) / size));
    this.sin = Float64Array.from({ length: half }, (_, k) => Math.sin((-2 * Math.PI * k) / size));
    const angles: number[] = [];
    for (let length = 8; length <= half; length *= 2)
      for (let k = 0; k < length / 2; k++) angles.push((-2 * Math.PI * k) / length);
    this.stageCos = Float64Array.from(angles, Math.cos);
    this.stageSin = Float64Array.from(angles, Math.sin);
    const bits = Math.log2(half);
    this.order = Uint16Array.from({ length: half }, (_, i) => {
      let reversed = 0;
      for (let bit = 0; bit < bits; bit++) if (i & (1 << bit)) reversed |= 1 << (bits - 1 - bit);
      return 2 * reversed;
    });
  }

  /**
   * |X|² for the bins 0 to size/2 of a frame, into `out`.
   * The even samples are taken as real parts and the odd ones as imaginary: one transform of half the size does.
   */
  of(frame: Float64Array, out: Float64Array): void {
    const { half, re, im, order } = this;
    // The first two stages together: their factors are only 1 and -i.
    for (let i = 0; i < half; i += 4) {
      const p = order[i]!;
      const q = order[i + 1]!;
      const r = order[i + 2]!;
      const s = order[i + 3]!;
      const ar = frame[p]! + frame[q]!;
      const ai = frame[p + 1]! + frame[q + 1]!;
      const br = frame[p]! - frame[q]!;
      const bi = frame[p + 1]! - frame[q + 1]!;
      const cr = frame[r]! + frame[s]!;
      const ci = frame[r + 1]! + frame[s + 1]!;
      const dr = frame[r]! - frame[s]!;
      const di = frame[r + 1]! - frame[s + 1]!;
      re[i] = ar + cr;
      im[i] = ai + ci;
      re[i + 1] = br + di;
      im[i + 1] = bi - dr;
      re[i + 2] = ar - cr;
      im[i + 2] = ai - ci;
      re[i + 3] = br - di;
      im[i + 3] = bi + dr;
    }
    this.stages();
    const { cos, sin } = this;
    out[0] = (re[0]! + im[0]!) ** 2;
    out[half] = (re[0]! - im[0]!) ** 2;
    for (let k = 1, m = half - 1; k < half; k++, m--) {
      const evenRe = (re[k]! + re[m]!) * 0.5;
      const evenIm = (im[k]! - im[m]!) * 0.5;
      const oddRe = (im[k]! + im[m]!) * 0.5;
      const oddIm = (re[m]! - re[k]!) * 0.5;
      const x = evenRe + oddRe * cos[k]! - oddIm * sin[k]!;
      const y = evenIm + oddRe * sin[k]! + oddIm * cos[k]!;
      out[k] = x * x + y * y;
    }
  }

  private stages(): void {
    const { half, re, im, stageCos, stageSin } = this;
    let table = 0;
    for (let length = 8; length <= half; length *= 2) {
      const middle = length >> 1;
      for (let from = 0; from < half; from += length) {
        let t = table;
        const end = from + middle;
        for (let a = from, b = end; a < end; a++, b++, t++) {
          const c = stageCos[t]!;
          const s = stageSin[t]!;
          const tr = re[b]! * c - im[b]! * s;
          const ti = re[b]! * s + im[b]! * c;
          re[b] = re[a]! - tr;
          im[b] = im[a]! - ti;
          re[a] = re[a]! + tr;
          im[a] = im[a]! + ti;
        }
      }
      table += middle;
    }
  }
}
