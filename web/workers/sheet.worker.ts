import { makeSheet, versionsOf } from '../../core/sheets/sheet.ts';
import { bookletPages } from '../../drawing/sheets/bookletPages.ts';
import { sheetPages } from '../../drawing/sheets/sheetPages.ts';
import { pagesPdf, sheetPdf } from '../../drawing/sheets/sheetPdf.ts';
import { kit } from '../files/kit.ts';
import type { BookletRequest, SheetAnswer, SheetRequest } from '../files/sheetMessages.ts';
import { answerIn } from './inLanguage.ts';

const answer = (message: SheetAnswer, transfer: Transferable[] = []) => postMessage(message, { transfer });

async function make({ id, sheet, voice, className, names, drawn }: SheetRequest): Promise<void> {
  const made = versionsOf(sheet).map((version) => makeSheet(sheet, voice.counts, version));
  const job = { sheet, made, voice, names, ...(className === undefined ? {} : { className }) };
  const bytes = await sheetPdf({ ...job, names: names.slice(0, drawn) }, kit);
  const pages = sheetPages(job, await kit.fonts()).length;
  const parts = made[0]!.parts.map(({ part, questions }) => ({ key: part.key, questions: questions.length }));
  answer({ ok: true, id, bytes, parts, points: made[0]!.points, pages }, [bytes.buffer]);
}

async function bind({ id, title, about, chapters, voice, className }: BookletRequest): Promise<void> {
  const jobs = chapters.map(({ when, sheet }) => {
    const made = versionsOf(sheet).map((version) => makeSheet(sheet, voice.counts, version));
    return { when, job: { sheet, made, voice, className } };
  });
  const pages = bookletPages({ title, about, chapters: jobs }, await kit.fonts());
  const bytes = await pagesPdf(title, pages, kit);
  const points = jobs.reduce((all, { job }) => all + (job.made[0]?.points ?? 0), 0);
  answer({ ok: true, id, bytes, parts: [], points, pages: pages.length }, [bytes.buffer]);
}

addEventListener('message', ({ data }: MessageEvent<SheetRequest | BookletRequest>) => {
  answerIn(data.voice.language)
    .then(() => ('chapters' in data ? bind(data) : make(data)))
    .catch((error: Error) => answer({ ok: false, id: data.id, trouble: error.message }));
});
