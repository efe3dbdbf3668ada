import { t } from '../words/say.ts';
import { numberWords } from '../counting/numberWords.ts';
import type { Note, Rest } from '../rhythm/pattern.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { type NamingId, valueName } from './valueNames.ts';

const MOST_IN_WORDS = 6;

/** "two eighths", "eighth, quarter, eighth": neighbours of one value are counted. */
function named(events: readonly (Note | Rest)[], naming: NamingId): string {
  const runs: { value: Note['value']; count: number }[] = [];
  for (const { value } of events) {
    const last = runs.at(-1);
    if (last && last.value.base === value.base && last.value.dots === value.dots) last.count++;
    else runs.push({ value, count: 1 });
  }
  return runs
    .map(({ value, count }) => {
      const many = (count <= MOST_IN_WORDS && numberWords()[count - 1]) || String(count);
      return count === 1 ? valueName(value, naming) : `${many} ${valueName(value, naming, true)}`;
    })
    .join(', ');
}

/** A cell of a word set as a teacher would call it: "two eighths", "triplet of eighths", "dotted eighth, sixteenth". */
export function cellName(cell: string, naming: NamingId): string {
  const read = parseRhythm(`4/4 ${cell}`);
  if (!read.ok) return cell;
  const items = read.pattern.measures.flatMap((measure) => measure.items);
  const only = items[0];
  return only?.kind === 'tuplet' && items.length === 1
    ? tupletName(only.n, only.events, naming)
    : named(
        items.flatMap((item) => (item.kind === 'tuplet' ? item.events : [item])),
        naming,
      );
}

function tupletName(n: number, events: readonly (Note | Rest)[], naming: NamingId): string {
  const name = n === 3 ? t`triplet` : t`group of ${n}`;
  const same = events.every(
    ({ value }) => value.base === events[0]!.value.base && value.dots === events[0]!.value.dots,
  );
  return same ? t`${name} of ${valueName(events[0]!.value, naming, true)}` : `${name}: ${named(events, naming)}`;
}
