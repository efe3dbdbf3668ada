/** "1, 2" or "1-3" as numbers. */
export function timesOf(text: string): number[] {
  const times = text.split(/[\s,.]+/).flatMap((part) => {
    const range = /^(\d{1,2})-(\d{1,2})$/.exec(part);
    if (range)
      return Array.from(
        { length: Math.max(0, Number(range[2]) - Number(range[1]) + 1) },
        (_, k) => Number(range[1]) + k,
      );
    return /^\d{1,2}$/.test(part) ? [Number(part)] : [];
  });
  return times.filter((time) => time > 0);
}
