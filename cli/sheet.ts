import { t } from '../core/words/say.ts';
import { writeFileSync } from 'node:fs';
import { SheetRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import type { CountOptions } from '../core/counting/count.ts';
import { type MadeSheet, type Sheet, USUAL_BPM, makeSheet } from '../core/sheets/sheet.ts';
import { SHEET_KINDS, usualCount } from '../core/sheets/sheetKinds.ts';
import { SHEET_WORDS, sheetQuestionWords, sheetTitle } from '../core/wording/sheetWords.ts';
import type { Voice } from '../core/wording/voice.ts';
import { checked } from './checked.ts';
import { meterOf } from './meterOf.ts';
import { UserError, readPattern } from './readPattern.ts';

const sheetRequest = validator(SheetRequest);

/** The kinds, one a line: the name first. */
export function sheetList(): string {
  const widest = Math.max(...SHEET_KINDS.map((kind) => kind.length));
  return SHEET_KINDS.map((kind) => `${kind.padEnd(widest)}  ${SHEET_WORDS()[kind].about}`).join('\n');
}

/** Throws a UserError that names the kinds there are. */
export function demandSheetKind(kind: string): void {
  if (!SHEET_KINDS.some((one) => one === kind))
    throw new UserError(t`“${kind}” is no kind of sheet: one of ${SHEET_KINDS.join(', ')}`);
}

interface Asked {
  readonly sheet: Sheet;
  readonly made: MadeSheet;
  readonly voice: Voice;
  /** Said where fewer questions came than were asked for. */
  readonly fewer: string | undefined;
}

function asked(request: unknown): Asked {
  const { kind, seed = 0, level = 2, count = usualCount(kind), version, ...wanted } = checked(sheetRequest(request));
  const { elements, meter, beat, cards, text, school = 'numbers', rests } = wanted;
  if (meter !== undefined) meterOf(meter);
  if (text !== undefined) readPattern(text);
  const part = { key: 0, kind, count, level, elements, meter, beat, cards, ...(text ? { patterns: [text] } : {}) };
  const sheet: Sheet = {
    title: sheetTitle([kind]),
    seed,
    paper: wanted.paper ?? 'a4',
    large: wanted.large === true,
    versions: version !== undefined,
    bpm: USUAL_BPM,
    parts: [part],
  };
  const counts: CountOptions = { school, ...(rests ? { rests } : {}) };
  const made = makeSheet(sheet, counts, version);
  const there = made.parts[0]!.questions.length;
  if (there === 0)
    throw new UserError(
      t`nothing to ask about here: choose other elements, another meter or another school for ${kind}`,
    );
  const fewer =
    there < count ? t`only ${there} different ones of ${count}: choose more elements, or another level` : undefined;
  return { sheet, made, voice: { counts, naming: 'quarters' }, fewer };
}

/** The questions with their key, as facts. */
export function sheet(request: unknown): object {
  const { sheet: wanted, made, voice, fewer } = asked(request);
  const { part, questions } = made.parts[0]!;
  const printed = questions.map((question) => {
    const { facts = {}, ...words } = sheetQuestionWords(question, voice);
    return { ...words, ...facts };
  });
  const version = made.version === undefined ? {} : { version: made.version };
  const note = fewer === undefined ? {} : { note: fewer };
  return { kind: part.kind, seed: wanted.seed, ...version, points: made.points, ...note, questions: printed };
}

/** The sheet and its key as a PDF. */
export async function sheetFile(request: unknown, out: string): Promise<string | undefined> {
  const { sheet: wanted, made, voice, fewer } = asked(request);
  const [{ sheetPdf }, { KIT }] = await Promise.all([import('../drawing/sheets/sheetPdf.ts'), import('./drawing.ts')]);
  writeFileSync(out, await sheetPdf({ sheet: wanted, made: [made], voice }, KIT));
  return fewer;
}
