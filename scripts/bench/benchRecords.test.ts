import { expect, it } from 'vitest';
import { termFigures } from './benchRecords.ts';

it('what is written down about simulated children is what they know (rules §9)', () => {
  const { rows, firm, shaky } = termFigures(77, 60);
  const part = (count: number, of: number) => count / Math.max(1, of);
  expect(part(...firm)).toBeGreaterThanOrEqual(0.85);
  expect(part(...shaky)).toBeGreaterThanOrEqual(0.85);
  expect(part(rows.known.shaky, rows.known.of)).toBeLessThanOrEqual(0.02);
  expect(part(rows.unknown.firm, rows.unknown.of)).toBeLessThanOrEqual(0.02);
  expect(part(rows.learned.shaky, rows.learned.of)).toBeLessThanOrEqual(0.1);
  for (const kind of ['rushes', 'unsteady'] as const) expect(part(rows[kind].shaky, rows[kind].of)).toBeLessThan(0.02);
  // The simulation tells them apart at all.
  for (const truth of ['known', 'unknown', 'learned', 'rushes', 'unsteady'] as const)
    expect(rows[truth].of).toBeGreaterThan(10);
});
