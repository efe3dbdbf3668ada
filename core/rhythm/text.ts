import { perLanguage, t } from '../words/say.ts';
import { COMMON_TIME, LARGEST_UPPER, LOWER_NUMBERS, type Meter, meterText, sameMeter } from './meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from './pattern.ts';
import { plainNumbers } from './plainNumbers.ts';
import { type Dots, VALUE, type ValueLetter, valueText } from './value.ts';

/** Where and why a text could not be read. Line and column count from 1. */
export interface TextError {
  readonly line: number;
  readonly column: number;
  readonly expected: string;
  readonly found: string;
}

export type Parsed = { readonly ok: true; readonly pattern: Pattern } | { readonly ok: false; readonly at: TextError };

/** Longest text that is read: a page is some 2,000 characters. */
export const LONGEST_TEXT = 20_000;
export const MOST_MEASURES = 999;
/** Of a label on a note, and of a rehearsal letter. */
export const LONGEST_LABEL = 40;
/** Notes in the time of others: more of them than this in a group are no rhythm to be read. */
export const LARGEST_TUPLET = 16;
/** The number of a measure on paper. */
export const LARGEST_NUMBER = 9999;

const NOTE_EXPECTED = perLanguage(() => t`a note (w h q e s t), a rest such as (q), or a bar |`);

/** Control characters and halves of characters: no file format can carry them. */
const UNWRITABLE = /[\p{Cc}\p{Cs}\uFFFE\uFFFF]/u;

type MeasureMarks = Pick<Measure, 'number' | 'letter'>;

class Unreadable extends Error {
  constructor(
    readonly position: number,
    readonly expected: string,
  ) {
    super(expected);
  }
}

/** "line 1, column 5: expected …, found “x”" */
export function errorSentence(at: TextError): string {
  return t`line ${at.line}, column ${at.column}: expected ${at.expected}, found ${at.found}`;
}

/**
 * Reads rhythm text (rules §3). A measure that does not add up is read all the same: that is the bar check's to say.
 * @example parseRhythm("3/4 q. e q") // { ok: true, pattern: { pickup: false, measures: [one measure of three items] }
 * }
 * @example parseRhythm("4/4 q x")    // { ok: false, at: { line: 1, column: 7, expected: "a note …", found: "“x”" } }
 */
export function parseRhythm(text: string): Parsed {
  const read = readPlaces(text);
  return read.ok ? { ok: true, pattern: read.pattern } : { ok: false, at: errorAt(text, read) };
}

/** Where a measure stands in the text: its first sign, and a meter before it where one is written. */
export interface MeasurePlace {
  readonly start: number;
  readonly meter?: number;
}

export type ReadPlaces =
  | { readonly ok: true; readonly pattern: Pattern; readonly places: readonly MeasurePlace[] }
  | { readonly ok: false; readonly position: number; readonly expected: string };

/** As `parseRhythm`, with the place of each written measure; an error by its position in the text. */
export function readPlaces(text: string): ReadPlaces {
  const reader = new Reader(text);
  try {
    return { ok: true, pattern: reader.pattern(), places: reader.places };
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    return { ok: false, position: error.position, expected: error.expected };
  }
}

/** What is wrong at a position, by line and column. */
export function errorAt(
  text: string,
  { position, expected }: { readonly position: number; readonly expected: string },
): TextError {
  const before = text.slice(0, position).split('\n');
  const found = position >= text.length ? t`the end` : `“${[...text.slice(position)][0]!.replace('\n', 'a new line')}”`;
  return { line: before.length, column: before.at(-1)!.length + 1, expected, found };
}

/** Reads left to right, one look ahead; throws Unreadable at the first character that cannot stand there. */
class Reader {
  private i = 0;
  private meter: Meter = COMMON_TIME;
  /** A tie that still waits for its second note: where its sign stands. */
  private openTie: number | undefined;
  readonly places: MeasurePlace[] = [];
  /** A meter that was read since the last measure. */
  private meterAt: number | undefined;

  constructor(private readonly text: string) {}

