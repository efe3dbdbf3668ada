/** A day as it stands in a calendar: "2026-11-27". */
export type Day = string;

/** 1 January 1970 was a Thursday. */
const FIRST_WEEKDAY = 3;
/** Years go from March to February here, so that a leap day is the last of its year; four hundred of them repeat. */
const DAYS_IN_400_YEARS = 146_097;
/** From 1 March of the year 0 to 1 January 1970. */
const BEFORE_1970 = 719_468;

/** Days before the first of a month, counted from March. */
const daysBefore = (month: number) => Math.floor((153 * month + 2) / 5);

/** Days since 1970 by the calendar, without hours, zones and summer time. */
export function dayNumber(day: Day): number {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  const from = month > 2 ? year : year - 1;
  const leaps = Math.floor(from / 4) - Math.floor(from / 100) + Math.floor(from / 400);
  return 365 * from + leaps + daysBefore((month + 9) % 12) + date - 1 - BEFORE_1970;
}

export function dayOf(number: number): Day {
  const since = number + BEFORE_1970;
  const cycle = Math.floor(since / DAYS_IN_400_YEARS);
  const left = since - cycle * DAYS_IN_400_YEARS;
  const leaps = Math.floor(left / 1460) - Math.floor(left / 36_524) + Math.floor(left / 146_096);
  const years = Math.floor((left - leaps) / 365);
  const inYear = left - (365 * years + Math.floor(years / 4) - Math.floor(years / 100));
  const month = Math.floor((5 * inYear + 2) / 153);
  const year = years + 400 * cycle + (month >= 10 ? 1 : 0);
  const two = (part: number) => String(part).padStart(2, '0');
  const [ofYear, ofMonth] = [month < 10 ? month + 3 : month - 9, inYear - daysBefore(month) + 1];
  return `${String(year).padStart(4, '0')}-${two(ofYear)}-${two(ofMonth)}`;
}

/** From 0, Monday, to 6, Sunday. */
export function weekdayOf(number: number): number {
  return (((number + FIRST_WEEKDAY) % 7) + 7) % 7;
}

/** So many days later; negative: earlier. */
export function daysBetween(from: Day, until: Day): number {
  return dayNumber(until) - dayNumber(from);
}
