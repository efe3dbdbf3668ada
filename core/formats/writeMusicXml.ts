import { type BeamSign, beamSigns, isBeamedWhole } from '../rhythm/beams.ts';
import { type Fraction, frac, mul } from '../rhythm/fraction.ts';
import { type Meter, sameMeter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../rhythm/place.ts';
import type { Part, Score } from '../rhythm/score.ts';
import { partSound } from '../sound/partSounds.ts';
import type { ValueLetter } from '../rhythm/value.ts';
import { TYPE_NAMES, WRITTEN_BY } from './musicXmlNames.ts';

export interface MusicXmlOptions {
  readonly title?: string;
  /** Quarters a minute. */
  readonly quarters?: number;
  /** Words under the notes, by placed measure and event: the counts, for instance. */
  readonly words?: readonly (readonly (string | undefined)[])[];
}

/** A tag with what is in it; undefined and empty parts are left out. */
function tag(name: string, inside: string | number | readonly string[] | undefined, attributes = ''): string {
  const open = attributes === '' ? name : `${name} ${attributes}`;
  if (inside === undefined) return `<${open}/>`;
  return `<${open}>${typeof inside === 'object' ? inside.join('') : escaped(String(inside))}</${name}>`;
}

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => ENTITIES[sign]!);
}

function lcm(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return (a / x) * b;
}

/** So many divisions of a quarter that every length is a whole number of them. */
function divisionsFor(placed: readonly PlacedMeasure[]): number {
  const quarters = placed.flatMap(({ events }) => events.map(({ length }) => mul(length, frac(4)).d));
  return quarters.reduce(lcm, 1);
}

/**
 * A pattern as MusicXML 4: one part of percussion on one line, with beams, ties, groups and repeats. What MusicXML has
 * no sign for (a label, a pickup that is as long as a measure) is said so that `readMusicXml` reads the same pattern.
 */
export function writeMusicXml(pattern: Pattern, { words, ...options }: MusicXmlOptions = {}): string {
  return writeParts([{ name: '', pattern }], { ...options, ...(words ? { words: [words] } : {}) });
}

/** A score of several parts in the same way, a part each; `words` are those of each part. */
export function writeMusicXmlScore({ parts }: Score, options: ScoreXmlOptions = {}): string {
  return writeParts(parts, options);
}

export interface ScoreXmlOptions extends Omit<MusicXmlOptions, 'words'> {
  readonly words?: readonly (MusicXmlOptions['words'] | undefined)[];
}

