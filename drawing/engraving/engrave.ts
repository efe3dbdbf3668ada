import { type RenderContext, Stave } from 'vexflow/core';
import { type RulerSize, type RulerSystem, ZOOM, headsApart } from '../system.ts';
import { type MeasureNotes, type Voice, drawLabels, drawNotes, drawTies, measureNotes } from './notes.ts';
import type { Omissions } from './omissions.ts';
import { drawSigns, drawStaffLine } from './signs.ts';

/** In the engraver's own units: the one line of the rhythm, from the top of the drawing. */
export const LINE_Y = 60;

export interface Engraving {
  readonly without?: Omissions | undefined;
  /** The letters and words that stand on notes. */
  readonly labels?: boolean;
  /** Bar lines go on so much further down, through the parts below: pixels. */
  readonly barsDown?: number;
  /** A second part on the same line, stems down; the measures are the same. */
  readonly lower?: RulerSystem | undefined;
}

/**
 * Draws the notes of one line, each where the layout has its head. The engraver's own formatter is not asked.
 * @param context  whatever can draw; its music font is set
 */
export function engraveOn(
  context: RenderContext,
  system: RulerSystem,
  size: RulerSize,
  { without = {}, labels = false, barsDown = 0, lower }: Engraving = {},
): void {
  const zoom = ZOOM[size];
  context.scale(zoom, zoom);
  const stave = new Stave(0, LINE_Y - 4 * 10 - 20, system.width / zoom, {
    leftBar: false,
    rightBar: false,
    spaceAboveStaffLn: 4,
  });
  stave.setContext(context);
  const y = stave.getYForLine(2);
  drawStaffLine(context, system, y, zoom);
  system.measures.forEach((_, i) => drawSigns(context, system, i, { y, zoom, without, down: barsDown / zoom }));
  const drawPart = ({ measures }: RulerSystem, voice: Voice) => {
    let before: MeasureNotes | undefined;
    for (const [i, measure] of measures.entries()) {
      if (measure.rests !== undefined) continue;
      const isOut = (event: number) => without.event?.(measure.index, event) === true;
      const drawn = measureNotes(measure, stave, zoom, isOut, voice);
      drawNotes(context, drawn, y);
      drawTies(context, drawn, before, i === measures.length - 1);
      if (labels) drawLabels(context, drawn, y);
      before = drawn;
    }
  };
  drawPart(system, lower ? 'upper' : 'alone');
  if (lower) drawPart(headsApart(system, lower, size), 'lower');
}
