/** More times through than this is no ending. */
export const MOST_TIMES = 12;

/** "1, 2" or "1-3" as numbers, each once. */
export function timesOf(text: string): number[] {
  const times = new Set<number>();
  for (const part of text.split(/[\s,.]+/)) {
    const range = /^(\d{1,2})(?:-(\d{1,2}))?$/.exec(part);
    if (!range) continue;
    const from = Number(range[1]);
    const to = Math.min(MOST_TIMES, Number(range[2] ?? from));
    for (let time = Math.max(1, from); time <= to; time++) times.add(time);
  }
  return [...times];
}
