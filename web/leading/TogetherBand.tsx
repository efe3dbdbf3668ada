import type { ClassNoteHeard } from '../../core/ensemble/classHeard.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { BAND_HEIGHTS } from '../../drawing/heights.ts';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';
import './togetherBand.scss';

/** From here on a note is not together any more, from there on it is far apart; ms. */
const TOGETHER_MS = 110;
const APART_MS = 180;
/** Pixels of the band at its thinnest; at its thickest it fills its lane, as parts of it, at so many milliseconds. */
const THINNEST = 6;
const THICKEST = 0.85;
const THICKEST_MS = 250;

export function bandClass(widthMs: number): 'band-one' | 'band-wide' | 'band-apart' {
  return widthMs < TOGETHER_MS ? 'band-one' : widthMs < APART_MS ? 'band-wide' : 'band-apart';
}

interface BandProps {
  readonly pattern: Pattern;
  readonly bpm: number;
  /** None where nothing was heard yet: the lane has its place all the same. */
  readonly notes: readonly ClassNoteHeard[];
  /** Seconds after beat 1, up to which notes are known. */
  readonly until: number;
  readonly system: RulerSystem;
  readonly layout: RulerLayout;
}

/**
 * A band under the notes and counts, at the time at which the class had them: as long and as thick as its claps are
 * spread, beside the line of its beat where they were early or late.
 */
export function TogetherBand({ pattern, bpm, notes, until, system, layout }: BandProps) {
  const { notes: written, measures, whole } = scheduleOf(pattern, bpm);
  const height = BAND_HEIGHTS[layout.size];
  return (
    <div className="together-band" style={{ height }} aria-hidden>
      {notes.map(({ index, widthMs, aheadMs, early, late }) => {
        const note = written[index];
        const drawn = note && system.measures.find((measure) => measure.index === note.place.played);
        if (!note || !drawn || widthMs === undefined || aheadMs === undefined || note.time > until) return null;
        const inMeasure = note.time / whole - toNumber(measures[drawn.index]!.at);
        const onBeat = drawn.x + inMeasure * layout.scale;
        const pixels = (ms: number) => (ms / 1000 / whole) * layout.scale;
        const length = Math.max(THINNEST, pixels(widthMs));
        const thick = THINNEST + Math.min(1, widthMs / THICKEST_MS) * (THICKEST * height - THINNEST);
        return (
          <div key={index} data-note={index}>
            <i className="band-beat" style={{ left: onBeat }} />
            <i
              className={`band-note ${bandClass(widthMs)} ${early || late ? 'band-lump' : ''}`}
              style={{ left: onBeat - pixels(aheadMs) - length / 2, width: length, height: thick }}
            />
          </div>
        );
      })}
    </div>
  );
}
