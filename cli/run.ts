import { perLanguage, t } from '../core/words/say.ts';
import { type Given, type Parsed, commandIn } from './commands.ts';
import { EAR_VERBS, earBatch, earLines, isEarVerb } from './ear.ts';
import type { Scale } from '../core/judging/scale.ts';
import { speakAsGiven } from './language.ts';
import { scaleIn } from './markScale.ts';
import { UserError } from './readPattern.ts';
import { RecordBook, momentOf } from './records.ts';
import { VERBS, listen, scoreWav } from './verbs.ts';

type SingleVerb = keyof typeof VERBS;

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new UserError(
      t`not JSON: expected one object such as { "pattern": "4/4 q q q q", "bpm": 80,
        "onsets": [0, 0.75] }`,
    );
  }
}

/** What a run reads and writes; every line without its end. */
export interface Surroundings {
  /** Standard input, line by line. */
  readonly lines: () => AsyncIterable<string>;
  /** All of standard input, or of a file. */
  readonly text: (file: string | undefined) => string;
  /** Results; what it gives back is waited for before more is written. */
  readonly out: (text: string) => void | Promise<void>;
  /** What the user should know beside the results. */
  readonly note: (text: string) => void;
}

/** Each line is a request; its result, or its error, goes out with its id, in the same order. */
async function batch(io: Surroundings, run: (request: unknown) => object | Promise<object>): Promise<void> {
  const results: string[] = [];
  const flush = async () => {
    if (results.length > 0) await io.out(results.splice(0).join('\n'));
  };
  for await (const line of io.lines()) {
    if (line.trim() === '') continue;
    results.push(JSON.stringify(await answer(run, line)));
    if (results.length >= 200) await flush();
  }
  await flush();
}

async function answer(run: (request: unknown) => object | Promise<object>, line: string): Promise<object> {
  let id: { id?: unknown } = {};
  try {
    const request = parseJson(line);
    if (typeof request === 'object' && request !== null && 'id' in request) id = { id: request.id };
    return { ...id, ...(await run(request)) };
  } catch (error) {
    if (toMend(error) === undefined) throw error;
    return { ...id, error: (error as Error).message };
  }
}

/** Takes, one a line, and then how each child stands; a line that cannot be read says so and is left out. */
async function records(io: Surroundings, now: string | undefined, scale: { readonly scale?: Scale }): Promise<void> {
  const asOf = now === undefined ? undefined : momentOf(/^-?\d+$/.test(now) ? Number(now) : now);
  const book = new RecordBook();
  let number = 0;
  for await (const line of io.lines()) {
    number++;
    if (line.trim() === '') continue;
    try {
      book.add(inScale(parseJson(line), scale));
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      await io.out(JSON.stringify({ line: number, error: error.message }));
    }
  }
  for (const standing of book.standings(asOf, Date.now())) await io.out(JSON.stringify(standing));
}

/** Seconds, rising, of which the first are a count-in. */
function clicksIn(text: string | undefined): number[] | undefined {
  if (text === undefined) return undefined;
  const times = text.split(',').map((part) => (part.trim() === '' ? Number.NaN : Number(part)));
  if (times.some((time, i) => !Number.isFinite(time) || time < 0 || (i > 0 && time <= times[i - 1]!)))
    throw new UserError(t`--clicks takes seconds that rise, with commas between them: 1.0,1.75,2.5`);
  return times;
}

/** Recordings one after the other; a bad one gets its line and does not stop the rest. */
async function listenAll(
  io: Surroundings,
  paths: readonly string[],
  clicks: readonly number[] | undefined,
): Promise<void> {
  if (paths.length === 0) throw new UserError(t`which recordings? Name the WAV files after listen --batch`);
  for (const file of paths) {
    try {
      await io.out(JSON.stringify({ file, ...listen(file, clicks) }));
    } catch (error) {
      if (toMend(error) === undefined) throw error;
      await io.out(JSON.stringify({ file, error: (error as Error).message }));
    }
  }
}

