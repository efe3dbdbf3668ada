import { t } from '../../../core/words/say.ts';
import { itemStarts } from '../../../core/exercises/rhythms/cells.ts';
import { countPattern } from '../../../core/counting/count.ts';
import { type Fraction, ZERO, add, compare, div, equal, sub, sum, toNumber } from '../../../core/rhythm/fraction.ts';
import { type Meter, beamGroups, beatOf, meterText } from '../../../core/rhythm/meter.ts';
import type { Item, Pattern } from '../../../core/rhythm/pattern.ts';
import { itemLength } from '../../../core/rhythm/place.ts';
import { OPTION_LETTERS } from '../../../core/wording/earWords.ts';
import { offWords } from '../../../core/wording/sheetWords.ts';
import { measureName } from '../../../core/wording/valueNames.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { wrapped } from '../../lettering.ts';
import { POINTS, type WrittenText } from '../../pdfPen.ts';
import type { Shape } from '../../strokes.ts';
import { type Block, extent, line, moved, movedTexts, ring, together } from '../block.ts';
import type { DrawQuestion, SheetInk } from '../drawQuestion.ts';
import { gapBox, neededWidth, pairLines, scoreBlock, scoreLines } from '../score.ts';

/** The notes with lines to write the counts on; in the key, the counts. */
export const drawCounts: DrawQuestion<'counts'> = ({ pattern }, ink, filled) =>
  scoreBlock(pattern, ink, {
    width: ink.width,
    counts: ink.voice.counts,
    show: filled ? 'counts' : 'lines',
    alt: t`A rhythm`,
  });

/** One measure with a box where a note or rest is missing. */
export const drawComplete: DrawQuestion<'complete'> = ({ pattern, gap }, ink, filled) => {
  const without = filled ? undefined : { event: (_measure: number, event: number) => event === gap };
  const width = Math.min(ink.width, MEASURE_WIDTH);
  const [full] = scoreLines(pattern, ink, { width });
  const [drawn] = scoreLines(pattern, ink, { width, without });
  // Both as high as with all notes, so that the key stands like the sheet.
  const lift = full!.middle - drawn!.middle;
  return {
    tag: 'Figure',
    alt: t`A measure with one note or rest missing`,
    width,
    height: Math.max(full!.height, full!.middle + 12),
    shapes: [...moved(drawn!.shapes, 0, lift), gapBox(full!.measures[0]!.xs[gap]!, full!.middle)],
    texts: [],
  };
};

/** A single measure is not drawn wider than this. */
const MEASURE_WIDTH = 380;

/** Points of the shortest note in a line without bar lines. */
const LEAST = 13;
const LEAST_WHOLE = 150;
/** In front of the first note, its meter sign; as the ruler has it, in points. */
const BEFORE = (104 - 44) * POINTS;
const AFTER = 14 * POINTS;
/** Half the height of a bar line that is drawn by hand. */
const BAR_HALF = 22;
/** How far before its beat a bar line stands. */
const BAR_BEFORE = 13 * 1.15 * POINTS;

interface Unbarred {
  readonly pattern: Pattern;
  readonly from: Fraction;
  readonly length: Fraction;
}

/** Where a line may be broken: on a beat, or in meters of eighths between groups. */
function borders(meter: Meter, until: Fraction): Fraction[] {
  const steps = meter.lower >= 8 ? beamGroups(meter) : [beatOf(meter).length];
  const all: Fraction[] = [];
  for (let at = ZERO, i = 0; compare(at, until) < 0; i++) all.push((at = add(at, steps[i % steps.length]!)));
  return all;
}

/** One long measure; its beams follow the beats all the same. */
function unbarred(meter: Meter, items: readonly Item[]): Pattern {
  const units = div(sum(items.map(itemLength)), { n: 1, d: meter.lower });
  const upper = Math.ceil(toNumber(units));
  const groups = meter.lower >= 8 ? groupsFor(meter, upper) : undefined;
  return { pickup: false, measures: [{ meter: { ...meter, upper, ...(groups ? { groups } : {}) }, items }] };
}

