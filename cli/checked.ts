import type { Checked } from '../contract/validate.ts';
import { UserError } from './readPattern.ts';

/** What was asked, or the user's error. */
export function checked<T>(result: Checked<T>): T {
  if (!result.ok) throw new UserError(result.message);
  return result.value;
}
