/** A package that ships with the app, whole or in part: written when the pages are built. */
export interface Licence {
  /** Name of the package. */
  readonly name: string;
  readonly version: string;
  /** Its kind, as an SPDX expression. */
  readonly kind: string;
  /** The licence itself, as it stands in the package; empty where it has only its kind. */
  readonly text: string;
}

/** Where they are, beside the pages. */
export const LICENCES = 'licences.json';
