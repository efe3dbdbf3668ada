import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { countPattern, plainCounts } from '../../core/counting/count.ts';
import { type CountingSystemId, COUNTING_SYSTEMS } from '../../core/counting/countingSystems.ts';
import { fallsApartAt } from '../../core/ensemble/apart.ts';
import { classHeard } from '../../core/ensemble/classHeard.ts';
import { fewerFrom } from '../../core/ensemble/fewer.ts';
import { strikesOfTakes } from '../../core/ensemble/strikes.ts';
import { OUT_FACTS, type OutId } from '../../core/formats/formatFacts.ts';
import { EXTRA_KINDS } from '../../core/judging/extras.ts';
import { judge } from '../../core/judging/judge.ts';
import { driftAllowed } from '../../core/judging/mark.ts';
import { MISREADING_CODES } from '../../core/judging/misreadings/table.ts';
import { usualBorders } from '../../core/judging/scale.ts';
import { AGES, windowsFor } from '../../core/judging/windows.ts';
import { USUAL_MINUTES } from '../../core/planning/lesson.ts';
import { type ElementRecord, stateOf, withTake } from '../../core/records/mastery.ts';
import { barCheck } from '../../core/rhythm/barCheck.ts';
import { ELEMENT_IDS } from '../../core/rhythm/elements.ts';
import { abs, div, frac, mixed, sub, toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf, beatsInMeasure, meterKind } from '../../core/rhythm/meter.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { soundsTheSame } from '../../core/rhythm/soundings.ts';
import { parseScore, printScore } from '../../core/rhythm/scoreText.ts';
import { parseMeter, parseRhythm, printRhythm } from '../../core/rhythm/text.ts';
import { type Dots, type ValueLetter, lengthOf, valueOfLength, valueText } from '../../core/rhythm/value.ts';
import { SHEET_KINDS } from '../../core/sheets/sheetKinds.ts';
import { valueName } from '../../core/wording/valueNames.ts';

const RULES = readFileSync('docs/rules.md', 'utf8');
const DAY_MS = 24 * 60 * 60 * 1000;

const cellsOf = (line: string) =>
  line
    .split(/(?<!\\)\|/)
    .slice(1, -1)
    .map((cell) => cell.trim().replaceAll('\\|', '|').replaceAll('`', ''));

/** The rows of the one table whose heading begins so. */
function table(heading: string): string[][] {
  const lines = RULES.split('\n');
  const heads = lines.flatMap((line, i) => (line.startsWith(`| ${heading} |`) ? [i] : []));
  expect([heading, heads.length]).toEqual([heading, 1]);
  const from = heads[0]! + 2;
  const to = lines.findIndex((line, i) => i >= from && !line.startsWith('|'));
  const rows = lines.slice(from, to < 0 ? undefined : to).map(cellsOf);
  expect(rows.length).toBeGreaterThan(1);
  return rows;
}

function pattern(text: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(`no rhythm: ${text}`);
  return parsed.pattern;
}

const value = (text: string) => ({ base: text[0] as ValueLetter, dots: (text.length - 1) as Dots });

