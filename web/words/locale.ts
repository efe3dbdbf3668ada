import type { Locale } from 'date-fns';

/** How dates are written, for the pages that write some; by itself, for the door has none. */
let locale: Locale | undefined;

/** For who loads a language. Without one, dates are English. */
export function datesIn(one: Locale | undefined): void {
  locale = one;
}

/** For functions of the calendar package. */
export const inLocale = (): { readonly locale?: Locale } => (locale ? { locale } : {});
