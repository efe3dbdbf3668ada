import fc from 'fast-check';

/** Laws are tried on the same cases every time: what fails, fails again. `npm run trials -- cases` takes others. */
const SEED = Number(process.env['CASES'] ?? 1);

fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: SEED });
