import { t } from '../../core/words/say.ts';
import { isValid, parseISO } from 'date-fns';
import { Problem } from '../problem.ts';

/** Throws where a day fits its schema and stands in no calendar, the 30th of February for one. */
export function checkDay(day: string, field: string): void {
  if (!isValid(parseISO(day))) throw new Problem(422, 'bad-request', t`${field}: there is no such day.`, { field });
}
