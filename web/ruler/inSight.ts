/** Scrolls a fitted ruler so that a line is the first that is seen: under it the next one is read ahead. */
export function bringInSight(line: Element | null): void {
  const seen = line?.closest('.ruler-seen');
  if (!line || !seen) return;
  const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
  const top = seen.scrollTop + line.getBoundingClientRect().top - seen.getBoundingClientRect().top;
  seen.scrollTo({ top, behavior: calm ? 'instant' : 'smooth' });
}
