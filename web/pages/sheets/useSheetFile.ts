import { currentLanguage, t } from '../../../core/words/say.ts';
import { useEffect, useRef, useState } from 'react';
import { askOnce } from '../../files/askWorker.ts';
import type { BookletRequest, SheetAnswer, SheetFile, SheetRequest } from '../../files/sheetMessages.ts';

type Wanted = Omit<SheetRequest, 'id'> | Omit<BookletRequest, 'id'>;

function start(): Worker {
  return new Worker(new URL('../../workers/sheet.worker.ts', import.meta.url), {
    type: 'module',
    name: currentLanguage(),
  });
}

/** Makes a sheet once, for saving or printing. Throws an Error that says what went wrong. */
export async function sheetFile(wanted: Wanted): Promise<SheetFile> {
  const request = { ...wanted, id: 0 };
  const answer = await askOnce<SheetAnswer>(start(), request, t`The sheet cannot be made; reload the page.`);
  if (!answer.ok) throw new Error(t`The sheet cannot be made: ${answer.trouble}.`);
  return answer;
}

/** Makes the file for whoever takes it, and says what went wrong. */
export function useMaking(wanted: Wanted) {
  const [trouble, setTrouble] = useState<Error>();
  const make = async (take: (content: Blob) => void) => {
    setTrouble(undefined);
    try {
      const { bytes } = await sheetFile(wanted);
      take(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/pdf' }));
    } catch (error) {
      setTrouble(error as Error);
    }
  };
  return { make, trouble };
}

/** So long nothing has to change before it is drawn anew: while a number is typed, milliseconds. */
const SETTLED_MS = 150;

/** The sheet as it will be printed, made anew whenever something of it changes; the last one stays until then. */
export function useSheetFile(wanted: Wanted): { file: SheetFile | undefined; trouble: string | undefined } {
  const worker = useRef<Worker>(undefined);
  const asked = useRef(0);
  const [file, setFile] = useState<SheetFile>();
  const [trouble, setTrouble] = useState<string>();
  // One worker for as long as the page is open: it has read the fonts.
  useEffect(() => {
    const own = start();
    worker.current = own;
    own.addEventListener('error', () => setTrouble(t`The sheet cannot be drawn; reload the page.`));
    own.addEventListener('message', ({ data }: MessageEvent<SheetAnswer>) => {
      if (data.id !== asked.current) return;
      if (data.ok) setFile(data);
      setTrouble(data.ok ? undefined : t`The sheet cannot be drawn: ${data.trouble}.`);
    });
    return () => own.terminate();
  }, []);
  const key = JSON.stringify(wanted);
  useEffect(() => {
    const id = ++asked.current;
    const late = setTimeout(() => {
      worker.current?.postMessage({ ...(JSON.parse(key) as Wanted), id });
    }, SETTLED_MS);
    return () => clearTimeout(late);
  }, [key]);
  return { file, trouble };
}
