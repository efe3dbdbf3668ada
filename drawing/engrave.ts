import { Beam, Dot, type RenderContext, Stave, StaveNote, StaveTie, TickContext, Tuplet } from 'vexflow/core';
import { beams } from '../core/rhythm/beams.ts';
import type { PlacedEvent } from '../core/rhythm/place.ts';
import { type RulerMeasure, type RulerSize, type RulerSystem, xOf } from './layout.ts';

/** The engraver's names of the values. */
const DURATION = { w: 'w', h: 'h', q: 'q', e: '8', s: '16', t: '32' } as const;
/** How large the signs are drawn. */
const ZOOM: Readonly<Record<RulerSize, number>> = { desk: 1.15, board: 2, wall: 2.8, card: 0.66 };

/** The signs that rhythm needs; made by `npm run music-font`. */
export const MUSIC_FONT = 'Harbour';

/** In the engraver's own units: the one line of the rhythm, and how far a bar line stands before its beat. */
const LINE_Y = 60;
const BAR_BEFORE = 13;
/** How far before a note a tie begins that comes from the line above. */
const TIE_BEFORE = 20;
/** Points, and how far above and below the line: figures nearly two spaces high, with air between them. */
const METER = { size: 23, off: 10.5 };

function noteOf(event: PlacedEvent): StaveNote {
  const { base, dots } = event.wholeMeasure ? { base: 'w' as const, dots: 0 } : event.value;
  const rest = event.kind === 'rest';
  const note = new StaveNote({
    keys: ['b/4'],
    duration: `${DURATION[base]}${rest ? 'r' : ''}`,
    dots,
    stemDirection: 1,
  });
  for (let i = 0; i < dots; i++) Dot.buildAndAttach([note], { all: true });
  return note;
}

/** Puts a note so that the middle of its head stands at x. */
function standAt(note: StaveNote, stave: Stave, x: number): void {
  const context = new TickContext();
  context.addTickable(note);
  context.preFormat();
  context.setX(0);
  note.setStave(stave);
  const head = note.getGlyphWidth();
  context.setX(x - note.getAbsoluteX() - head / 2);
}

/** What is left out of a line. */
export interface Omissions {
  /** Bar lines, but for the double bar at the end. */
  readonly bars?: boolean;
  readonly end?: boolean;
  readonly meter?: boolean;
  /** Notes and rests, by the measure's index and their own in it. */
  readonly event?: (measure: number, event: number) => boolean;
}

/** Runs of notes side by side that are left of a beamed group. */
function runsOf(group: readonly number[], isOut: (event: number) => boolean): number[][] {
  const runs: number[][] = [];
  for (const i of group) {
    if (isOut(i)) continue;
    if (runs.at(-1)?.at(-1) === i - 1) runs.at(-1)!.push(i);
    else runs.push([i]);
  }
  return runs.filter((run) => run.length > 1);
}

/**
 * Draws the notes of one line, each at the x of its time. The engraver's own formatter is not asked.
 * @param context  whatever can draw; its music font is set
 */
export function engraveOn(
  context: RenderContext,
  system: RulerSystem,
  size: RulerSize,
  scale: number,
  without: Omissions = {},
): void {
  const zoom = ZOOM[size];
  context.scale(zoom, zoom);
  const stave = new Stave(0, LINE_Y - 4 * 10 - 20, system.width / zoom, {
    leftBar: false,
    rightBar: false,
    spaceAboveStaffLn: 4,
  });
  stave.setContext(context);
  const lineY = stave.getYForLine(2);
  let before: StaveNote | undefined;
  for (const measure of system.measures) {
    const left = measure.x / zoom;
    const right = (measure.x + measure.width) / zoom;
    drawLine(context, measure, lineY, { left, right, first: system.measures[0] === measure, without });
    const isOut = (event: number) => without.event?.(measure.index, event) === true;
    const { events } = measure.placed;
    const notes = events.map(noteOf);
    events.forEach((event, i) => {
      const at = xOf(measure, event.onset, scale) + (event.wholeMeasure ? (measure.width - 20) / 2 : 0);
      standAt(notes[i]!, stave, at / zoom);
    });
    const groups = beams(measure.placed).flatMap((group) => runsOf(group, isOut));
    const beamed = groups.map((group) => new Beam(group.map((i) => notes[i]!)));
    const tuplets = tupletsOf(events, notes);
    notes.forEach((note, i) => {
      if (!isOut(i)) note.setContext(context).draw();
    });
    for (const beam of beamed) beam.setContext(context).draw();
    for (const tuplet of tuplets) tuplet.setContext(context).draw();
    events.forEach((event, i) => {
      const previous = notes[i - 1] ?? before;
      if (event.kind === 'tied' && !isOut(i)) drawTie(context, previous, notes[i]);
    });
    before = notes.at(-1);
    const goesOn = events.at(-1)?.tiedToNext && !isOut(events.length - 1);
    if (goesOn && measure === system.measures.at(-1) && before) drawTie(context, before, undefined);
  }
}

