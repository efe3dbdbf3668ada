import type { Item } from './pattern.ts';

/** The same notes and rests, the last one not tied on: for where what it would lead to is another thing. */
export function withoutLastTie(items: readonly Item[]): readonly Item[] {
  const last = items.at(-1);
  if (last?.kind === 'tuplet') {
    const events = withoutLastTie(last.events) as typeof last.events;
    return events === last.events ? items : [...items.slice(0, -1), { ...last, events }];
  }
  if (last?.kind !== 'note' || !last.tied) return items;
  const { tied: _tied, ...free } = last;
  return [...items.slice(0, -1), free];
}
