import { StripPaper } from './StripsLane.tsx';

/** What makes a sound, in a box of forty: hands together, a boot on the floor, a palm on the knee, fingers, a side. */
const FIGURES: Readonly<Record<string, string>> = {
  clap: 'M17 14 V36 M23 14 V36 M20 1 V7 M9 4 L12 9 M31 4 L28 9',
  stamp: 'M14 3 V21 L9 26 V31 H31 V27 C28 22 22 22 22 17 V3 Z M6 37 H34',
  pat: 'M4 9 L22 13 L31 20 M4 17 L21 20 M4 36 C12 27 28 27 36 36 M17 3 V6 M26 5 L24 9',
  snap: 'M12 37 V22 L19 12 M19 37 V25 L27 17 M24 3 V8 M33 6 L30 10 M37 14 L32 15',
  left: 'M34 20 H7 M17 9 L7 20 L17 31',
  right: 'M6 20 H33 M23 9 L33 20 L23 31',
};

/** The figure of a part: of a body sound its own, of all others the paper of its strips. */
export function PartFigure({ name, index }: { readonly name: string; readonly index: number }) {
  const drawn = FIGURES[name.trim().toLowerCase()];
  return (
    <svg className="part-figure" viewBox="0 0 40 40" aria-hidden>
      {drawn === undefined ? <StripPaper part={index} x={2} y={10} width={36} height={20} /> : <path d={drawn} />}
    </svg>
  );
}