/** The scale of the command line, where there is one. */
const scaleGiven = ({ scale }: Given): { readonly scale?: Scale } =>
  scale === undefined ? {} : { scale: scaleIn(scale) };

/** A request that names no scale of its own has that of the command line. */
const inScale = (request: unknown, scale: { readonly scale?: Scale }): unknown =>
  typeof request === 'object' && request !== null ? { ...scale, ...request } : request;

/** The rhythm and the tempo of a recording. */
function rhythmAndTempo({ bpm }: Given, positionals: readonly string[]): { pattern: string; bpm: number } {
  const [pattern] = positionals;
  if (pattern === undefined) throw new UserError(t`which rhythm? Put its text in quotes at the end`);
  if (bpm === undefined) throw new UserError(t`which tempo? For example --bpm 80`);
  return { pattern, bpm: Number(bpm) };
}

function scoreRecording({ values, positionals }: Parsed): object {
  const { wav, start, free, ages } = values;
  const request = {
    ...rhythmAndTempo(values, positionals),
    ...(start === undefined ? {} : { start: Number(start) }),
    ...(free ? { free } : {}),
    ...(ages === undefined ? {} : { ages }),
    ...scaleGiven(values),
  };
  return scoreWav(wav!, request, clicksIn(values.clicks));
}

function single(io: Surroundings, verb: SingleVerb, parsed: Parsed): string {
  const { values, positionals } = parsed;
  const [argument, ...others] = positionals;
  if (others.length > 0) throw new UserError(t`one text at a time: put it in quotes`);
  if (verb === 'score') {
    if (values.wav !== undefined) return JSON.stringify(scoreRecording(parsed));
    const request = parseJson(io.text(argument));
    const result: object = VERBS.score(inScale(request, scaleGiven(values)));
    return JSON.stringify(result);
  }
  if (argument === undefined) throw new UserError(t`which rhythm? Put its text in quotes after ${verb}`);
  const { school, rests, beat, meter } = values;
  const options = { ...(rests === undefined ? {} : { rests }), ...(beat === undefined ? {} : { beat }) };
  if (verb === 'check') return JSON.stringify(VERBS.check({ text: argument, ...options }));
  if (verb === 'say') {
    const how = {
      ...(school === undefined ? {} : { school }),
      ...(meter === undefined ? {} : { meter }),
      ...(beat === undefined ? {} : { beat }),
    };
    return JSON.stringify(VERBS.say({ text: argument, ...how }));
  }
  if (school === undefined) throw new UserError(t`which school? For example --school numbers`);
  const counted = VERBS.count({ text: argument, school, ...options });
  return values.plain ? counted.plain : JSON.stringify(counted);
}

const NUMBERS: readonly (keyof Given)[] = ['seed', 'count', 'beats', 'level', 'measures'];

/** Options as a request; what is no number is left for the check to name. */
function requestOf(given: Given, names: readonly (keyof Given)[]): Record<string, unknown> {
  const value = (name: keyof Given) => {
    const said = given[name];
    if (name === 'elements' && typeof said === 'string') return said.split(',').map((one) => one.trim());
    return NUMBERS.includes(name) && typeof said === 'string' && /^\d+$/.test(said) ? Number(said) : said;
  };
  return Object.fromEntries(names.filter((name) => given[name] !== undefined).map((name) => [name, value(name)]));
}

function earRequest({ values, positionals }: Parsed): object {
  const [, said, ...others] = positionals;
  if (others.length > 0) throw new UserError(t`one text at a time: put it in quotes`);
  const text = values.text ?? said;
  return {
    ...requestOf(values, ['seed', 'count', 'beats', 'answer', 'meter', 'elements']),
    ...(text === undefined ? {} : { text }),
  };
}

async function ear(io: Surroundings, parsed: Parsed): Promise<void> {
  const [verb] = parsed.positionals;
  if (!parsed.values.batch) return io.out(earLines(verb, earRequest(parsed)).join('\n'));
  if (!isEarVerb(verb)) throw new UserError(t`which of ${Object.keys(EAR_VERBS).join(', ')}? As in ear write --batch`);
  await batch(io, earBatch(verb));
}

