import { type RhythmWanted, rhythmFrom } from '../exercises/rhythms/cells.ts';
import { randomFrom } from '../random.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import { beatsInMeasure, type Meter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';

/** What a class can be asked to echo. */
export interface EchoSettings {
  /** Met by the class, in any order. */
  readonly elements: readonly ElementId[];
  readonly meter: Meter;
}

/** One step of the chain: a little harder than the one before. */
export interface EchoStep {
  readonly elements: readonly ElementId[];
  /** The element that is new in this step; absent where only the length is. */
  readonly focus?: ElementId;
  readonly measures: number;
}

/** A class of children remembers no longer pattern after one hearing. */
const MEASURES = [1, 2, 4] as const;
/** The first step is not one note again and again. */
const TO_BEGIN = 2;
const TRIES = 60;

/**
 * The steps of a chain, easiest first: one measure of the first elements, then each further element in the usual order;
 * then two measures in the same way, then four of all.
 */
export function echoSteps({ elements }: EchoSettings): EchoStep[] {
  const known = ELEMENT_IDS.filter((id) => elements.includes(id));
  const first = Math.min(TO_BEGIN, known.length);
  return MEASURES.flatMap((measures, m) => {
    if (m === MEASURES.length - 1) return [{ elements: known, measures }];
    const begin: EchoStep = { elements: known.slice(0, first), measures };
    const further = known.slice(first).map((focus, i): EchoStep => ({
      elements: known.slice(0, first + i + 1),
      focus,
      measures,
    }));
    return [begin, ...further];
  });
}

/**
 * A pattern for a step; the new element is in it. The last step goes on for as long as the class does.
 * @param step  from 0
 * @returns undefined where the elements fill no such measure
 */
export function echoPattern(settings: EchoSettings, step: number, seed: number): Pattern | undefined {
  const steps = echoSteps(settings);
  const { elements, focus, measures } = steps[Math.max(0, Math.min(step, steps.length - 1))]!;
  const random = randomFrom(seed);
  const beats = beatsInMeasure(settings.meter);
  const wanted: RhythmWanted = { elements, meter: settings.meter, beats: (beats.n * measures) / beats.d };
  let any: Pattern | undefined;
  for (let tries = 0; tries < TRIES; tries++) {
    const pattern = rhythmFrom(wanted, random);
    if (!pattern) break;
    any = pattern;
    if (focus === undefined || elementsOf(pattern).has(focus)) return pattern;
  }
  return any;
}

/** Where the chain goes on: a step harder when it was together, the same again when not. */
export function nextEchoStep(step: number, wentWell: boolean): number {
  return wentWell ? step + 1 : step;
}
