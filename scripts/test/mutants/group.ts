/** Breakages that the tests of one place should notice, tried one after the other. */
export interface MutantGroup {
  /** The tests that are asked: what vitest is given. */
  readonly tests: readonly string[];
  readonly project: 'units' | 'server';
  /** What is found stands in the file exactly once. */
  readonly mutants: readonly (readonly [file: string, find: string, replace: string])[];
}