function groupsFor(meter: Meter, upper: number): number[] {
  const sizes = beamGroups(meter).map((size) => toNumber(size) * meter.lower);
  const groups: number[] = [];
  for (let left = upper, i = 0; left > 0; i++) {
    const size = Math.min(left, sizes[i % sizes.length]!);
    groups.push(size);
    left -= size;
  }
  return groups;
}

/**
 * All measures without their bar lines, cut into lines that are about as long. A line is not cut at a bar line, which
 * would give it away, unless nothing else is left.
 */
function linesWithout(pattern: Pattern, most: number): Unbarred[] {
  const { meter } = pattern.measures[0]!;
  const items = pattern.measures.flatMap((measure) => measure.items);
  const full = sum(items.map(itemLength));
  const bars = new Set(barTimes(pattern).map(toNumber));
  const starts = itemStarts(items);
  const wanted = Math.ceil(toNumber(full) / most - 1e-9);
  const places = borders(meter, full).filter(
    (at) => starts.some((start) => equal(start, at)) && !isTied(items, starts, at),
  );
  const lines: Unbarred[] = [];
  let from = ZERO;
  for (let nth = 1; compare(from, full) < 0; nth++) {
    const ideal = (toNumber(full) * nth) / wanted;
    const cost = (at: Fraction) => Math.abs(toNumber(at) - ideal) + (bars.has(toNumber(at)) ? 0.6 : 0);
    const open = places.filter((at) => compare(at, from) > 0 && toNumber(sub(at, from)) <= most + 1e-9);
    const rest = toNumber(sub(full, from)) <= most + 1e-9;
    const to = rest || open.length === 0 ? full : open.reduce((best, at) => (cost(at) < cost(best) ? at : best));
    const inside = items.filter((_, i) => compare(starts[i]!, from) >= 0 && compare(starts[i]!, to) < 0);
    lines.push({ pattern: unbarred(meter, inside), from, length: sub(to, from) });
    from = to;
  }
  return lines;
}

function isTied(items: readonly Item[], starts: readonly Fraction[], at: Fraction): boolean {
  const before = items[starts.findIndex((start) => equal(start, at)) - 1];
  return before?.kind === 'note' && before.tied === true;
}

/** Where the bar lines belong, from the first note. */
function barTimes({ measures }: Pattern): Fraction[] {
  let at = ZERO;
  return measures.slice(0, -1).map(({ items }) => (at = add(at, sum(items.map(itemLength)))));
}

export const drawBarLines: DrawQuestion<'bar-lines'> = ({ pattern }, ink, filled) => {
  const items = pattern.measures.flatMap((measure) => measure.items);
  const shortest = Math.min(...items.map((item) => toNumber(itemLength(item)) / (item.kind === 'tuplet' ? item.n : 1)));
  const usable = ink.width - BEFORE - AFTER;
  const whole = Math.max(LEAST_WHOLE, LEAST / shortest);
  const lines = linesWithout(pattern, usable / whole);
  const longest = Math.max(...lines.map(({ length }) => toNumber(length)));
  // All lines to one scale.
  const scale = Math.min(usable / longest, 2 * whole);
  const bars = barTimes(pattern);
  const shapes: Shape[] = [];
  let y = 0;
  lines.forEach((one, i) => {
    const last = i === lines.length - 1;
    const width = BEFORE + AFTER + toNumber(one.length) * scale;
    const [score] = scoreLines(one.pattern, ink, { width, byTime: true, without: { end: !last, meter: true } });
    const own = i === 0 ? meterShapes(pattern, ink, score!.middle) : [];
    // The figures of the meter and the bar lines of the key may be higher than the notes.
    y += Math.max(0, BAR_HALF - score!.middle, own.length > 0 ? -extent(own).top : 0);
    shapes.push(...moved([...score!.shapes, ...own], 0, y));
    for (const at of filled ? bars : []) {
      const inLine = toNumber(sub(at, one.from));
      if (inLine < 0 || inLine >= toNumber(one.length) || (inLine === 0 && i === 0)) continue;
      const x = BEFORE + inLine * scale - BAR_BEFORE;
      const middle = score!.middle + y;
      shapes.push(line(x, middle - BAR_HALF, x, middle + BAR_HALF, 2.2));
    }
    y += score!.height + 22;
  });
  return { tag: 'Figure', alt: t`A rhythm without bar lines`, width: ink.width, height: y - 12, shapes, texts: [] };
};

