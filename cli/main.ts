import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { endOf, run } from './run.ts';

const io = {
  lines: () => createInterface({ input: process.stdin, crlfDelay: Infinity }),
  text: (file: string | undefined) => readFileSync(file ?? 0, 'utf8'),
  out: async (text: string) => {
    // Whoever reads slowly is waited for.
    if (!process.stdout.write(`${text}\n`))
      await new Promise<void>((done) => process.stdout.once('drain', () => done()));
  },
  note: (text: string) => void process.stderr.write(`${text}\n`),
};

run(process.argv.slice(2), io).catch((error: NodeJS.ErrnoException) => {
  // Whoever read has seen enough.
  if (error.code === 'EPIPE') process.exit(0);
  const { code, said } = endOf(error);
  process.stderr.write(`${said}\n`);
  process.exit(code);
});
