import { bandClass } from './TogetherBand.tsx';

/** So high is a class that is a quarter of a second apart. */
const HIGHEST_MS = 250;

/** How wide a clap of the class was in one pass, as a bar: the narrower the better. */
export function WidthBar({ widthMs, least = 0 }: { readonly widthMs: number; readonly least?: number }) {
  const height = Math.max(least, Math.min(100, (100 * widthMs) / HIGHEST_MS));
  return <i aria-hidden className={bandClass(widthMs)} style={{ height: `${height}%` }} />;
}
