import { Command, CommanderError } from 'commander';
import { UserError } from './readPattern.ts';

/** Options with what they take, and what they are for. */
const OPTIONS = {
  school: ['--school <way>', 'way of counting: numbers, ta, takadimi …; --system is the same'],
  rests: ['--rests <style>', 'parens, whisper, rest, sh or silent'],
  beat: ['--beat <value>', 'the value that is counted: w, h, q, e or s'],
  meter: ['--meter <meter>', 'such as 3/4'],
  plain: ['--plain', 'the tokens alone, no JSON'],
  batch: ['--batch', 'JSON lines on standard input, one result a line'],
  wav: ['--wav <file>', 'judges a recording'],
  clicks: ['--clicks <seconds>', 'when clicks of the app were played, the first four a count-in: 1.0,1.75,…'],
  takes: ['--takes <file>', 'onsets of single children, a line each: { "onsets": [0, 0.75] }'],
  bpm: ['--bpm <number>', 'beats a minute'],
  start: ['--start <seconds>', 'when beat 1 of measure 1 was due in the recording'],
  free: ['--free', 'there was no click'],
  ages: ['--ages <ages>', '5-6, 7-8, 9-10, 11-13 or musician'],
  now: ['--now <moment>', 'as of when: milliseconds since 1970, or a date'],
  scale: ['--scale <scale>', 'what marks are of: 0-4, 1-5, 6-1, A-F, A-D,F, 0-10, percent, or words with commas'],
  seed: ['--seed <number>', 'the same number gives the same'],
  count: ['--count <number>', 'how many'],
  text: ['--text <rhythm>', 'the rhythm it is about'],
  names: ['--names <names>', 'of the parts, with commas: clap,stamp'],
  answer: ['--answer <rhythm>', 'what was written for it'],
  elements: ['--elements <ids>', 'with commas: quarter,eighth-pair,…'],
  beats: ['--beats <number>', 'how many beats'],
  focus: ['--focus <element>', 'the element that is practised'],
  misreading: ['--misreading <code>', 'the misreading that is practised'],
  measures: ['--measures <number>', 'how many measures; of a file which, such as 5-8'],
  level: ['--level <number>', '1 (easy) to 5'],
  part: ['--part <number>', 'the part of the file, by its number or name; or all of them'],
  voice: ['--voice <name>', 'the voice of the part'],
  letters: ['--letters', 'keeps pitches as letters'],
  eachRest: ['--each-rest', 'draws several measures of rest one by one'],
  paper: ['--paper <size>', 'a4 or letter'],
  version: ['--version <letter>', 'A or B, as hard as each other'],
  large: ['--large', 'large print'],
  cards: ['--cards <size>', 'measures or cells'],
  json: ['--json', 'the questions, no file'],
  out: ['--out <file>', 'the PDF'],
} as const;
type Option = keyof typeof OPTIONS;
const SWITCHES = ['plain', 'batch', 'free', 'letters', 'eachRest', 'large', 'json'] as const;
type Switch = (typeof SWITCHES)[number];

/** Options as they were given. */
export type Given = { readonly [Name in Exclude<Option, Switch>]?: string } & { readonly [Name in Switch]?: boolean };

interface Verb {
  readonly does: string;
  readonly words: string;
  readonly options: readonly Option[];
  readonly example: string;
}

