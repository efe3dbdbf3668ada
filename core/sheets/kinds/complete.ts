import type { Item, Note, Rest } from '../../rhythm/pattern.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { addedUp, rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const single = (item: Item): item is Note | Rest => item.kind !== 'tuplet';

/** Which one note or rest is missing? The others stand where they stood. */
export const complete: SheetMaker<'complete'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, 1);
    const measure = pattern?.measures[0];
    if (!pattern || !measure || pattern.pickup) return undefined;
    const { items } = measure;
    // A tie would give away where its note stands; a tuplet has no length to add up at this age.
    if (items.length < 2 || !items.every(single) || items.some((item) => item.kind === 'note' && item.tied))
      return undefined;
    const gap = random.below(items.length);
    const { kind, value } = items[gap] as Note | Rest;
    return { kind: 'complete', pattern, gap, missing: { kind, value }, beat: addedUp(measure.meter) };
  },
  key: ({ pattern, gap }) => `${printRhythm(pattern)} ${gap}`,
  points: () => 1,
  difficulty: ({ pattern, missing }) => pattern.measures[0]!.items.length + 2 * missing.value.dots,
  usual: 8,
};
