import type { RenderContext } from 'vexflow/core';
import type { Meter } from '../../core/rhythm/meter.ts';
import { BAR_BEFORE, REPEAT_GAP, type RulerSystem } from '../system.ts';
import { METER_GAP } from '../layout.ts';
import { MUSIC_FONT } from './fontNames.ts';
import type { Omissions } from './omissions.ts';

const INK = '#26221c';
/** Half the height of a bar line, and how thick a thin and a thick one is. */
const BAR = { half: 20, thin: 1.4, thick: 3.4 } as const;
/** Points, and how far above and below the line: figures nearly two spaces high, with air between them. */
const METER = { size: 23, off: 10.5 } as const;
/** How far the middle of a meter sign stands before the first beat after it. */
const METER_BEFORE = 34;
/** Several measures of rest: the thickness of the sign, the height of its ends, air on both sides, its number. */
const REST = { thick: 6, half: 10, air: 14, up: 30 } as const;

interface Where {
  /** Of the line. */
  readonly y: number;
  /** Pixels of a unit. */
  readonly zoom: number;
  readonly without: Omissions;
  /** Bar lines go on so much further down. */
  readonly down: number;
}

/** The one line, from the first bar line to the last, and on under a meter that is said ahead. */
export function drawStaffLine(
  context: RenderContext,
  { measures, courtesy }: RulerSystem,
  y: number,
  zoom: number,
): void {
  const first = measures[0]!;
  const last = measures.at(-1)!;
  const left = first.x / zoom - BAR_BEFORE - (first.repeatStart ? REPEAT_GAP : 0);
  const after = (courtesy ? METER_GAP : last.last ? BAR.thick : 0) + (last.repeatEnd ? REPEAT_GAP : 0);
  const right = (last.x + last.width) / zoom - BAR_BEFORE + after;
  context.setFillStyle(INK);
  context.fillRect(left, y - 0.5, right - left, 1);
}

/** The meter sign, the bars, the repeat dots of a measure, and the sign of several measures of rest. */
export function drawSigns(context: RenderContext, system: RulerSystem, i: number, where: Where): void {
  const { y, zoom, without, down } = where;
  const measure = system.measures[i]!;
  const isLastOfLine = i === system.measures.length - 1;
  const left = measure.x / zoom;
  const end = (measure.x + measure.width) / zoom - BAR_BEFORE;
  const repeat = measure.repeatEnd ? REPEAT_GAP : 0;
  const bar = (x: number, width: number) => context.fillRect(x, y - BAR.half, width, 2 * BAR.half + down);
  const dots = (x: number) => [y - 5, y + 5].forEach((at) => context.fillRect(x - 1.8, at - 1.8, 3.6, 3.6));
  context.setFillStyle(INK);
  if (measure.meterSign && !without.meter) {
    const before = METER_BEFORE + (measure.repeatStart ? REPEAT_GAP : 0);
    drawMeter(context, measure.placed.meter, left - before, y);
  }
  if (measure.rests !== undefined) drawRests(context, measure.rests, left - BAR_BEFORE, end, y);
  if (measure.repeatStart) {
    bar(left - BAR_BEFORE - 13, BAR.thick);
    bar(left - BAR_BEFORE - 7, BAR.thin);
    dots(left - BAR_BEFORE - 1);
  }
  if (isLastOfLine && system.courtesy && !without.meter)
    drawMeter(context, system.courtesy, end + repeat + METER_GAP - METER_BEFORE + BAR_BEFORE, y);
  if (measure.last ? without.end : without.bars) return;
  if (measure.repeatEnd) {
    dots(end + 1);
    bar(end + 6, BAR.thin);
    bar(end + 10, BAR.thick);
  } else if (measure.last) {
    bar(end - 1, BAR.thin);
    bar(end + 3, BAR.thick);
  } else if (isLastOfLine || !beginsWithRepeat(system, i + 1)) bar(end, BAR.thin);
}

/** The bar line of a repeat is one with the one before it; a meter sign stands between the two. */
function beginsWithRepeat({ measures }: RulerSystem, i: number): boolean {
  const next = measures[i]!;
  return next.repeatStart && !next.meterSign;
}

function figures(n: number): string {
  return [...String(n)].map((digit) => String.fromCodePoint(0xe080 + Number(digit))).join('');
}

function drawMeter(context: RenderContext, { upper, lower }: Meter, middle: number, y: number): void {
  drawFigures(context, upper, middle, y - METER.off);
  drawFigures(context, lower, middle, y + METER.off);
}

function drawFigures(context: RenderContext, n: number, middle: number, y: number): void {
  const text = figures(n);
  context.save();
  context.setFont(MUSIC_FONT, METER.size, '');
  context.fillText(text, middle - context.measureText(text).width / 2, y);
  context.restore();
}

function drawRests(context: RenderContext, rests: number, left: number, right: number, y: number): void {
  const [from, to] = [left + REST.air, right - REST.air];
  context.fillRect(from, y - REST.thick / 2, to - from, REST.thick);
  for (const x of [from, to]) context.fillRect(x - 0.7, y - REST.half, 1.4, 2 * REST.half);
  drawFigures(context, rests, (left + right) / 2, y - REST.up);
}