describe('the tables of the rules say what the core does', () => {
  it('§1 values', () => {
    for (const [text, name, part, beats, other] of table('written | name')) {
      const length = lengthOf(value(text!));
      const said = [mixed(length), mixed(div(length, frac(1, 4))), valueName(value(text!), 'quarters')];
      expect([text, ...said, valueName(value(text!), 'crotchets')]).toEqual([text, part, beats, name, other]);
    }
  });

  it('§1 whether measures add up', () => {
    for (const [text, said] of table('rhythm | measures')) {
      const reports = barCheck(pattern(text!)).map(({ verdict, total, expected }) => {
        const off = abs(sub(total, expected));
        return verdict === 'short' || verdict === 'over' ? `${mixed(off)} beat ${verdict}` : verdict;
      });
      expect([text, reports.join(', ')]).toEqual([text, said]);
    }
  });

  it('§2 meters', () => {
    for (const [text, kind, beats, beat] of table('meter | kind')) {
      const parsed = parseMeter(text!);
      if (!parsed.ok) throw new Error(text);
      const { meter } = parsed;
      const is = [meterKind(meter), mixed(beatsInMeasure(meter)), valueText(valueOfLength(beatOf(meter).length)!)];
      expect([text, ...is]).toEqual([text, kind, beats, beat]);
    }
  });

  it('§3 rhythm text', () => {
    for (const [typed, printed] of table('typed | printed')) expect(printRhythm(pattern(typed!))).toBe(printed);
  });

  it('§4 counts', () => {
    const [heading] = RULES.split('\n').filter((line) => line.startsWith('| rhythm | numbers |'));
    const ways = cellsOf(heading!).slice(1) as CountingSystemId[];
    for (const [text, ...cells] of table('rhythm | numbers'))
      ways.forEach((school, i) => {
        const counted = countPattern(pattern(text!), { school });
        expect([text, school, counted.ok ? plainCounts(counted.measures) : '–']).toEqual([text, school, cells[i]]);
      });
    for (const [, name] of RULES.matchAll(/`(pulses|note-names|within-note|words)`/g))
      expect(COUNTING_SYSTEMS()).toHaveProperty(name!);
  });

  it('§7 what sounds the same', () => {
    for (const [one, other, same] of table('one | other'))
      expect([one, soundsTheSame(pattern(one!), pattern(other!)) ? 'yes' : 'no']).toEqual([one, same]);
  });

  it('§8 windows, and where else a clap can fall', () => {
    const windows = AGES.map((ages) => [ages, String(Math.round(windowsFor(ages).onTime * 1000))]);
    expect(table('ages | on time within ± ms')).toEqual(windows);
    expect(RULES).toContain(EXTRA_KINDS.map((kind) => `\`${kind}\``).join(' '));
  });

  it('§8 misreadings: each code, and the judge names it', () => {
    const rows = table('code | what the child did');
    expect(rows.map(([code]) => code).sort()).toEqual([...MISREADING_CODES].sort());
    for (const [code, , text, claps, place] of rows) {
      const judged = judge({ pattern: pattern(text!), bpm: 60, onsets: claps!.split(' ').map(Number) });
      if (!judged.ok) throw new Error(code);
      const named = judged.result.misreadings.map((one) => `${one.code} ${one.measure}, ${toNumber(one.beat)}`);
      expect(named).toEqual([`${code} ${place}`]);
    }
  });

  it('§8 marks', () => {
    const percent = (drift: number) => (Number.isFinite(drift) ? `${drift} %` : '');
    const borders = usualBorders('0-4').map((border) => [
      String(border.mark),
      border.accuracy.toFixed(2).slice(1),
      percent(driftAllowed(border)),
      percent(driftAllowed(border, true)),
    ]);
    expect(table('mark | accuracy from')).toEqual(borders);
  });

  it('§9 states of an element', () => {
    for (const [places, state, later, then] of table('places, each on a day of its own | state')) {
      let record: ElementRecord | undefined;
      const told = places!.split(' ');
      told.forEach((place, day) => {
        const right = place === 'right' ? 1 : 0;
        const heard = { element: 'tie', measures: 1, right, misread: 1 - right, notTold: 0 } as const;
        record = withTake(record, heard, day * DAY_MS);
      });
      const at = (day: number) => stateOf(record!, (told.length - 1 + day) * DAY_MS);
      expect([places, at(0), at(Number(later))]).toEqual([places, state, then]);
    }
    expect(table('element')).toEqual(ELEMENT_IDS.map((id) => [id]));
  });

  it('§12 blocks, §13 kinds of sheets, §14 formats', () => {
    expect(table('block | usual minutes')).toEqual(Object.entries(USUAL_MINUTES).map(([kind, n]) => [kind, String(n)]));
    expect(table('kind | what it is').map(([kind]) => kind)).toEqual(SHEET_KINDS);
    const formats = Object.entries(OUT_FACTS()).map(
      ([id, { endings, many }]: [string, ReturnType<typeof OUT_FACTS>[OutId]]) => [id, endings[0], many ? 'yes' : 'no'],
    );
    expect(table('written as | ends in')).toEqual(formats);
  });
  it('§15 parts', () => {
    for (const [text, printed] of table('in parts | printed')) {
      const read = parseScore(text!);
      expect([text, read.ok && printScore(read.score)]).toEqual([text, printed]);
    }
    for (const [text, said] of table('parts that disagree | what is said')) {
      const read = parseScore(text!);
      // The sentence says where both stand as well.
      const plain = read.ok ? 'read' : read.at.expected.replaceAll(/ \(line \d+, column \d+\)/g, '');
      expect([text, plain.startsWith(said!)]).toEqual([text, true]);
    }
  });
  it('§17 a class together', () => {
    const numbers = (cells: string) => cells.split(',').map(Number);
    for (const [claps, wide, before] of table('claps of a note, ms after its beat')) {
      const takes = numbers(claps!).map((ms) => [0, 1, 2, 3].map((beat) => beat + ms / 1000));
      const [note] = classHeard(pattern('4/4 q q q q'), 60, strikesOfTakes(takes)).notes;
      expect([claps, note!.widthMs, note!.aheadMs]).toEqual([claps, Number(wide), Number(before)]);
    }
    for (const [widths, from] of table('widths note by note, ms'))
      expect([widths, String(fallsApartAt(numbers(widths!)) ?? '–')]).toEqual([widths, from]);
    for (const [loudness, said] of table('loudness note by note')) {
      const fewer = fewerFrom(numbers(loudness!));
      expect([loudness, fewer ? `${fewer.kind} at ${fewer.index}: ${fewer.share.toFixed(1)}` : '–']).toEqual([
        loudness,
        said,
      ]);
    }
  });
});

it('the code names chapters that are there', () => {
  const chapters = [...RULES.matchAll(/^## (\d+) /gm)].map(([, number]) => Number(number));
  expect(chapters).toEqual(Array.from({ length: 17 }, (_, i) => i + 1));
});
