import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/**
 * The file of a thread, and what it is run with: its source, or what that was built to.
 * @param source  beside the caller
 * @param built  where it is built, when that is not beside its source
 */
export function workerFile(
  source: URL,
  built = fileURLToPath(source).replace(/\.ts$/, '.js'),
): { readonly filename: string; readonly execArgv: string[] } {
  if (existsSync(built)) return { filename: built, execArgv: [] };
  return { filename: fileURLToPath(source), execArgv: ['--import', 'tsx'] };
}
