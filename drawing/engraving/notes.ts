import {
  BEAM_LEFT,
  BEAM_RIGHT,
  Beam,
  type RenderContext,
  type Stave,
  StaveNote,
  StaveTie,
  TickContext,
  Tuplet,
} from 'vexflow/core';
import { type BeamSign, beamSigns, beams, isBeamedWhole } from '../../core/rhythm/beams.ts';
import { type PlacedEvent, type PlacedMeasure, tupletsOf } from '../../core/rhythm/place.ts';
import { VALUE } from '../../core/rhythm/value.ts';
import { DOT } from '../staffGlyphs.ts';
import { DOT_STEP, FLAG, HALF_HEAD, type RulerMeasure } from '../system.ts';
import { LETTER_FONT, MUSIC_FONT, SIGN_POINTS } from './fontNames.ts';

/** The engraver's names of the values. */
const DURATION = { w: 'w', h: 'h', q: 'q', e: '8', s: '16', t: '32' } as const;
/** Half of what stands at the line, in tenths of a space: heads are alike but the whole one, rests are not. */
const HALF_REST = { w: 5.7, h: 5.7, q: 5.4, e: 5, s: 6.4, t: 7.3 } as const;
const HALF_WHOLE = 8.5;
/** From what it belongs to to a dot, and how far above the line: in the space over it. */
const DOTS = { before: 3.5, up: 5 } as const;
/** How far before a note a tie begins that comes from the line above. */
const TIE_BEFORE = 20;
/** Labels stand under heads and ties. */
const LABEL = { points: 9, down: 25 } as const;

/** Alone on its line; or one of two on it, with its stems up or down. */
export type Voice = 'alone' | 'upper' | 'lower';
/** Rests of two parts on one line stand above and below it; alone, and the notes, on it. */
const REST_KEYS: Readonly<Record<Voice, string>> = { alone: 'b/4', upper: 'e/5', lower: 'f/4' };
const STEMS: Readonly<Record<Voice, 1 | -1>> = { alone: 1, upper: 1, lower: -1 };
/** Ties stand on the side of the heads; of two parts on the side of the stems, away from the other one's. */
const TIES: Readonly<Record<Voice, 1 | -1>> = { alone: 1, upper: -1, lower: 1 };

/** The notes of a measure as the engraver has them, and which of them are left out. */
export interface MeasureNotes {
  readonly placed: PlacedMeasure;
  readonly notes: readonly StaveNote[];
  readonly voice: Voice;
  readonly isOut: (event: number) => boolean;
}