const OF_SHEETS: readonly (keyof Given)[] = [
  'seed',
  'elements',
  'level',
  'count',
  'paper',
  'version',
  'large',
  'meter',
  'beat',
  'school',
  'rests',
  'cards',
  'text',
];

/** A sheet into a file, or its questions; `list` names the kinds. */
async function sheetOf(io: Surroundings, { values, positionals }: Parsed): Promise<void> {
  const { demandSheetKind, sheet, sheetFile, sheetList } = await import('./sheet.ts');
  const [kind, ...others] = positionals;
  if (kind === 'list') return io.out(sheetList());
  if (values.batch) return batch(io, sheet);
  if (kind === undefined || others.length > 0)
    throw new UserError(t`which kind of sheet? One of them, for example: clapboard sheet counts; sheet list names all`);
  demandSheetKind(kind);
  const request = { kind, ...requestOf(values, OF_SHEETS) };
  if (values.json) return io.out(JSON.stringify(sheet(request)));
  if (values.out === undefined) throw new UserError(t`where to? --out FILE.pdf, or --json for its questions`);
  const note = await sheetFile(request, values.out);
  if (note !== undefined) io.note(note);
}

const OF_MAKING: readonly (keyof Given)[] = [
  'meter',
  'measures',
  'elements',
  'focus',
  'misreading',
  'level',
  'count',
  'seed',
];

/** Patterns, one a line; or what is in one, and how hard it is. */
async function makingOf(
  io: Surroundings,
  verb: 'make' | 'elements' | 'level',
  { values, positionals }: Parsed,
): Promise<void> {
  const making = await import('./making.ts');
  if (values.batch) return batch(io, making[verb]);
  const [text, ...others] = positionals;
  if (verb === 'make') {
    if (text !== undefined)
      throw new UserError(t`make takes no text: say what it is made of, as in --elements quarter,half`);
    const { patterns, note } = making.make(requestOf(values, OF_MAKING));
    if (note !== undefined) io.note(note);
    return io.out(patterns.map((pattern) => JSON.stringify(pattern)).join('\n'));
  }
  if (text === undefined) throw new UserError(t`which rhythm? Put its text in quotes after ${verb}`);
  if (others.length > 0) throw new UserError(t`one text at a time: put it in quotes`);
  await io.out(JSON.stringify(making[verb]({ text })));
}

/** A rhythm in parts. */
async function partsOf(io: Surroundings, { values, positionals }: Parsed): Promise<void> {
  const { parts } = await import('./parts.ts');
  if (values.batch) return batch(io, parts);
  const [way, text, ...others] = positionals;
  if (text === undefined || others.length > 0)
    throw new UserError(t`which way, and which rhythm? For example: clapboard parts beat "4/4 q. e h"`);
  const { text: other, count, ...given } = requestOf(values, ['text', 'beats', 'count']);
  const names = values.names?.split(',').map((name) => name.trim());
  const request = {
    way,
    text,
    ...given,
    ...(other === undefined ? {} : { other }),
    ...(count === undefined ? {} : { voices: count }),
    ...(names === undefined ? {} : { names }),
  };
  await io.out(JSON.stringify(parts(request)));
}

/** How together a class is. */
async function togetherOf(io: Surroundings, { values, positionals }: Parsed): Promise<void> {
  const { together, togetherOfTakes } = await import('./together.ts');
  if (values.batch) return batch(io, together);
  const { wav, takes, start, free, clicks } = values;
  const asked = rhythmAndTempo(values, positionals);
  if ((wav === undefined) === (takes === undefined))
    throw new UserError(t`what was clapped? A recording with --wav FILE, or single takes with --takes FILE.jsonl`);
  if (takes !== undefined) return io.out(JSON.stringify(togetherOfTakes(takes, asked, free ?? false)));
  const times = clicksIn(clicks);
  const request = {
    wav,
    ...asked,
    ...(start === undefined ? {} : { start: Number(start) }),
    ...(free ? { free } : {}),
    ...(times === undefined ? {} : { clicks: times }),
  };
  await io.out(JSON.stringify(together(request)));
}

