/** The straight line through points, by least squares: `at + slope × x`. @param xs  as many as `ys`, at least one */
export function lineThrough(xs: readonly number[], ys: readonly number[]): { at: number; slope: number } {
  const mean = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0) / of.length;
  const [x, y] = [mean(xs), mean(ys)];
  const spread = xs.reduce((sum, one) => sum + (one - x) ** 2, 0);
  const slope = spread === 0 ? 0 : xs.reduce((sum, one, i) => sum + (one - x) * (ys[i]! - y), 0) / spread;
  return { at: y - slope * x, slope };
}
