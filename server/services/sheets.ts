import type { SavedSheet, SheetEdit } from '../../contract/sheet.ts';
import { parseMeter } from '../../core/rhythm/text.ts';
import { Problem } from '../problem.ts';
import { addSheet, findSheet, listSheets, ownSheets, updateSheet } from '../repository/sheets.ts';
import type { KeptService } from './kept.ts';
import { readPatternText } from './patternText.ts';

/** Rhythms and meters that cannot be read would only be missed when it is printed. */
function checkSheet({ parts }: SheetEdit): void {
  for (const { meter, patterns = [] } of parts) {
    if (meter !== undefined && !parseMeter(meter).ok)
      throw new Problem(422, 'bad-request', `The meter “${meter}” cannot be read.`, { field: 'parts' });
    for (const text of patterns) readPatternText(text, 'parts');
  }
}

/** Sheets for paper. */
export const SHEETS: KeptService<SheetEdit, SavedSheet> = {
  store: { word: 'sheet', list: listSheets, ...ownSheets, find: findSheet, add: addSheet, update: updateSheet },
  check: checkSheet,
};
