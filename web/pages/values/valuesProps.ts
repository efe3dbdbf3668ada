import type { ValueLetter } from '../../../core/rhythm/value.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';

/** What every part of the view works with. */
export interface ValuesProps {
  readonly naming: NamingId;
  /** The value that gets the beat. */
  readonly beat: ValueLetter;
}
