import { type Fraction, add, compare, equal } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedMeasure, type PlayedMeasure, playPattern, unfold } from '../rhythm/place.ts';
import { type SoundedBeat, insideBeat, sameTimes, soundedBeats, soundings } from '../rhythm/soundings.ts';
import { sameMeter } from '../rhythm/meter.ts';
import { measureText } from '../rhythm/text.ts';

/** Measures. */
const LONGEST_LAID = 4;

/** Whether a pattern can be laid piece by piece: in one meter, without pickup and tuplets, no longer than a line. */
export function canBeLaid({ pickup, measures }: Pattern): boolean {
  const first = measures[0]!.meter;
  const tuplets = measures.some(({ items }) => items.some(({ kind }) => kind === 'tuplet'));
  return (
    !pickup && !tuplets && measures.length <= LONGEST_LAID && measures.every(({ meter }) => sameMeter(meter, first))
  );
}

/** How one measure was written down. */
export interface MeasureWritten {
  /** As on paper; the pickup is 0. */
  readonly number: number;
  readonly timeThrough?: number;
  /** It sounds as it should; what is written otherwise and sounds the same is right (rules §7). */
  readonly right: boolean;
  /** Its claps start at the same times. */
  readonly sameSound: boolean;
  /** With the same notes and rests. */
  readonly sameWriting: boolean;
  /** The first counted beat with another clap, one too many or one too few; null where it is right. */
  readonly wrongFromBeat: number | null;
  /** Part marks: beats that sound as they should, of how many. */
  readonly beatsRight: number;
  readonly beats: number;
}

export interface Written {
  readonly right: boolean;
  readonly sameSound: boolean;
  readonly sameWriting: boolean;
  readonly measures: readonly MeasureWritten[];
}

interface Line {
  readonly measures: readonly PlayedMeasure[];
  readonly texts: readonly string[];
  readonly beats: readonly SoundedBeat[];
  readonly onsets: readonly Fraction[];
}

function lineOf(pattern: Pattern): Line {
  // Repeats are written out, so that an answer may write them out too.
  const written = unfold(pattern).measures.map(measureText);
  const measures = playPattern(pattern);
  return { measures, texts: written, beats: soundedBeats(pattern), onsets: soundings(pattern) };
}

function end(line: Line): Fraction {
  const last = line.measures.at(-1)!;
  return add(last.at, last.measure.length);
}

const sameFrame = (a: PlacedMeasure, b: PlacedMeasure) => sameMeter(a.meter, b.meter) && equal(a.onset, b.onset);

function compared(frame: Line, other: Line, i: number): MeasureWritten {
  const played = frame.measures[i]!;
  const until = add(played.at, played.measure.length);
  const beats = frame.beats.filter(({ at }) => compare(at, played.at) >= 0 && compare(at, until) < 0);
  const also = other.measures.findIndex(({ at }) => equal(at, played.at));
  const silent = ({ measure }: PlayedMeasure) => measure.events.every(({ kind }) => kind === 'rest');
  // Where nothing was written no beat is right, though nothing sounds in some of them.
  const nothing = also < 0 ? compare(played.at, end(other)) >= 0 : silent(other.measures[also]!);
  const empty = nothing && !silent(played);
  const right = beats.map((beat) => sameTimes(insideBeat(frame.onsets, beat), insideBeat(other.onsets, beat)));
  const wrong = right.indexOf(false);
  const sameText =
    also >= 0 && sameFrame(other.measures[also]!.measure, played.measure) && frame.texts[i] === other.texts[also];
  return {
    number: played.measure.number,
    ...(played.timeThrough === undefined ? {} : { timeThrough: played.timeThrough }),
    right: wrong < 0,
    sameSound: wrong < 0,
    sameWriting: sameText,
    wrongFromBeat: wrong < 0 ? null : beats[wrong]!.beat,
    beatsRight: empty ? 0 : right.filter(Boolean).length,
    beats: beats.length,
  };
}

/**
 * How a rhythm was written down, measure by measure. Measures the answer lacks are wrong from their first clap on, and
 * so are those it has too many.
 * @param text    what was heard
 * @param answer  what was written
 */
export function compareWritten(text: Pattern, answer: Pattern): Written {
  const [heard, written] = [lineOf(text), lineOf(answer)];
  const measures = heard.measures.map((_, i) => compared(heard, written, i));
  const over = written.measures.flatMap(({ at, measure }, i): MeasureWritten[] => {
    if (compare(at, end(heard)) < 0) return [];
    return [{ ...compared(written, heard, i), number: measure.number, sameWriting: false }];
  });
  const all = [...measures, ...over];
  const every = (is: (measure: MeasureWritten) => boolean) => all.every(is);
  return {
    right: every(({ right }) => right),
    sameSound: every(({ sameSound }) => sameSound),
    sameWriting: every(({ sameWriting }) => sameWriting),
    measures: all,
  };
}
