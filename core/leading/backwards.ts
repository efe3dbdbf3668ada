import type { Item, Note, Pattern, Rest } from '../rhythm/pattern.ts';

/** Events in reverse. A tie joins the same two notes as before; one over the bar line has nothing left to join. */
function reversed(events: readonly (Note | Rest)[]): (Note | Rest)[] {
  return events
    .map((event, i): Note | Rest => {
      if (event.kind === 'rest') return event;
      const { tied: _tied, ...note } = event;
      const before = events[i - 1];
      return before?.kind === 'note' && before.tied ? { ...note, tied: true } : note;
    })
    .reverse();
}

/** Notes, rests and tuplets in reverse. */
export function reversedItems(written: readonly Item[]): Item[] {
  const flat = written.flatMap((item) => (item.kind === 'tuplet' ? item.events : [item]));
  const mirror = reversed(flat);
  // The mirrored events, taken up again in the order of the mirrored items.
  let at = 0;
  return [...written].reverse().map((item): Item => {
    if (item.kind !== 'tuplet') return mirror[at++]!;
    const events = mirror.slice(at, at + item.events.length);
    at += item.events.length;
    return { ...item, events };
  });
}

/**
 * A pattern to be clapped backwards: the notes of each measure in reverse, the measures in their order.
 * @example "4/4 q. e h | q q~ h" → "4/4 h e q. | h~ q q"
 */
export function backwards(pattern: Pattern): Pattern {
  return {
    ...pattern,
    measures: pattern.measures.map((measure) => ({ ...measure, items: reversedItems(measure.items) })),
  };
}
