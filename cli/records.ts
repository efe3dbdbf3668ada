import { t } from '../core/words/say.ts';
import { RecordsRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import { judgeTake } from '../core/judging/judgeTake.ts';
import { USUAL_SCALE } from '../core/judging/scale.ts';
import { DEFAULT_AGES } from '../core/judging/windows.ts';
import { heardElements } from '../core/records/heardElements.ts';
import { type HeardTake, masteryOf, recordsOf } from '../core/records/mastery.ts';
import { type PatternTake, hardestMeasure, nextStepOf } from '../core/records/nextStep.ts';
import { toldPlaces } from '../core/records/toldPlaces.ts';
import { printRhythm } from '../core/rhythm/text.ts';
import { nextStepSentence } from '../core/wording/nextStepWords.ts';
import { takeTroubleText } from '../core/wording/troubles.ts';
import { PLAIN_VOICE } from '../core/wording/voice.ts';
import { checkedScale, givenMark } from './markScale.ts';
import { UserError, partAsked, readScore } from './readPattern.ts';

type Moment = string | number;

/** A take as it was judged; the moment as it was given as well. */
interface Judged extends HeardTake, PatternTake {
  readonly given: Moment;
  /** The day there, where the moment was given with its own time of day. */
  readonly day: number;
}

const DAY_MS = 86_400_000;
/** What was last heard longer ago than this belongs to a term that is over: it is read as it stood at its end. */
const OVER_AFTER_MS = 100 * DAY_MS;

const fits = validator(RecordsRequest);

/** Takes of many children, and how each child stands. */
export class RecordBook {
  private readonly children = new Map<Moment, Judged[]>();

  /** Judges one take and enters it. */
  add(request: unknown): void {
    const checked = fits(request);
    if (!checked.ok) throw new UserError(checked.message);
    const {
      child,
      takenAt: given,
      pattern: text,
      ages = DEFAULT_AGES,
      mark: own,
      scale = USUAL_SCALE,
      part,
      streams,
      onsets,
      ...take
    } = checked.value;
    if (onsets === undefined || streams !== undefined)
      throw new UserError(t`a take of one child has "onsets", and of several parts says which: "part"`);
    const { pattern: asked } = partAsked(readScore(text), part);
    const takenAt = momentOf(given);
    const settings = { ages, scale: checkedScale(scale) };
    const judged = judgeTake({ ...take, onsets, patternText: text }, settings, () => ({ ok: true, pattern: asked }));
    if (!judged.ok) throw new UserError(takeTroubleText(judged.trouble, PLAIN_VOICE.naming));
    const { result, pattern } = judged;
    const hardest = hardestMeasure(result);
    const entered: Judged = {
      pattern: printRhythm(pattern),
      elements: heardElements(toldPlaces(pattern, result)),
      bpm: take.bpm,
      mark: own === undefined || own === null ? result.mark : givenMark(own, scale),
      scale,
      ...(hardest === undefined ? {} : { hardest }),
      misread: result.misreadings.map(({ code }) => code),
      takenAt,
      given,
      day: dayOf(given, takenAt),
    };
    this.children.set(child, [...(this.children.get(child) ?? []), entered]);
  }

  /**
   * Every child in the order in which they were first named.
   * @param now  milliseconds since 1970, for what is due; without it the time of `clock`, or the end of the last term
   */
  *standings(now: number | undefined, clock: number): Generator<object> {
    const last = Math.max(...[...this.children.values()].flat().map(({ takenAt }) => takenAt));
    const asOf = now ?? (clock - last > OVER_AFTER_MS ? last : Math.max(clock, last));
    for (const [child, takes] of this.children) yield standing(child, takes, asOf);
  }
}

function standing(child: Moment, takes: readonly Judged[], now: number): object {
  const days = new Map(takes.map(({ takenAt, day }) => [takenAt, day]));
  const given = new Map(takes.map((take) => [take.takenAt, take.given]));
  const records = recordsOf(takes, (moment) => days.get(moment) ?? 0);
  const elements = masteryOf(records, now).map((one) => ({ ...one, lastSeen: given.get(one.lastSeen) }));
  const next = nextStepOf(takes)!;
  const sentence = nextStepSentence(next.step, PLAIN_VOICE.naming);
  return { child, elements, next: { ...next.step, pattern: next.pattern, sentence } };
}

/** Milliseconds since 1970, from a number of them or a date with its time. */
export function momentOf(given: Moment): number {
  const moment = typeof given === 'number' ? given : Date.parse(given);
  if (Number.isFinite(moment)) return moment;
  throw new UserError(t`“${given}” is no moment: expected milliseconds since 1970, or such as 2026-11-02T09:30:00Z`);
}

/** A date that was written with its place's own time is that day there. */
function dayOf(given: Moment, moment: number): number {
  const written = typeof given === 'string' ? Date.parse(given.slice(0, 'yyyy-mm-dd'.length)) : NaN;
  return Math.floor((Number.isFinite(written) ? written : moment) / DAY_MS);
}
