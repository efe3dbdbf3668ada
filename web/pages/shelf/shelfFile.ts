import fitsFile from 'virtual:fits/shelf-file';
import { t } from '../../../core/words/say.ts';
import { SHELF_FILE, type ShelfFile, type ShelfItemWhole } from '../../../contract/schoolShelf.ts';

/** Things of a shelf as the text of one file. */
export function shelfFileText(items: readonly ShelfItemWhole[]): string {
  const file: ShelfFile = {
    kind: SHELF_FILE,
    version: 1,
    items: items.map(({ title, about, from, thing }) => ({ title, about, from, thing })),
  };
  return JSON.stringify(file);
}

/** What is in such a file; a sentence that says what to do where it is none. */
export function readShelfFile(text: string): ShelfFile | string {
  try {
    const file = JSON.parse(text) as unknown;
    if (fitsFile(file)) return file as ShelfFile;
  } catch {
    // Said below.
  }
  return t`This is no file of a school’s shelf. Choose one that was saved under Shelf, Save as a file.`;
}
