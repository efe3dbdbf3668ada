import { t } from '../words/say.ts';
import { equal } from './fraction.ts';
import { meterText, sameMeter } from './meter.ts';
import type { Measure, Pattern } from './pattern.ts';
import { contentLength } from './place.ts';
import { MOST_PARTS, type Part, type Score, leadingPart, scoreOfPattern } from './score.ts';
import { type Filling, fillingsOf, framesOf, inFrame, pickupLength, restsOfPickup } from './scoreParts.ts';
import {
  LONGEST_LABEL,
  LONGEST_TEXT,
  type MeasurePlace,
  type Parsed,
  type TextError,
  errorAt,
  measureText,
  printRhythm,
  readPlaces,
} from './text.ts';

export type ParsedScore = { readonly ok: true; readonly score: Score } | { readonly ok: false; readonly at: TextError };

/** Thrown inside the reader; a position in the text. */
class Disagrees extends Error {
  constructor(
    readonly position: number,
    readonly expected: string,
  ) {
    super(expected);
  }
}

/** A name in brackets, and where what belongs to it begins and ends. */
interface Section {
  readonly name: string;
  readonly repeats: boolean;
  /** Of the bracket. */
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** A part as it stands in the text. */
interface Written extends Section {
  readonly pattern: Pattern;
  readonly places: readonly MeasurePlace[];
}

const QUOTED = /'[^'\n]*'|"[^"\n]*"/g;
/** What may stand before the first name: a meter, a pickup, a repeat, a number; quoted letters are blanked by then. */
const BEFORE_NAMES = /^[\s\d/[\]+^|:#]*$/;
const METER_BEFORE = /(\d+)\s*\/\s*\d+\s*$/;
/** Brackets end a name, and quotes would begin a label. */
const NAME = /^[^[\]'"\p{Cc}\p{Cs}]+$/u;

const blank = (text: string) => text.replace(/[^\n]/g, ' ');

/** The brackets of a text that hold names: those right after a meter that add up to it are its groups. */
function sectionsOf(text: string): Section[] {
  const bare = text.replace(QUOTED, blank);
  const found: Section[] = [];
  for (let at = bare.indexOf('['); at >= 0; at = bare.indexOf('[', at + 1)) {
    const end = bare.indexOf(']', at);
    if (end < 0) throw new Disagrees(text.length, t`] after the name of a part, as in [clap]`);
    const inside = text.slice(at + 1, end);
    const meter = METER_BEFORE.exec(bare.slice(0, at));
    const upper = Number(meter?.[1]);
    const groups = meter && /^[\d+\s]*$/.test(inside) && (inside.includes('+') || Number(inside) === upper);
    if (groups || (meter && inside.trim() === '')) continue;
    const name = inside.trim().replaceAll(/\s+/g, ' ');
    if (name === '' || name.length > LONGEST_LABEL || !NAME.test(name))
      throw new Disagrees(at + 1, t`the name of a part of 1 to ${LONGEST_LABEL} letters, as in [clap]`);
    if (found.some((other) => other.name.toLowerCase() === name.toLowerCase()))
      throw new Disagrees(at + 1, t`another name: there is a part [${name}] already`);
    if (found.length === MOST_PARTS) throw new Disagrees(at, t`no more than ${MOST_PARTS} parts`);
    const star = /^\s*\*/.exec(bare.slice(end + 1))?.[0].length ?? 0;
    found.push({ name, repeats: star > 0, at, from: end + 1 + star, to: text.length });
  }
  return found.map((section, i) => ({ ...section, to: found[i + 1]?.at ?? text.length }));
}

/** The measures of one part; all else in the text is as good as not there, so that places stay what they are. */
function written(text: string, section: Section, head: number): Written {
  const before = blank(text.slice(head, section.from));
  const read = readPlaces(text.slice(0, head) + before + text.slice(section.from, section.to));
  if (!read.ok) throw new Disagrees(read.position, read.expected);
  return { ...section, pattern: read.pattern, places: read.places };
}

/** "measure 2 of [clap] (line 1, column 12)" */
class Places {
  constructor(
    private readonly text: string,
    private readonly lead: Written,
  ) {}

  of({ name, pattern, places, repeats }: Written, index: number): string {
    const pickup = pattern.pickup || (this.lead.pattern.pickup && !repeats);
    const number = index + (pickup ? 0 : 1);
    const { line, column } = errorAt(this.text, { position: places[writtenAt(pattern, index)]!.start, expected: '' });
    return t`measure ${number} of [${name}] (line ${line}, column ${column})`;
  }
}

/** Index of the written measure that holds a counted one. */
function writtenAt({ measures }: Pattern, index: number): number {
  let left = index;
  const at = measures.findIndex(({ rests = 1 }) => (left -= rests) < 0);
  return at < 0 ? measures.length - 1 : at;
}

/** The measures of a part that is written to its end: as many as the leading one has. */
function asMany(part: Written, lead: Written, place: Places): readonly Filling[] {
  const own = fillingsOf(part.pattern);
  const wanted = framesOf(lead.pattern).length;
  const pickup = lead.pattern.pickup ? 1 : 0;
  if (own.length > wanted)
    throw new Disagrees(
      part.places[writtenAt(part.pattern, wanted)]!.start,
      t`no ${place.of(part, wanted)}: [${lead.name}] ends with ${place.of(lead, wanted - 1)}`,
    );
  if (own.length < wanted)
    throw new Disagrees(
      part.to,
      t`measure ${own.length + 1 - pickup} of [${part.name}], as ${place.of(lead, own.length)}`,
    );
  return own;
}

/** The measures of a part that comes again, as often as it takes; in a pickup that it does not write it rests. */
function again(part: Written, lead: Written, place: Places): readonly Filling[] {
  const all = fillingsOf(part.pattern);
  const own = all.slice(part.pattern.pickup ? 1 : 0);
  const size = framesOf(lead.pattern).length;
  const wanted = size - (lead.pattern.pickup ? 1 : 0);
  if (wanted % own.length !== 0)
    throw new Disagrees(
      part.places[writtenAt(part.pattern, Math.min(all.length - 1, all.length - own.length))]!.start,
      t`a number of measures in [${part.name}] that divides the ${wanted} of
        [${lead.name}]: ${place.of(part, all.length - 1)} is its last,
        ${place.of(lead, size - 1)} the last there`,
    );
  const single = Array.from({ length: wanted / own.length }, () => own)
    .flat()
    .map(({ items }): Filling => ({ items, run: -1 }));
  if (!lead.pattern.pickup) return single;
  const rests = restsOfPickup(pickupLength(lead.pattern), lead.pattern.measures[0]!.meter);
  return [part.pattern.pickup ? all[0]! : { items: rests, run: -1 }, ...single];
}

/** What a part says of its structure has to be what the leading part says; it need not say it. */
function agree(part: Written, lead: Written, place: Places): void {
  const [own, frames] = [framesOf(part.pattern), framesOf(lead.pattern)];
  const { pickup } = part.pattern;
  if (pickup && !lead.pattern.pickup)
    throw new Disagrees(
      part.places[0]!.start,
      t`no pickup ^ before ${place.of(part, 0)}: ${place.of(lead, 0)} is no pickup`,
    );
  // A part that comes again is written once, and has the structure of wherever it stands.
  if (part.repeats) return;
  const repeats = own.some(({ repeatStart, repeatEnd }) => repeatStart || repeatEnd);
  frames.forEach((frame, i) => {
    const mine = own[i];
    if (!mine) return;
    const at = part.places[writtenAt(part.pattern, i)]!;
    const both = t`${place.of(part, i)}, as in ${place.of(lead, i)}`;
    if (at.meter !== undefined && !sameMeter(mine.meter, frame.meter))
      throw new Disagrees(at.meter, t`${meterText(frame.meter)} in ${both}`);
    for (const [sign, key] of [
      ['|:', 'repeatStart'],
      [':|', 'repeatEnd'],
    ] as const)
      if (repeats && mine[key] !== frame[key])
        throw new Disagrees(at.start, t`${frame[key] ? t`the repeat ${sign}` : t`no repeat ${sign}`} in ${both}`);
    if (mine.number !== undefined && mine.number !== frame.number)
      throw new Disagrees(at.start, t`${frame.number === undefined ? t`no number` : `#${frame.number}`} in ${both}`);
    if (mine.letter !== undefined && mine.letter !== frame.letter)
      throw new Disagrees(at.start, t`${frame.letter === undefined ? t`no letter` : `"${frame.letter}"`} in ${both}`);
  });
}

/** A part in the structure of the leading one. */
function partOf(part: Written, lead: Written, text: string): Part {
  const named = { name: part.name };
  if (part === lead) return { ...named, pattern: part.pattern };
  const frames = framesOf(lead.pattern);
  const place = new Places(text, lead);
  const fillings = (part.repeats ? again : asMany)(part, lead, place);
  agree(part, lead, place);
  const pattern = inFrame(lead.pattern.pickup, frames, fillings);
  const [mine, theirs] = [pickupLength(pattern), pickupLength(lead.pattern)];
  if (!equal(mine, theirs))
    throw new Disagrees(
      part.places[0]!.start,
      t`a pickup in ${place.of(part, 0)} that is as long as that in ${place.of(lead, 0)}`,
    );
  const count = fillingsOf(part.pattern).length - (part.pattern.pickup ? 1 : 0);
  return { ...named, pattern, ...(part.repeats ? { ostinato: count } : {}) };
}

function read(text: string): Score {
  if (text.length > LONGEST_TEXT) throw new Disagrees(LONGEST_TEXT, t`no more than ${LONGEST_TEXT} characters`);
  const sections = sectionsOf(text);
  const [first] = sections;
  if (!first) {
    const alone = readPlaces(text);
    if (!alone.ok) throw new Disagrees(alone.position, alone.expected);
    return scoreOfPattern(alone.pattern);
  }
  const head = text.slice(0, first.at);
  const stray = [...head.replace(QUOTED, blank)].findIndex((sign) => !BEFORE_NAMES.test(sign));
  if (stray >= 0) throw new Disagrees(stray, t`the name of the first part, as in [${first.name}], before its notes`);
  if (sections.length === 1)
    throw new Disagrees(text.length, t`a second part after [${first.name}], such as [stamp], or no name`);
  const leading = sections.find(({ repeats }) => !repeats);
  if (!leading) throw new Disagrees(first.from - 1, t`one part without *: it says how many measures there are`);
  const lead = written(text, leading, first.at);
  const parts = sections.map((section) => (section === leading ? lead : written(text, section, 0)));
  return { parts: parts.map((part) => partOf(part, lead, text)) };
}

/**
 * Reads rhythm text in one or several parts (rules §15). All have the meters, the pickup, the repeats and the number of
 * measures of the first part that is written to its end, and need not say them again; a part that says otherwise is an
 * error that names the measures of both.
 * @example parseScore('4/4 [clap] q q h | q e e h [stamp]* h h')  // stamp is repeated: ostinato 1
 */
export function parseScore(text: string): ParsedScore {
  try {
    return { ok: true, score: read(text) };
  } catch (error) {
    if (!(error instanceof Disagrees)) throw error;
    return { ok: false, at: errorAt(text, error) };
  }
}

/** The first part of a text in one or several: where one line is all there can be. */
export function parseLeading(text: string): Parsed {
  const parsed = parseScore(text);
  return parsed.ok ? { ok: true, pattern: leadingPart(parsed.score).pattern } : parsed;
}

/** The measures of a part that has its structure from another: "h h | (M2)". */
function barePart({ pattern: { measures, pickup }, ostinato }: Part, lead: Part): string {
  if (ostinato === undefined) return measures.map((one) => measureText(one)).join(' | ');
  const [first, ...others] = pickup ? measures : [undefined, ...measures];
  const again = others
    .slice(0, ostinato)
    .map((one) => measureText(one!))
    .join(' | ');
  if (!first) return again;
  const { meter } = lead.pattern.measures[0]!;
  const rests: Measure = { meter, items: restsOfPickup(contentLength(first), meter) };
  return measureText(rests) === measureText(first) ? again : `^ ${measureText(first)} | ${again}`;
}

/**
 * The one canonical text of a score; parseScore reads it back to the same score. The meter stands first, each part with
 * its name; what is the same in all is written in the leading part alone.
 * @example "4/4 [clap] |: q q h :| w [stamp]* h h"
 */
export function printScore(score: Score): string {
  const [only] = score.parts;
  if (score.parts.length === 1) return printRhythm(only!.pattern);
  const lead = leadingPart(score);
  const meter = meterText(lead.pattern.measures[0]!.meter);
  // A name of figures would be taken for the groups of the meter before it.
  const figures = /^[\d+\s]+$/.test(only!.name);
  const parts = score.parts.map((part) => {
    const text = part === lead ? printRhythm(part.pattern) : barePart(part, lead);
    const bare = part === lead && !figures ? text.slice(meter.length).trimStart() : text;
    return `[${part.name}]${part.ostinato === undefined ? '' : '*'} ${bare}`;
  });
  return `${figures ? '' : `${meter} `}${parts.join(' ')}`;
}