/** The meter sign of the pattern itself: the long measures have none of their own. */
function meterShapes(pattern: Pattern, ink: SheetInk, middle: number): Shape[] {
  const { meter } = pattern.measures[0]!;
  const [alone] = scoreLines({ pickup: false, measures: [{ meter, items: [], rests: 1 }] }, ink, {
    width: 200,
    byTime: true,
    without: { end: true, event: () => true },
  });
  // Only what stands before the line's first bar: the figures.
  const figures = alone!.shapes.filter(({ path }) =>
    path.every(({ args }) => args.every((x, k) => k % 2 === 1 || x < BEFORE - 14)),
  );
  return moved(figures, 0, middle - alone!.middle);
}

/** Four measures, one of them wrong; in the key it is circled, with what is wrong. */
export const drawWrongMeasure: DrawQuestion<'wrong-measure'> = (question, ink, filled) => {
  const { pattern, index } = question;
  const width = ink.width - WRITTEN_OFF;
  const scores = scoreLines(pattern, ink, { width });
  const shapes: Shape[] = [];
  let y = 0;
  let low = 0;
  for (const score of scores) {
    // Room for the ring of the key, above and below.
    y += Math.max(0, RING.above - score.middle);
    shapes.push(...moved(score.shapes, 0, y));
    const wrong = score.measures.find(({ measure }) => measure.index === index);
    if (filled && wrong) {
      const { from: first, to: last } = wrong;
      const ry = (RING.above + RING.below) / 2;
      shapes.push(ring((first + last) / 2, y + score.middle - RING.above + ry, (last - first) / 2 + 2, ry));
    }
    low = y + score.middle;
    y += score.middle + RING.below + 6;
  }
  const right = ink.width - WRITTEN_OFF + 8;
  const lines = filled ? wrapped(ink.fonts.strong, offWords(question, ink.voice.naming), 11, WRITTEN_OFF - 8) : [];
  const answer = lines.map((text, i): WrittenText => {
    const y = low - 2 - (lines.length - 1 - i) * 13;
    return { text, x: right, y, size: 11, strong: true };
  });
  return {
    tag: 'Figure',
    alt: t`Four ${measureName(ink.voice.naming, true)}`,
    width: ink.width,
    height: y - 4,
    shapes: [...shapes, line(right, low + 3, ink.width, low + 3, 0.6)],
    texts: answer,
  };
};
/** How far the ring around a measure reaches from its line. */
const RING = { above: 38, below: 20 } as const;
/** Room to write by how much. */
const WRITTEN_OFF = 92;