function writeParts(parts: readonly Part[], { title = '', quarters, words }: ScoreXmlOptions): string {
  const bodies = parts.map(({ pattern }, part) => {
    const placed = placePattern(pattern);
    const facts = { divisions: divisionsFor(placed), id: `P${part + 1}`, words: words?.[part] };
    return placed
      .map((_, i) => measureXml(pattern, placed, i, facts))
      .map((xml, i) =>
        part === 0 && i === 0 && quarters !== undefined
          ? xml.replace('</attributes>', `</attributes>${tempo(quarters)}`)
          : xml,
      );
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>\n',
    '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n',
    '<score-partwise version="4.0">\n',
    title === '' ? '' : tag('work', [tag('work-title', title)]) + '\n',
    tag('identification', [tag('encoding', [tag('software', WRITTEN_BY)])]) + '\n',
    tag('part-list', parts.map(scorePart)) + '\n',
    ...bodies.map((measures, part) => `<part id="P${part + 1}">\n${measures.join('')}</part>\n`),
    '</score-partwise>\n',
  ].join('');
}

function scorePart({ name, ostinato }: Part, index: number): string {
  const id = `P${index + 1}`;
  const { key, title } = partSound(name, index);
  return tag(
    'score-part',
    [
      tag('part-name', name || 'Rhythm'),
      ostinato === undefined ? '' : tag('group', `ostinato ${ostinato}`),
      tag('score-instrument', [tag('instrument-name', title)], `id="${id}-I1"`),
      // MusicXML counts keys from 1.
      tag('midi-instrument', [tag('midi-channel', 10), tag('midi-unpitched', key + 1)], `id="${id}-I1"`),
    ],
    `id="${id}"`,
  );
}

function tempo(quarters: number): string {
  const shown = Math.round(quarters * 100) / 100;
  return tag(
    'direction',
    [
      tag('direction-type', [tag('metronome', [tag('beat-unit', 'quarter'), tag('per-minute', shown)])]),
      tag('sound', undefined, `tempo="${shown}"`),
    ],
    'placement="above"',
  );
}

/** What all measures of a part have in common. */
interface PartFacts {
  readonly divisions: number;
  readonly id: string;
  readonly words: MusicXmlOptions['words'] | undefined;
}

function measureXml(
  pattern: Pattern,
  placed: readonly PlacedMeasure[],
  i: number,
  { divisions, id, words }: PartFacts,
): string {
  const measure = placed[i]!;
  const before = placed[i - 1];
  const written = pattern.measures[measure.written]!;
  const opens = before?.written !== measure.written;
  const closes = placed[i + 1]?.written !== measure.written;
  const parts: string[] = [];
  if (opens && written.repeatStart) parts.push(barline('left', 'heavy-light', 'forward'));
  parts.push(
    attributes(measure, before, divisions, i === 0, opens && (written.rests ?? 0) > 1 ? written.rests : undefined),
  );
  if (measure.letter !== undefined)
    parts.push(tag('direction', [tag('direction-type', [tag('rehearsal', measure.letter)])], 'placement="above"'));
  const beamed = beamSigns(measure);
  measure.events.forEach((_, k) => {
    parts.push(noteXml(measure, k, { divisions, id }, beamed.get(k) ?? [], words?.[i]?.[k]));
  });
  if (closes && written.repeatEnd) parts.push(barline('right', 'light-heavy', 'backward'));
  else if (i === placed.length - 1) parts.push(barline('right', 'light-heavy'));
  const pickup = i === 0 && pattern.pickup ? ' implicit="yes"' : i === 0 ? ' implicit="no"' : '';
  const lines = parts.filter((part) => part !== '').map((part) => `${part}\n`);
  return `${tag('measure', ['\n', ...lines], `number="${measure.number}"${pickup}`)}\n`;
}

function barline(location: 'left' | 'right', style: string, repeat?: 'forward' | 'backward'): string {
  const sign = repeat === undefined ? '' : tag('repeat', undefined, `direction="${repeat}"`);
  return tag('barline', [tag('bar-style', style), sign], `location="${location}"`);
}

function attributes(
  { meter }: PlacedMeasure,
  before: PlacedMeasure | undefined,
  divisions: number,
  first: boolean,
  rests: number | undefined,
): string {
  const parts: string[] = [];
  if (first) parts.push(tag('divisions', divisions));
  if (!before || !sameMeter(before.meter, meter)) parts.push(time(meter));
  if (first) parts.push(tag('clef', [tag('sign', 'percussion')]), tag('staff-details', [tag('staff-lines', 1)]));
  if (rests !== undefined) parts.push(tag('measure-style', [tag('multiple-rest', rests)]));
  return parts.length === 0 ? '' : tag('attributes', parts);
}

/** One group alone is told from none by the kind of the sign: "6/8 counted in six" is no 6/8 of two beats. */
function time({ upper, lower, groups }: Meter): string {
  const beats = groups ? groups.join('+') : upper;
  return tag('time', [tag('beats', beats), tag('beat-type', lower)], groups?.length === 1 ? 'symbol="normal"' : '');
}

function units(length: Fraction, divisions: number): number {
  const exact = mul(length, frac(4 * divisions));
  return exact.n / exact.d;
}

function noteXml(
  measure: PlacedMeasure,
  k: number,
  { divisions, id }: Pick<PartFacts, 'divisions' | 'id'>,
  beamed: readonly BeamSign[],
  word?: string,
): string {
  const { events } = measure;
  const event = events[k]!;
  const { kind, tuplet, value, wholeMeasure } = event;
  const sounds = kind !== 'rest';
  const tiedIn = kind === 'tied';
  const tieds = [...(tiedIn ? ['stop'] : []), ...(event.tiedToNext ? ['start'] : [])];
  const opens = tuplet !== undefined && events[k - 1]?.tuplet !== tuplet;
  const closes = tuplet !== undefined && events[k + 1]?.tuplet !== tuplet;
  const notations = [
    ...tieds.map((type) => tag('tied', undefined, `type="${type}"`)),
    ...(opens
      ? [tag('tuplet', undefined, `type="start" bracket="${isBeamedWhole(measure, tuplet) ? 'no' : 'yes'}"`)]
      : []),
    ...(closes ? [tag('tuplet', undefined, 'type="stop"')] : []),
  ];
  return tag('note', [
    sounds
      ? tag('unpitched', [tag('display-step', 'B'), tag('display-octave', 4)])
      : tag('rest', undefined, wholeMeasure ? 'measure="yes"' : ''),
    tag('duration', units(event.length, divisions)),
    ...tieds.map((type) => tag('tie', undefined, `type="${type}"`)),
    sounds ? tag('instrument', undefined, `id="${id}-I1"`) : '',
    tag('voice', 1),
    ...(wholeMeasure ? [] : typeXml(value.base, value.dots)),
    ...(tuplet ? [tag('time-modification', [tag('actual-notes', tuplet.n), tag('normal-notes', tuplet.m)])] : []),
    sounds && value.base !== 'w' ? tag('stem', 'up') : '',
    ...beamed.map((sign, level) => tag('beam', sign, `number="${level + 1}"`)),
    notations.length > 0 ? tag('notations', notations) : '',
    word === undefined ? '' : tag('lyric', [tag('syllabic', 'single'), tag('text', word)], 'number="1" name="counts"'),
    event.label === undefined
      ? ''
      : tag('lyric', [tag('syllabic', 'single'), tag('text', event.label)], 'number="2" name="label"'),
  ]);
}

function typeXml(base: ValueLetter, dots: number): string[] {
  return [tag('type', TYPE_NAMES[base]), ...Array.from({ length: dots }, () => tag('dot', undefined))];
}
