import { MISREADINGS, type MisreadingCode } from '../../../core/judging/misreadings/table.ts';
import type { Focus } from '../../../core/making/focus.ts';
import { type Level, LEVELS } from '../../../core/making/level.ts';
import { type PatternWanted, elementsAt, withMeter } from '../../../core/making/makePattern.ts';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { COMMON_TIME, type Meter } from '../../../core/rhythm/meter.ts';
import { parseMeter } from '../../../core/rhythm/text.ts';
import { storedThing } from '../../store/stored.ts';

/** What is to be made, as this device remembers it. */
export interface MakeSettings {
  readonly meter: string;
  readonly measures: number;
  readonly level: Level;
  readonly elements: readonly ElementId[];
  /** "element half", "misreading rest-skipped"; empty for none. */
  readonly focus: string;
}

export const METERS: readonly string[] = ['4/4', '3/4', '2/4', '6/8', '9/8', '12/8', '2/2', '3/8', '5/4', '7/8'];
export const LENGTHS: readonly number[] = [1, 2, 3, 4, 8];

const USUAL: MakeSettings = { meter: '4/4', measures: 4, level: 2, elements: elementsAt(2), focus: '' };

function understood(kept: unknown): MakeSettings {
  const { meter, measures, level, elements, focus } = (kept ?? {}) as Partial<MakeSettings>;
  const known = ELEMENT_IDS.filter((id) => Array.isArray(elements) && elements.includes(id));
  return {
    meter: METERS.find((one) => one === meter) ?? USUAL.meter,
    measures: LENGTHS.find((one) => one === measures) ?? USUAL.measures,
    level: LEVELS.find((one) => one === level) ?? USUAL.level,
    elements: known.length > 0 ? known : USUAL.elements,
    focus: typeof focus === 'string' && focusIn(focus) ? focus : '',
  };
}

export const SETTINGS = storedThing('make.settings', understood);

export function focusIn(text: string): Focus | undefined {
  const [kind, name = ''] = text.split(' ');
  if (kind === 'element' && Object.hasOwn(ELEMENTS(), name)) return { kind, element: name as ElementId };
  if (kind === 'misreading' && Object.hasOwn(MISREADINGS, name)) return { kind, code: name as MisreadingCode };
  return undefined;
}

export function focusText(focus: Focus | undefined): string {
  if (!focus) return '';
  return `${focus.kind} ${focus.kind === 'element' ? focus.element : focus.code}`;
}

export function meterIn(text: string): Meter {
  const read = parseMeter(text);
  return read.ok ? read.meter : COMMON_TIME;
}

export function wantedOf({ meter: name, measures, level, elements, focus: text }: MakeSettings): PatternWanted {
  const meter = meterIn(name);
  const focus = focusIn(text);
  return { meter, measures, level, elements: withMeter(elements, meter), ...(focus ? { focus } : {}) };
}
