import { type Fraction, compare, frac, mul } from '../rhythm/fraction.ts';
import { beams } from '../rhythm/beams.ts';
import { type Meter, meterLength, sameMeter } from '../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../rhythm/pattern.ts';
import { type PlacedMeasure, contentLength, placePattern } from '../rhythm/place.ts';
import type { Score } from '../rhythm/score.ts';
import { lengthOf } from '../rhythm/value.ts';
import { abcWords } from './abcText.ts';
import { WRITTEN_BY } from './musicXmlNames.ts';

export interface AbcOptions {
  readonly title?: string;
  /** Quarters a minute. */
  readonly quarters?: number;
  /** The number of the tune in its file. */
  readonly index?: number;
}

/** Lengths are written in eighths. */
const UNIT = frac(1, 8);
const MEASURES_A_LINE = 4;
/** General MIDI 116, wood block, counted from 0: whatever plays the tune sounds like a rhythm. */
const WOOD_BLOCK = 115;

/**
 * A pattern as one tune of ABC 2.1. What ABC has no sign for (a full pickup, a label) is said in `I:` fields and
 * annotations, so that `readAbc` reads the same pattern.
 */
export function writeAbc(pattern: Pattern, options: AbcOptions = {}): string {
  return `${[...headerOf(pattern, options), ...body(pattern)].join('\n')}\n`;
}

/** A score of several parts in the same way, a voice each. */
export function writeAbcScore({ parts }: Score, options: AbcOptions = {}): string {
  const named = parts.map(({ name }, i) => `V:${i + 1} name="${abcWords(name)}" clef=perc`);
  const voices = parts.flatMap(({ pattern, ostinato }, i) => [
    `V:${i + 1}`,
    ...(ostinato === undefined ? [] : [`I:ostinato ${ostinato}`]),
    ...body(pattern),
  ]);
  return `${[...headerOf(parts[0]!.pattern, options, named), ...voices].join('\n')}\n`;
}

function headerOf(
  pattern: Pattern,
  { title = '', quarters, index = 1 }: AbcOptions,
  voices: readonly string[] = [],
): string[] {
  const first = pattern.measures[0]!;
  return [
    `X:${index}`,
    `T:${abcWords(title) || 'Rhythm'}`,
    `%%abc-creator ${WRITTEN_BY}`,
    `M:${meterSign(first.meter)}`,
    'L:1/8',
    ...(quarters === undefined ? [] : [`Q:1/4=${Math.round(quarters)}`]),
    ...voices,
    'K:C clef=perc',
    `%%MIDI program ${WOOD_BLOCK}`,
  ];
}

function meterSign({ upper, lower, groups }: Meter): string {
  return groups ? `(${groups.join('+')})/${lower}` : `${upper}/${lower}`;
}

/** What would be taken for a pickup: a first measure that is short. */
function looksLikePickup({ measures }: Pattern): boolean {
  const first = measures[0]!;
  return measures.length > 1 && compare(contentLength(first), meterLength(first.meter)) < 0;
}

function body(pattern: Pattern): string[] {
  const placed = placePattern(pattern);
  const lines: string[] = [];
  let line = '';
  pattern.measures.forEach((measure, i) => {
    const before = pattern.measures[i - 1];
    const parts: string[] = [];
    if (i === 0 && pattern.pickup !== looksLikePickup(pattern))
      parts.push(`[I:pickup ${pattern.pickup ? 'yes' : 'no'}]`);
    if (before && !sameMeter(before.meter, measure.meter)) parts.push(`[M:${meterSign(measure.meter)}]`);
    if (measure.number !== undefined) parts.push(`[I:setbarnb ${measure.number}]`);
    if (measure.letter !== undefined) parts.push(`[P:${abcWords(measure.letter)}]`);
    const own = placed.find(({ written }) => written === i)!;
    parts.push(measure.rests === undefined ? notes(measure, own) : measure.rests === 1 ? 'Z' : `Z${measure.rests}`);
    const last = i === pattern.measures.length - 1;
    const bar = measure.repeatEnd ? ':|' : last ? '|]' : pattern.measures[i + 1]?.repeatStart ? '' : '|';
    line += `${measure.repeatStart ? '|: ' : ''}${parts.join(' ')} ${bar} `.replace(/ {2,}$/, ' ');
    if (last || (i + 1) % MEASURES_A_LINE === 0) {
      lines.push(line.trim());
      line = '';
    }
  });
  return lines;
}

/** The notes of a measure; those under one beam stand together. */
function notes(measure: Measure, placed: PlacedMeasure): string {
  const joined = new Set(beams(placed).flatMap((group) => group.slice(1)));
  let at = 0;
  let text = '';
  const put = (event: Note | Rest, before = '') => {
    text += `${at > 0 && !joined.has(at) ? ' ' : ''}${before}${eventText(event)}`;
    at++;
  };
  for (const item of measure.items) {
    if (item.kind !== 'tuplet') put(item);
    else item.events.forEach((event, k) => put(event, k === 0 ? groupSign(item) : ''));
  }
  return text;
}

function groupSign({ n, m, events }: Extract<Item, { kind: 'tuplet' }>): string {
  return n === 3 && m === 2 && events.length === 3 ? '(3' : `(${n}:${m}:${events.length}`;
}

function eventText(event: Note | Rest): string {
  const length = lengthText(mul(lengthOf(event.value), frac(UNIT.d, UNIT.n)));
  if (event.kind === 'rest') return `z${length}`;
  const label = event.label === undefined ? '' : `"^${abcWords(event.label)}"`;
  return `${label}B${length}${event.tied ? '-' : ''}`;
}

function lengthText({ n, d }: Fraction): string {
  return `${n === 1 ? '' : n}${d === 1 ? '' : `/${d}`}`;
}
