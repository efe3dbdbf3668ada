/** One clap as some hypothesis of the pattern expects it. Seconds at the set tempo, from beat 1 of measure 1. */
export interface ExpectedClap {
  /** Index among the sounded notes; -1 for a clap that is not written. */
  readonly note: number;
  /** Where it stands on paper: by this a further misreading finds its place. */
  readonly written: number;
  /** Of a run that broke off, or of a measure played once too often: it counts for nothing, also not as an extra. */
  readonly replayed?: true;
  /** When it comes in this hypothesis. */
  readonly time: number;
}
