import { t } from '../../../core/words/say.ts';
import type { SheetFile } from '../../files/sheetMessages.ts';
import { useWidth } from '../../ruler/useWidth.ts';
import { Notice } from '../../ui/Notice.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { PdfPages } from './PdfPages.tsx';

/** "58 pages are printed, a copy for each of 26 children, with lists and keys. Here are those of two." */
export function printedText(pages: number, copies: number): string {
  const all = pages === 1 ? t`1 page is printed` : t`${pages} pages are printed`;
  if (copies < 2) return `${all}.`;
  const seen = copies > 2 ? t` Here are those of two.` : '';
  return t`${all}: a copy for each of ${copies} children, lists and keys.${seen}`;
}

/** A page is not shown larger than it is printed, by much. */
const WIDEST = 760;

interface PreviewProps {
  readonly trouble: string | undefined;
  readonly file: SheetFile | undefined;
  /** How many pages that are, and for whom. */
  readonly says: string | undefined;
}

/** The pages as they will be printed. */
export function SheetPreview({ trouble, file, says }: PreviewProps) {
  const [frame, wide] = useWidth();
  const width = Math.min(wide, WIDEST);
  return (
    <section className="sheet-preview" aria-label={t`As it will be printed`}>
      <div ref={frame} />
      {trouble && <Notice problem={{ message: trouble }} />}
      {file && <p className="sheet-copies">{says}</p>}
      {file && width > 0 ? (
        <PdfPages bytes={file.bytes} width={width} />
      ) : (
        <p className="sheet-copies">{t`Drawing the pages…`}</p>
      )}
    </section>
  );
}

/** Shows the file in a window of its own, from where it is printed; where none opens, it is saved. */
export function openToPrint(content: Blob): void {
  const address = URL.createObjectURL(content);
  if (!window.open(address)) saveFile(t`Sheet.pdf`, content);
}
