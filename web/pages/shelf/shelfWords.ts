import { counted, perLanguage, t } from '../../../core/words/say.ts';
import type { ShelfKind, ShelfThing } from '../../../contract/schoolShelf.ts';

/** What can lie on a shelf, as it is called. */
export const KINDS = perLanguage((): Readonly<Record<ShelfKind, string>> => ({
  pattern: t`Pattern`,
  lines: t`Page of lines`,
  plan: t`Lead plan`,
  sheet: t`Sheet`,
  lesson: t`Lesson`,
  term: t`Term plan`,
}));

/** How much is in a thing. */
export function sizeOf(thing: ShelfThing): string {
  switch (thing.kind) {
    case 'pattern':
      return '';
    case 'lines':
      return counted(thing.patterns.length, 'pattern');
    case 'plan':
      return counted(thing.plan.passes.length, 'pass', 'passes');
    case 'sheet':
      return counted(thing.sheet.parts.length, 'kind of question', 'kinds of questions');
    case 'lesson':
      return t`${thing.lesson.minutes} minutes`;
    case 'term':
      return counted(thing.term.contents.length, 'lesson');
  }
}