export const COMMANDS = {
  count: {
    does: 'what is said under each note of a rhythm',
    words: '[text]',
    options: ['school', 'rests', 'beat', 'plain', 'batch'],
    example: 'count --school numbers "4/4 q. e q q"',
  },
  check: {
    does: 'whether each measure adds up, and by how much it does not',
    words: '[text]',
    options: ['beat', 'rests', 'batch'],
    example: 'check "3/4 q q | h."',
  },
  say: {
    does: 'the rhythm that was said in syllables',
    words: '[text]',
    options: ['school', 'meter', 'beat', 'batch'],
    example: 'say "ta ti-ti ta-a"',
  },
  score: {
    does: 'judges a take: a request as JSON, from a file or standard input, or a recording',
    words: '[file-or-text]',
    options: ['wav', 'bpm', 'start', 'free', 'ages', 'clicks', 'scale', 'batch'],
    example: 'score --wav take.wav --bpm 80 --start 3 "4/4 q q h"',
  },
  together: {
    does: 'how together a class claps: a recording of it, or the onsets of single children',
    words: '[text]',
    options: ['wav', 'takes', 'bpm', 'start', 'free', 'clicks', 'batch'],
    example: 'together --wav class.wav --bpm 80 --start 3 "4/4 q q h"',
  },
  listen: {
    does: 'the onsets in recordings',
    words: '[files...]',
    options: ['clicks', 'batch'],
    example: 'listen take.wav',
  },
  records: {
    does: 'how each child stands, from takes with child and takenAt, a line each',
    words: '',
    options: ['now', 'scale', 'batch'],
    example: 'records --batch < takes.jsonl',
  },
  ear: {
    does: 'questions for the ear: choose, write, same, signs',
    words: '[question] [text...]',
    options: ['seed', 'count', 'text', 'answer', 'elements', 'meter', 'beats', 'batch'],
    example: 'ear choose --seed 3 --text "4/4 q q e e q"',
  },
  convert: {
    does: 'one file into another, by their endings: .txt .musicxml .xml .mxl .mid .abc .brf .wav .svg .pdf',
    words: '[in] [out] [more...]',
    options: ['part', 'voice', 'measures', 'letters', 'bpm', 'school', 'eachRest', 'batch'],
    example: 'convert song.mid song.musicxml --part 2',
  },
  sheet: {
    does: 'a sheet with its key as a PDF, or its questions; “sheet list” names the kinds',
    words: '[kind] [more...]',
    options: [
      ...(['seed', 'elements', 'level', 'count', 'paper', 'version', 'large', 'meter', 'beat', 'school'] as const),
      ...(['rests', 'cards', 'text', 'out', 'json', 'batch'] as const),
    ],
    example: 'sheet counts --seed 7 --out counts.pdf',
  },
  make: {
    does: 'patterns as hard as each other, one a line',
    words: '[text...]',
    options: ['meter', 'measures', 'elements', 'focus', 'misreading', 'level', 'count', 'seed', 'batch'],
    example: 'make --elements quarter,half --measures 4',
  },
  parts: {
    does:
      'a rhythm in parts: shared out by measures, phrases, beat-and-off or in-turn; with its beat, what is missing, ' +
      'an ostinato or another rhythm joined to it; as a canon; its parts passed on (pass-on)',
    words: '[way] [text...]',
    options: ['text', 'names', 'beats', 'count', 'batch'],
    example: 'parts canon --beats 4 --count 3 "4/4 q q h | q. e h"',
  },
  elements: {
    does: 'the elements of a rhythm, and where they stand',
    words: '[text...]',
    options: ['batch'],
    example: 'elements "4/4 q. e h"',
  },
  level: {
    does: 'how hard a rhythm is to read, and why',
    words: '[text...]',
    options: ['batch'],
    example: 'level "4/4 q. e h"',
  },
} as const satisfies Readonly<Record<string, Verb>>;
export type VerbName = keyof typeof COMMANDS;

/** A command line that is to be done. */
export interface Parsed {
  readonly verb: VerbName;
  readonly values: Given;
  readonly positionals: readonly string[];
}

function subcommand(name: string, { does, words, options, example }: Verb): Command {
  const command = new Command(name).description(does).allowExcessArguments(true).helpOption('-h, --help', 'this');
  if (words !== '') command.arguments(words);
  for (const option of options) command.option(OPTIONS[option][0], OPTIONS[option][1]);
  return command.addHelpText('after', `\nFor example: clapboard ${example}`);
}

/**
 * What the words of one command line ask for.
 * @param words  from the verb on
 * @returns help as text where that is asked for
 * @throws UserError for a verb or option there is not
 */
export function commandIn(words: readonly string[]): Parsed | { readonly help: string } {
  let [parsed, said]: [Parsed | undefined, string] = [undefined, ''];
  const program = new Command('clapboard').description('Counts, judges, makes and converts rhythms.');
  const output = { writeOut: (text: string) => void (said += text), writeErr: () => {} };
  for (const [verb, facts] of Object.entries(COMMANDS) as [VerbName, Verb][]) {
    const command = subcommand(verb, facts);
    command.action(() => void (parsed = { verb, values: command.opts<Given>(), positionals: command.args }));
    program.addCommand(command.exitOverride().configureOutput(output));
  }
  program.option('--language <language>', 'en, de or es: what results and errors are said in');
  program.exitOverride().configureOutput(output).helpOption('-h, --help', 'this; after a verb what it takes');
  const [verb] = words;
  if (verb === undefined) return { help: program.helpInformation().trimEnd() };
  if (!verb.startsWith('-') && verb !== 'help' && !Object.hasOwn(COMMANDS, verb))
    throw new UserError(`unknown verb “${verb}”; the verbs are ${Object.keys(COMMANDS).join(', ')}`);
  try {
    program.parse(
      words.map((word) => word.replace(/^--system(?==|$)/, '--school')),
      { from: 'user' },
    );
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    if (error.exitCode !== 0) throw new UserError(error.message.replace(/^error: /, ''));
  }
  return parsed ?? { help: said.trimEnd() };
}
