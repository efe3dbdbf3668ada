import { t } from '../../../core/words/say.ts';
import { useEffect, useRef, useState } from 'react';

interface Drawn {
  readonly canvas: HTMLCanvasElement;
  readonly width: number;
  readonly height: number;
}

/** Sharp on the screens of today, and no slower than need be. */
const DOTS = 1.5;

async function pdfReader() {
  const [reader, worker] = await Promise.all([import('pdfjs-dist'), import('pdfjs-dist/build/pdf.worker.min.mjs?url')]);
  reader.GlobalWorkerOptions.workerSrc = worker.default;
  return reader;
}

/** Draws every page of the file itself. */
async function drawPages(bytes: Uint8Array, width: number, isStale: () => boolean): Promise<Drawn[]> {
  const { getDocument } = await pdfReader();
  // The reader takes the bytes away with it.
  const task = getDocument({ data: bytes.slice() });
  const pages: Drawn[] = [];
  try {
    const pdf = await task.promise;
    for (let number = 1; number <= pdf.numPages && !isStale(); number++) {
      const page = await pdf.getPage(number);
      const scale = width / page.getViewport({ scale: 1 }).width;
      const viewport = page.getViewport({ scale: scale * DOTS });
      const canvas = document.createElement('canvas');
      canvas.width = Math.round(viewport.width);
      canvas.height = Math.round(viewport.height);
      await page.render({ canvas, viewport }).promise;
      pages.push({ canvas, width, height: viewport.height / DOTS });
    }
  } finally {
    await task.destroy();
  }
  return pages;
}

/** The pages of a PDF one under the other, as they will be printed. */
export function PdfPages({ bytes, width }: { bytes: Uint8Array; width: number }) {
  const [pages, setPages] = useState<readonly Drawn[]>([]);
  const [trouble, setTrouble] = useState(false);
  useEffect(() => {
    let stale = false;
    drawPages(bytes, width, () => stale).then(
      (drawn) => {
        if (!stale) setPages(drawn);
      },
      () => {
        if (!stale) setTrouble(true);
      },
    );
    return () => {
      stale = true;
    };
  }, [bytes, width]);
  if (trouble) return <p className="empty">{t`The pages cannot be shown here. Save the PDF, and open it.`}</p>;
  return (
    <ol className="sheet-pages">
      {pages.map((page, i) => (
        <li key={i}>
          <PdfPage page={page} label={t`Page ${i + 1} of ${pages.length}`} />
        </li>
      ))}
    </ol>
  );
}

function PdfPage({ page: { canvas, width, height }, label }: { page: Drawn; label: string }) {
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    frame.current?.replaceChildren(canvas);
  }, [canvas]);
  return (
    <>
      <div
        ref={frame}
        role="img"
        aria-label={label}
        className="sheet-page"
        style={{ width, aspectRatio: `${width} / ${height}` }}
      />
      <span aria-hidden>{label}</span>
    </>
  );
}