function noteOf(event: PlacedEvent, voice: Voice): StaveNote {
  const { base, dots } = event.wholeMeasure ? { base: 'w' as const, dots: 0 } : event.value;
  const rest = event.kind === 'rest';
  return new StaveNote({
    keys: [rest ? REST_KEYS[voice] : 'b/4'],
    duration: `${DURATION[base]}${rest ? 'r' : ''}`,
    dots,
    stemDirection: STEMS[voice],
  });
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

/** The notes of a measure where the layout has them. */
export function measureNotes(
  { placed, xs }: RulerMeasure,
  stave: Stave,
  zoom: number,
  isOut: (event: number) => boolean,
  voice: Voice,
): MeasureNotes {
  const notes = placed.events.map((event) => noteOf(event, voice));
  notes.forEach((note, i) => standAt(note, stave, xs[i]! / zoom));
  return { placed, notes, isOut, voice };
}

/** Notes, rests, dots, beams and the numbers of tuplets. */
export function drawNotes(context: RenderContext, measure: MeasureNotes, y: number): void {
  const { placed, notes, isOut, voice } = measure;
  const joined = beamsOf(placed, notes, isOut);
  // In the space above the line; of the lower of two parts in the one below.
  const dotsY = voice === 'lower' ? y + DOTS.up : y - DOTS.up;
  const tuplets = tupletSigns(measure);
  notes.forEach((note, i) => {
    if (!isOut(i)) note.setContext(context).draw();
  });
  const beamed = new Set(joined.flatMap((beam) => beam.getNotes()));
  for (const beam of joined) beam.setContext(context).draw();
  for (const tuplet of tuplets) tuplet.setContext(context).draw();
  placed.events.forEach((event, i) => {
    const note = notes[i]!;
    if (event.value.dots > 0 && !event.wholeMeasure && !isOut(i))
      drawDots(context, event, note, beamed.has(note), dotsY);
  });
}

/** Dots stand one after the other, right of a flag where there is one. @param y  of their space */
function drawDots(context: RenderContext, event: PlacedEvent, note: StaveNote, beamed: boolean, y: number): void {
  const { base, dots } = event.value;
  const rest = event.kind === 'rest';
  const half = rest ? HALF_REST[base] : base === 'w' ? HALF_WHOLE : HALF_HEAD;
  const flag = !rest && !beamed && VALUE[base].flags > 0 ? FLAG - DOTS.before + 1 : 0;
  const from = middleX(note) + half + flag + DOTS.before;
  context.save();
  context.setFont(MUSIC_FONT, SIGN_POINTS, '');
  for (let i = 0; i < dots; i++) context.fillText(DOT, from + i * DOT_STEP, y);
  context.restore();
}

function middleX(note: StaveNote): number {
  return note.getAbsoluteX() + note.getGlyphWidth() / 2;
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

/** Level beams; where the shorter ones break and which way a hook points is said by the rhythm. */
function beamsOf(placed: PlacedMeasure, notes: readonly StaveNote[], isOut: (event: number) => boolean): Beam[] {
  const signs = beamSigns(placed);
  return beams(placed)
    .flatMap((group) => runsOf(group, isOut))
    .map((group) => {
      const beam = new Beam(group.map((i) => notes[i]!));
      beam.renderOptions.flatBeams = true;
      const own = group.map((i) => signs.get(i)!);
      beam.breakSecondaryAt(own.flatMap((_, k) => (isBreak(own[k]!, own[k + 1]) ? [k] : [])));
      own.forEach((sign, k) => {
        const hook = sign.find((one) => one.endsWith('hook'));
        if (hook) beam.setPartialBeamSideAt(k, hook === 'forward hook' ? BEAM_RIGHT : BEAM_LEFT);
      });
      return beam;
    });
}

/** Both have a second beam, and it does not go from the one to the other. */
function isBreak([, one]: readonly BeamSign[], next: readonly BeamSign[] = []): boolean {
  return one !== undefined && next.length > 1 && (one === 'end' || one.endsWith('hook'));
}

function tupletSigns({ placed, notes, voice }: MeasureNotes): Tuplet[] {
  const { events } = placed;
  return tupletsOf(events).map((place) => {
    const members = notes.filter((_, i) => events[i]!.tuplet === place);
    return new Tuplet(members, {
      numNotes: place.n,
      notesOccupied: place.m,
      ratioed: place.n !== 3 && place.m !== 2,
      bracketed: !isBeamedWhole(placed, place),
      location: STEMS[voice],
    });
  });
}

/** The ties into the notes of a measure, and out of the last one of a line. */
export function drawTies(
  context: RenderContext,
  { placed: { events }, notes, isOut, voice }: MeasureNotes,
  before: MeasureNotes | undefined,
  isLast: boolean,
): void {
  events.forEach((event, i) => {
    if (event.kind === 'tied' && !isOut(i))
      drawTie(context, notes[i - 1] ?? before?.notes.at(-1), notes[i], TIES[voice]);
  });
  const goesOn = isLast && events.at(-1)?.tiedToNext && !isOut(events.length - 1);
  if (goesOn) drawTie(context, notes.at(-1), undefined, TIES[voice]);
}

function drawTie(
  context: RenderContext,
  from: StaveNote | undefined,
  to: StaveNote | undefined,
  direction: 1 | -1,
): void {
  const tie = new StaveTie({ firstNote: from ?? null, lastNote: to ?? null, firstIndexes: [0], lastIndexes: [0] });
  tie.setDirection(direction);
  tie.setContext(context);
  if (from && to) {
    tie.draw();
    return;
  }
  // Over the end of a line it ends just after its note, and begins just before the next, not at the edge of the paper.
  const note = (from ?? to)!;
  const firstX = from ? from.getTieRightX() : note.getTieLeftX() - TIE_BEFORE;
  const lastX = from ? firstX + TIE_BEFORE : note.getTieLeftX();
  tie.renderTie({ direction, firstX, lastX, firstYs: note.getYs(), lastYs: note.getYs() });
}

/** Letters and words that stand on notes, under them. */
export function drawLabels(
  context: RenderContext,
  { placed: { events }, notes, isOut }: MeasureNotes,
  y: number,
): void {
  context.save();
  context.setFont(LETTER_FONT, LABEL.points, '');
  events.forEach(({ label }, i) => {
    if (label === undefined || isOut(i)) return;
    context.fillText(label, middleX(notes[i]!) - context.measureText(label).width / 2, y + LABEL.down);
  });
  context.restore();
}