/** Four rhythms with their letters. */
export const drawChoose: DrawQuestion<'choose'> = ({ question, pattern }, ink, filled) => {
  const patterns = question.options.flatMap(({ answer }) => {
    const parsed = parseRhythm(answer.is === 'rhythm' ? answer.text : '');
    return parsed.ok ? [parsed.pattern] : [];
  });
  const columns = patterns.every((one) => neededWidth(one) + OPTION <= (ink.width - 16) / 2) ? 2 : 1;
  const width = columns === 2 ? (ink.width - 16) / 2 : ink.width;
  const options = patterns.map((one, i): Block => {
    const score = scoreBlock(one, ink, {
      width: width - OPTION,
      close: true,
      without: { meter: true },
      alt: t`Rhythm ${OPTION_LETTERS[i]}`,
    });
    const y = score.height / 2 + 8;
    return {
      ...score,
      width,
      shapes: [
        ...moved(score.shapes, OPTION, 0),
        ...(filled && i === question.answer ? [ring(8, y - 4.5, 10, 10)] : []),
      ],
      texts: [
        ...movedTexts(score.texts, OPTION, 0),
        { text: OPTION_LETTERS[i]!, x: 8, y, size: 13, strong: true, align: 'middle' },
      ],
    };
  });
  let y = 0;
  const placed: { block: Block; x: number; y: number }[] = [];
  for (let i = 0; i < options.length; i += columns) {
    const row = options.slice(i, i + columns);
    placed.push(...row.map((block, c) => ({ block, x: c * (width + 16), y })));
    y += Math.max(...row.map(({ height }) => height)) + 14;
  }
  const all = together(placed, { tag: 'Figure', alt: t`Four rhythms, A to D`, width: ink.width, height: y - 14 });
  // One meter for all four.
  const meter: WrittenText = { text: meterText(pattern.measures[0]!.meter), x: -24, y: 30, size: 10 };
  return { ...all, texts: [meter, ...all.texts] };
};

/** In front of a rhythm, for its letter. */
const OPTION = 24;

/** A ruler with a mark for each beat, to write on. */
export const drawWrite: DrawQuestion<'write'> = ({ pattern }, ink, filled) => {
  const { width } = ink;
  const full = scoreLines(pattern, ink, { width, byTime: true });
  const scores = filled ? full : scoreLines(pattern, ink, { width, byTime: true, without: { event: () => true } });
  const shapes: Shape[] = [];
  let y = 0;
  scores.forEach((score, i) => {
    // High enough for stems, whether or not they are there.
    const middle = Math.max(full[i]!.middle, HIGHEST);
    shapes.push(...moved(score.shapes, 0, y + middle - score.middle));
    for (const x of score.measures.flatMap(({ beats }) => beats))
      shapes.push(line(x, y + middle + 20, x, y + middle + 26, 1));
    y += middle + 44;
  });
  return { tag: 'Figure', alt: t`An empty ruler`, width: ink.width, height: y - 16, shapes, texts: [] };
};
/** Points above the line that signs reach at most. */
const HIGHEST = 40;

/** A part, and under it the line of the other one to write on; in the key, with its notes. */
export const drawMissingPart: DrawQuestion<'missing-part'> = ({ pattern, missing }, ink, filled) => {
  const { width } = ink;
  const without = filled ? {} : { without: { event: () => true } };
  const full = pairLines(pattern, missing, ink, { width });
  const drawn = pairLines(pattern, missing, ink, { width, ...without });
  const shapes: Shape[] = [];
  let y = 0;
  drawn.forEach(({ upper, lower }, i) => {
    shapes.push(...moved(upper.shapes, 0, y));
    y += upper.height + BETWEEN_PARTS;
    // As high as with its notes, so that the key stands like the sheet.
    const middle = Math.max(full[i]!.lower.middle, HIGHEST);
    shapes.push(...moved(lower.shapes, 0, y + middle - lower.middle));
    for (const x of lower.measures.flatMap(({ beats }) => beats))
      shapes.push(line(x, y + middle + 20, x, y + middle + 26, 1));
    y += middle + 44;
  });
  return {
    tag: 'Figure',
    alt: t`A part, and an empty line for the other one`,
    width,
    height: y - 16,
    shapes,
    texts: [],
  };
};
const BETWEEN_PARTS = 4;

/** What the teacher claps, with its counts, for the list. */
export function drawClapped(pattern: Pattern, ink: SheetInk): Block {
  const countable = countPattern(pattern, ink.voice.counts).ok;
  return scoreBlock(pattern, ink, {
    width: ink.width,
    ...(countable ? { counts: ink.voice.counts, show: 'counts' } : {}),
    alt: t`A rhythm to clap`,
  });
}
