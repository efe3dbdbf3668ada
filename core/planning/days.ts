/** A day as it stands in a calendar: "2026-11-27". */
export type Day = string;

const DAY_MS = 86_400_000;
/** 1 January 1970 was a Thursday. */
const FIRST_WEEKDAY = 3;

/** Days since 1970, so that days can be counted without hours and summer time. */
export function dayNumber(day: Day): number {
  return Date.parse(`${day}T00:00:00Z`) / DAY_MS;
}

export function dayOf(number: number): Day {
  return new Date(number * DAY_MS).toISOString().slice(0, 10);
}

/** From 0, Monday, to 6, Sunday. */
export function weekdayOf(number: number): number {
  return (number + FIRST_WEEKDAY) % 7;
}

/** So many days later; negative: earlier. */
export function daysBetween(from: Day, until: Day): number {
  return dayNumber(until) - dayNumber(from);
}