/** One file into another; what its rhythm leaves out is said on standard error. */
async function convertFile(io: Surroundings, { values, positionals }: Parsed): Promise<void> {
  const [from, out, ...others] = positionals;
  if (from === undefined || out === undefined || others.length > 0)
    throw new UserError(t`which file into which? For example: clapboard convert song.musicxml song.txt`);
  const { part, voice, measures, letters, bpm, school, eachRest } = values;
  const { convert, leavingsLine } = await import('./convert.ts');
  const converted = await convert({
    in: from,
    out,
    ...(part === undefined ? {} : { part }),
    ...(voice === undefined ? {} : { voice }),
    ...(measures === undefined ? {} : { measures }),
    ...(letters === undefined ? {} : { letters }),
    ...(bpm === undefined ? {} : { bpm: Number(bpm) }),
    ...(school === undefined ? {} : { school }),
    ...(eachRest === undefined ? {} : { eachRest }),
  });
  const line = leavingsLine(converted);
  if (line !== undefined) io.note(line.replaceAll('\n', ' '));
}

/**
 * Does what the words of one command line say. Throws a UserError, or what the file system says, where the user can
 * mend it; `endOf` makes of any error how the command ends.
 * @param words  from the verb on
 */
export async function run(words: readonly string[], io: Surroundings): Promise<void> {
  const parsed = commandIn(await speakAsGiven(words));
  if ('help' in parsed) return io.out(parsed.help);
  const { verb } = parsed;
  if (verb === 'records') {
    if (!parsed.values.batch) throw new UserError(t`records reads takes line by line: clapboard records --batch`);
    return records(io, parsed.values.now, scaleGiven(parsed.values));
  }
  if (verb === 'ear') return ear(io, parsed);
  if (verb === 'convert') {
    if (!parsed.values.batch) return convertFile(io, parsed);
    const { convert } = await import('./convert.ts');
    return batch(io, convert);
  }
  if (verb === 'sheet') return sheetOf(io, parsed);
  if (verb === 'parts') return partsOf(io, parsed);
  if (verb === 'make' || verb === 'elements' || verb === 'level') return makingOf(io, verb, parsed);
  if (verb === 'together') return togetherOf(io, parsed);
  if (verb === 'listen') {
    const clicks = clicksIn(parsed.values.clicks);
    if (parsed.values.batch) return listenAll(io, parsed.positionals, clicks);
    const [path, ...others] = parsed.positionals;
    if (path === undefined || others.length > 0)
      throw new UserError(t`one recording at a time: clapboard listen FILE.wav, or listen --batch for many`);
    return io.out(JSON.stringify(listen(path, clicks)));
  }
  if (parsed.values.batch && verb === 'score') {
    const scale = scaleGiven(parsed.values);
    return batch(io, (request) => VERBS.score(inScale(request, scale)));
  }
  if (parsed.values.batch) return batch(io, VERBS[verb]);
  return io.out(single(io, verb, parsed));
}

/** What can be wrong with a file that was named, in words. */
const OF_FILES = perLanguage((): Readonly<Record<string, string>> => ({
  ENOENT: t`no such file or folder:`,
  ENOTDIR: t`no such file or folder:`,
  EISDIR: t`this is a folder, not a file:`,
  EACCES: t`you may not read or write`,
}));

/** What is said of something the user can mend; undefined for a mistake of ours. */
function toMend(error: unknown): string | undefined {
  if (error instanceof UserError) return error.message;
  const { code = '', path = t`where you read from` } = error as NodeJS.ErrnoException;
  const trouble = OF_FILES()[code];
  return trouble === undefined ? undefined : `${trouble} ${path}`;
}

/** How a command ends that met an error: its exit code, and what is said on standard error. */
export function endOf(error: NodeJS.ErrnoException): { readonly code: number; readonly said: string } {
  const said = toMend(error);
  if (said !== undefined) return { code: 2, said: t`clapboard: ${said.replaceAll('\n', ' ')}` };
  return { code: 1, said: error.stack ?? error.message };
}
