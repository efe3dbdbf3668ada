import type { QuestionOf, SheetKind } from '../../core/sheets/sheetQuestion.ts';
import type { Voice } from '../../core/wording/voice.ts';
import type { Block, Ink } from './block.ts';

export interface SheetInk extends Ink {
  readonly voice: Voice;
}

/**
 * Draws what is asked; `filled` with the answer where the child writes it. Both are as high, so that the key stands
 * like the sheet.
 */
export type DrawQuestion<Kind extends SheetKind> = (
  question: QuestionOf<Kind>,
  ink: SheetInk,
  filled: boolean,
) => Block;
