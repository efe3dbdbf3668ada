/** What is left out of a line. */
export interface Omissions {
  /** Bar lines, but for the double bar at the end. */
  readonly bars?: boolean;
  readonly end?: boolean;
  readonly meter?: boolean;
  /** Notes and rests, by the measure's index and their own in it. */
  readonly event?: (measure: number, event: number) => boolean;
}
