import fc from 'fast-check';
import { EVERYTHING } from './trial.test-helper.ts';

/** Laws are tried on the same cases every time: what fails, fails again. `npm run trials -- cases` takes others. */
const SEED = Number(process.env['CASES'] ?? 1);

/** So many cases a law that does not say how many; a hundred with `npm run trials`. */
const USUAL_RUNS = EVERYTHING ? 100 : 40;

fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: SEED, numRuns: USUAL_RUNS });