function drawTie(context: RenderContext, from: StaveNote | undefined, to: StaveNote | undefined): void {
  const tie = new StaveTie({ firstNote: from ?? null, lastNote: to ?? null, firstIndexes: [0], lastIndexes: [0] });
  tie.setDirection(1);
  tie.setContext(context);
  if (from || !to) {
    tie.draw();
    return;
  }
  // Over the end of a line it begins just before its note, not at the edge of the paper.
  const head = to.getTieLeftX();
  tie.renderTie({
    direction: 1,
    firstX: head - TIE_BEFORE,
    lastX: head,
    firstYs: to.getYs(),
    lastYs: to.getYs(),
  });
}

function tupletsOf(events: readonly PlacedEvent[], notes: readonly StaveNote[]): Tuplet[] {
  const places = [...new Set(events.flatMap(({ tuplet }) => tuplet ?? []))];
  return places.map((place) => {
    const members = notes.filter((_, i) => events[i]!.tuplet === place);
    return new Tuplet(members, {
      numNotes: place.n,
      notesOccupied: place.m,
      ratioed: place.n !== 3 && place.m !== 2,
      location: 1,
    });
  });
}

/** The line, the meter sign, the bars and the repeat dots of a measure. */
function drawLine(
  context: RenderContext,
  measure: RulerMeasure,
  y: number,
  { left, right, first, without }: { left: number; right: number; first: boolean; without: Omissions },
): void {
  const bar = (x: number, width = 1.4) => context.fillRect(x, y - 20, width, 40);
  const dots = (x: number) => [y - 5, y + 5].forEach((at) => context.fillRect(x - 1.8, at - 1.8, 3.6, 3.6));
  context.setFillStyle('#26221c');
  context.fillRect(left - BAR_BEFORE, y - 0.5, right - left, 1);
  if (measure.meterSign && !without.meter) drawMeter(context, measure, y, left - (measure.repeatStart ? 52 : 42));
  if (measure.repeatStart) {
    bar(left - BAR_BEFORE - 13, 3.4);
    bar(left - BAR_BEFORE - 7);
    dots(left - BAR_BEFORE - 1);
  } else if (!first && !without.bars) bar(left - BAR_BEFORE);
  const end = right - BAR_BEFORE;
  if (measure.last ? without.end : without.bars) return;
  if (measure.repeatEnd) {
    dots(end - 11);
    bar(end - 6);
    bar(end - 2, 3.4);
  } else if (measure.last) {
    bar(end - 1);
    bar(end + 3, 3.4);
  } else bar(end);
}

function drawMeter(context: RenderContext, measure: RulerMeasure, y: number, x: number): void {
  const { upper, lower } = measure.placed.meter;
  context.save();
  context.setFont(MUSIC_FONT, METER.size, '');
  const digits = (n: number) => [...String(n)].map((digit) => String.fromCodePoint(0xe080 + Number(digit))).join('');
  const centred = (text: string) => x - context.measureText(text).width / 2 + 8;
  const [top, bottom] = [digits(upper), digits(lower)];
  context.fillText(top, centred(top), y - METER.off);
  context.fillText(bottom, centred(bottom), y + METER.off);
  context.restore();
}