  pattern(): Pattern {
    if (this.text.length > LONGEST_TEXT) throw new Unreadable(LONGEST_TEXT, t`no more than ${LONGEST_TEXT} characters`);
    const measures: Measure[] = [];
    let pickup = false;
    let ended = false;
    let repeatStart = false;
    let marks = this.readMarks({});
    if (this.take('^')) pickup = true;
    marks = this.readMarks(marks);
    if (this.accept(/^\|\|?:/)) repeatStart = true;
    else if (!pickup && this.peek() === '|' && this.text[this.i + 1] !== '|') this.i++;
    marks = this.readMarks(marks);
    if (!pickup && this.take('^')) pickup = true;
    marks = this.readMarks(marks);
    while (!ended && !(this.atEnd() && measures.length > 0)) {
      if (measures.length >= MOST_MEASURES) throw new Unreadable(this.i, t`no more than ${MOST_MEASURES} measures`);
      const measure = this.measure();
      const bar =
        this.accept(/^(:\|\|?:|:\|\|?|\|\|:|\|\||\|:|\|)/) ?? (measure.rests === undefined ? this.endBar() : '|');
      const repeatEnd = bar.startsWith(':|');
      measures.push({
        ...measure,
        ...(repeatStart ? { repeatStart: true as const } : {}),
        ...(repeatEnd ? { repeatEnd: true as const } : {}),
        ...marks,
      });
      marks = {};
      repeatStart =
        bar.endsWith('|:') || (bar.endsWith('|') && !bar.endsWith('||') && this.accept(/^\|\|?:/) !== undefined);
      ended = bar === '||' || bar === ':||';
      if (!ended) marks = this.readMarks(marks);
      if (ended && !this.atEnd()) throw new Unreadable(this.i, t`nothing after the end sign ||`);
      if (repeatStart && this.atEnd()) throw new Unreadable(this.i, t`a measure to repeat after |:`);
      if (this.atEnd() && Object.keys(marks).length > 0) throw new Unreadable(this.i, NOTE_EXPECTED());
    }
    if (this.openTie !== undefined) throw new Unreadable(this.text.length, t`a note for the tie ~ to lead to`);
    return { pickup, measures: plainNumbers(measures, pickup) };
  }

