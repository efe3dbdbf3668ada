import { t } from '../../core/words/say.ts';
import type { SavedSheet, SheetEdit } from '../../contract/sheet.ts';
import { parseMeter } from '../../core/rhythm/text.ts';
import { Problem } from '../problem.ts';
import { addSheet, findSheet, listSheets, ownSheets, updateSheet } from '../repository/sheets.ts';
import type { KeptService } from './kept.ts';
import { readEach } from './patternText.ts';

/** Rhythms and meters that cannot be read would only be missed when it is printed. */
async function checkSheet({ parts }: SheetEdit): Promise<void> {
  for (const { meter, patterns = [] } of parts) {
    if (meter !== undefined && !parseMeter(meter).ok)
      throw new Problem(422, 'bad-request', t`The meter “${meter}” cannot be read.`, { field: 'parts' });
    await readEach(patterns.map((text) => [text, 'parts'] as const));
  }
}

/** Sheets for paper. */
export const SHEETS: KeptService<SheetEdit, SavedSheet> = {
  store: { word: 'sheet', list: listSheets, ...ownSheets, find: findSheet, add: addSheet, update: updateSheet },
  check: checkSheet,
};