  /** At the end of the text the last bar may be left out. */
  private endBar(): string {
    if (this.atEnd()) return '';
    const rest = this.text.slice(this.i, this.i + 64);
    if (/^\d+\s*\//.test(rest)) throw new Unreadable(this.i, t`a bar | before a change of meter`);
    throw new Unreadable(this.i, /^[#"]/.test(rest) ? t`a bar | before the mark of a measure` : NOTE_EXPECTED());
  }

  /** Measures of rest fill their measure, so the bar after them may be left out. */
  private measure(): { meter: Meter; items: Item[]; rests?: number } {
    const meter = this.meter;
    this.places.push({ start: this.skip(), ...(this.meterAt === undefined ? {} : { meter: this.meterAt }) });
    this.meterAt = undefined;
    const many = this.peek() !== '(' ? undefined : this.accept(/^\(\s*M\s*(\d+)\s*\)/);
    if (many !== undefined) {
      const rests = Number(/\d+/.exec(many)![0]);
      if (rests < 1 || rests > MOST_MEASURES)
        throw new Unreadable(this.i - many.length, t`one to ${MOST_MEASURES} measures of rest, such as (M7)`);
      if (this.openTie !== undefined) throw new Unreadable(this.openTie, t`a note after the tie ~, not a rest`);
      return { meter, items: [], rests };
    }
    const items: Item[] = [];
    for (let item = this.item(); item; item = this.item()) items.push(item);
    if (items.length === 0)
      throw new Unreadable(
        this.i,
        /\d/.test(this.peek()) ? t`a note, or a group such as 3{e e e}` : NOTE_EXPECTED().replace(', or a bar |', ''),
      );
    return { meter, items };
  }

  private item(): Item | undefined {
    const tuplet = !isDigit(this.peek()) ? undefined : this.accept(/^\d+\s*(:\s*\d+\s*)?\{/);
    if (tuplet === undefined) return this.event();
    const at = this.i - tuplet.length;
    const [n, given] = [...tuplet.matchAll(/\d+/g)].map(Number) as [number, number?];
    const m = given ?? usualTime(n);
    if (n < 2 || n > LARGEST_TUPLET || m < 1 || m > LARGEST_TUPLET)
      throw new Unreadable(at, t`a group of 2 to ${LARGEST_TUPLET}, such as 3{e e e} or 5:4{s s s s s}`);
    const events: (Note | Rest)[] = [];
    for (let event = this.event(); event; event = this.event()) events.push(event);
    if (events.length === 0 || !this.take('}')) throw new Unreadable(this.i, t`a note, a rest, or } to end the group`);
    if (this.peek() === '~') throw new Unreadable(this.i, t`the tie ~ on the last note inside the braces`);
    return { kind: 'tuplet', n, m, events };
  }

  private event(): Note | Rest | undefined {
    if (this.take('(')) {
      const value = this.value();
      if (this.peek() === 'M') throw new Unreadable(this.i - 1, t`a bar | before measures of rest`);
      if (!value) throw new Unreadable(this.i, t`the value of a rest (w h q e s t), or M and a number of measures`);
      if (this.peek() === '~') throw new Unreadable(this.i, t`) : a rest cannot be tied`);
      if (!this.take(')')) throw new Unreadable(this.i, t`) to end the rest`);
      if (this.text[this.i] === '.')
        throw new Unreadable(this.i, t`the dot of a rest inside its parentheses, as in (q.)`);
      if (this.peek() === '~') throw new Unreadable(this.i, t`a note or a bar: a rest cannot be tied`);
      if (this.openTie !== undefined) throw new Unreadable(this.openTie, t`a note after the tie ~, not a rest`);
      return { kind: 'rest', value };
    }
    const value = this.value();
    if (!value) return undefined;
    const label = this.label();
    const tieAt = this.skip();
    const tied = this.take('~');
    this.openTie = tied ? tieAt : undefined;
    return { kind: 'note', value, ...(tied ? { tied: true as const } : {}), ...(label === undefined ? {} : { label }) };
  }

  private value(): { base: ValueLetter; dots: Dots } | undefined {
    this.skip();
    const base = this.text[this.i];
    if (base === undefined || !Object.hasOwn(VALUE, base)) return undefined;
    this.i++;
    let dots = 0;
    while (this.text[this.i] === '.') {
      if (dots === 2) throw new Unreadable(this.i, t`at most two dots`);
      dots++;
      this.i++;
    }
    return { base: base as ValueLetter, dots: dots as Dots };
  }

  private label(): string | undefined {
    return this.quoted("'", t`a label in two quotes, such as q'G'`, t`a label`);
  }

  /** What stands between two of the same sign; undefined where there is none. */
  private quoted(sign: string, expected: string, name: string): string | undefined {
    if (this.peek() !== sign) return undefined;
    const from = this.i + 1;
    const to = this.text.indexOf(sign, from);
    const inside = to < 0 ? '' : this.text.slice(from, to).trim();
    if (to < 0 || inside.includes('\n')) throw new Unreadable(this.i, expected);
    const strange = UNWRITABLE.exec(this.text.slice(from, to));
    if (strange) throw new Unreadable(from + strange.index, t`${name} of letters that can be written`);
    if (inside === '' || inside.length > LONGEST_LABEL)
      throw new Unreadable(from, t`${name} of 1 to ${LONGEST_LABEL} letters`);
    this.i = to + 1;
    return inside;
  }

  /** Meter, number and letter, where they may stand: each once, in any order. */
  private readMarks(marks: MeasureMarks): MeasureMarks {
    let { number, letter } = marks;
    for (;;) {
      this.readMeter();
      const sign = this.peek();
      if (sign === '#' && number === undefined) number = this.number();
      else if (sign === '"' && letter === undefined)
        letter = this.quoted('"', t`a letter in two quotes, such as "A"`, t`a rehearsal letter`);
      else break;
    }
    return { ...(number === undefined ? {} : { number }), ...(letter === undefined ? {} : { letter }) };
  }

  private number(): number {
    const written = this.accept(/^#\s*\d*/)!;
    const number = Number(/\d+/.exec(written)?.[0]);
    if (number >= 1 && number <= LARGEST_NUMBER) return number;
    throw new Unreadable(this.i - written.length, t`the number of a measure from 1 to ${LARGEST_NUMBER}, such as #5`);
  }

  /** A meter, where one may stand; it holds until the next. */
  private readMeter(): void {
    const written = this.accept(/^\d+\s*\/\s*\d*/);
    if (written === undefined) return;
    const at = this.i - written.length;
    this.meterAt = at;
    const [upper, lower] = written.split('/').map((part) => Number(part.trim() || Number.NaN)) as [number, number];
    if (!(upper >= 1 && upper <= LARGEST_UPPER))
      throw new Unreadable(at, t`an upper number from 1 to ${LARGEST_UPPER}`);
    if (!LOWER_NUMBERS.includes(lower))
      throw new Unreadable(at + written.indexOf('/') + 1, t`a lower number of 1, 2, 4, 8, 16 or 32`);
    this.meter = { upper, lower };
    if (!this.take('[')) return;
    const from = this.i;
    const inside = this.accept(/^[\d+\s]*/) ?? '';
    if (!this.take(']')) throw new Unreadable(this.i, t`] after the groups, as in 7/8[2+2+3]`);
    const groups = inside.split('+').map((part) => Number(part.trim() || Number.NaN));
    const legal =
      groups.every((size) => Number.isInteger(size) && size > 0) && groups.reduce((a, b) => a + b, 0) === upper;
    if (!legal) throw new Unreadable(from, t`groups that add up to ${upper}, joined by +`);
    this.meter = { upper, lower, groups };
  }

  private skip(): number {
    for (; this.i < this.text.length; this.i++) {
      const code = this.text.charCodeAt(this.i);
      if (code === 32 || (code >= 9 && code <= 13)) continue;
      if (code < 128 || !/\s/.test(this.text[this.i]!)) break;
    }
    return this.i;
  }

  private peek(): string {
    return this.text[this.skip()] ?? '';
  }

  private atEnd(): boolean {
    return this.skip() >= this.text.length;
  }

  private take(sign: string): boolean {
    if (this.peek() !== sign) return false;
    this.i++;
    return true;
  }

  /** Takes what the expression finds right here, white space before it left out. */
  private accept(sign: RegExp): string | undefined {
    const from = this.skip();
    const found = sign.exec(this.text.slice(from, from + 64))?.[0];
    if (found === undefined) return undefined;
    this.i = from + found.length;
    return found;
  }
}

function isDigit(sign: string): boolean {
  return sign >= '0' && sign <= '9';
}

/** n in the time of the next smaller power of two; two and four stand in the time of three. */
function usualTime(n: number): number {
  if (n === 2 || n === 4) return 3;
  return 2 ** Math.floor(Math.log2(Math.max(2, n - 1)));
}

function eventText(event: Note | Rest): string {
  const value = valueText(event.value);
  if (event.kind === 'rest') return `(${value})`;
  return `${value}${event.label === undefined ? '' : `'${event.label}'`}${event.tied ? '~' : ''}`;
}

/** One note, rest or tuplet as rhythm text. */
export function itemText(item: Item): string {
  if (item.kind !== 'tuplet') return eventText(item);
  const ratio = item.n === 3 && item.m === 2 ? '3' : `${item.n}:${item.m}`;
  return `${ratio}{${item.events.map(eventText).join(' ')}}`;
}

/** The items of one measure as rhythm text, without bars: "q. e (q) q". */
export function measureText(measure: Measure): string {
  return measure.rests === undefined ? measure.items.map(itemText).join(' ') : `(M${measure.rests})`;
}

/**
 * The one canonical text of a pattern; parseRhythm reads it back to the same pattern.
 * @example printRhythm(pattern) // "4/4 ^ q | q. e q q |: w :|"
 */
export function printRhythm(pattern: Pattern): string {
  const parts: string[] = [];
  pattern.measures.forEach((measure, i) => {
    const before = pattern.measures[i - 1];
    if (before && !before.repeatEnd && !measure.repeatStart) parts.push('|');
    if (measure.repeatStart && before) parts.push('|:');
    if (!before || !sameMeter(before.meter, measure.meter)) parts.push(meterText(measure.meter));
    if (i === 0 && pattern.pickup) parts.push('^');
    if (measure.repeatStart && !before) parts.push('|:');
    if (measure.number !== undefined) parts.push(`#${measure.number}`);
    if (measure.letter !== undefined) parts.push(`"${measure.letter}"`);
    parts.push(measureText(measure));
    if (measure.repeatEnd) parts.push(':|');
  });
  return parts.join(' ');
}

/** Reads a meter alone: "7/8[2+2+3]". */
export function parseMeter(
  text: string,
): { readonly ok: true; readonly meter: Meter } | { readonly ok: false; readonly at: TextError } {
  const parsed = parseRhythm(`${text} (M1)`);
  return parsed.ok ? { ok: true, meter: parsed.pattern.measures[0]!.meter } : parsed;
}

/** How many notes and rests a pattern writes; used for limits. */
export function eventCount(pattern: Pattern): number {
  const events = (item: Item) => (item.kind === 'tuplet' ? item.events.length : 1);
  return pattern.measures.flatMap(({ items }) => items.map(events)).reduce((a, b) => a + b, 0);
}
