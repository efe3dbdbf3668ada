import {
  MIDDLE_LINE,
  STEM_SPACES,
  type Sign,
  type StaffHeight,
  type StaffSign,
  type Stem,
  rightStems,
} from '../../core/exercises/signs.ts';
import type { NoteValue } from '../../core/rhythm/value.ts';
import { CLEFS, DOT, FLAGS, HEADS, HEAD_WIDTH, JOIN, RESTS, WHOLE_WIDTH } from '../../drawing/staffGlyphs.ts';
import '../ui/signs/signs.scss';
import './staff.scss';

/** Units of the drawing for one space between two lines. */
const SPACE = 20;
const LINES = [0, 1, 2, 3, 4] as const;
/** Room above and below the lines, for stems and clefs, in spaces. */
const ABOVE = 3.4;
const BELOW = 3.2;
const HEIGHT = (ABOVE + 4 + BELOW) * SPACE;
const WIDTH = 5.4 * SPACE;

/** @param height  in half spaces from the first line */
const yOf = (height: StaffHeight) => (ABOVE + 4 - height / 2) * SPACE;

interface GlyphProps {
  readonly glyph: string;
  readonly x: number;
  readonly y: number;
}

function Glyph({ glyph, x, y }: GlyphProps) {
  return (
    <text className="staff-glyph" x={x} y={y} fontSize={4 * SPACE}>
      {glyph}
    </text>
  );
}

/** Where a stem is drawn: from the head to its far end. */
function stemLine(x: number, at: StaffHeight, { way, side }: Stem) {
  const up = way === 'up';
  const stemX = x + (side === 'right' ? HEAD_WIDTH * SPACE - 1.2 : 1.2);
  const from = yOf(at) + (side === 'right' ? -JOIN : JOIN) * SPACE;
  // A stem reaches the middle line at least.
  const usual = yOf(at) - (up ? 1 : -1) * STEM_SPACES * SPACE;
  const far = up ? Math.min(usual, yOf(MIDDLE_LINE)) : Math.max(usual, yOf(MIDDLE_LINE));
  return { x: stemX, from, to: far };
}

function Head({ value, at, stem, x }: { value: NoteValue; at: StaffHeight; stem: Stem | null; x: number }) {
  const { base, dots } = value;
  const width = base === 'w' ? WHOLE_WIDTH : HEAD_WIDTH;
  const line = stem && base !== 'w' ? stemLine(x, at, stem) : undefined;
  const flag = stem && (base === 'e' || base === 's' || base === 't') ? FLAGS[stem.way][base] : undefined;
  // On a line a dot moves into the space above.
  const dotY = yOf(at % 2 === 0 ? at + 1 : at);
  return (
    <>
      <Glyph glyph={HEADS[base]} x={x} y={yOf(at)} />
      {line && <line className="staff-stem" x1={line.x} x2={line.x} y1={line.from} y2={line.to} />}
      {line && flag && <Glyph glyph={flag} x={line.x - 1} y={line.to} />}
      {dots > 0 && (
        <Glyph glyph={DOT.repeat(dots)} x={x + (width + (flag && stem?.way === 'up' ? 1 : 0.35)) * SPACE} y={dotY} />
      )}
    </>
  );
}

function Pair({ at, base }: { at: StaffHeight; base: 'e' | 's' }) {
  const stem = rightStems(at).at(-1)!;
  const [a, b] = [WIDTH / 2 - 1.9 * SPACE, WIDTH / 2 + 0.7 * SPACE];
  const [first, second] = [stemLine(a, at, stem), stemLine(b, at, stem)];
  const towards = stem.way === 'up' ? 1 : -1;
  const beams = base === 's' ? [0, 0.75] : [0];
  return (
    <>
      {[a, b].map((x) => (
        <Head key={x} value={{ base: 'q', dots: 0 }} at={at} stem={stem} x={x} />
      ))}
      {beams.map((off) => (
        <line
          key={off}
          className="staff-beam"
          x1={first.x - 1}
          x2={second.x + 1}
          y1={first.to + towards * (off + 0.25) * SPACE}
          y2={second.to + towards * (off + 0.25) * SPACE}
        />
      ))}
    </>
  );
}

function Rest({ value: { base, dots } }: { value: NoteValue }) {
  const x = WIDTH / 2 - 0.6 * SPACE;
  return (
    <>
      <Glyph glyph={RESTS[base]} x={x} y={yOf(base === 'w' ? 6 : MIDDLE_LINE)} />
      {dots > 0 && <Glyph glyph={DOT.repeat(dots)} x={x + 1.6 * SPACE} y={yOf(5)} />}
    </>
  );
}

function Drawn({ sign, at = 3, stem }: { sign: Sign; at?: StaffHeight | undefined; stem?: Stem | null | undefined }) {
  if (sign.sign === 'rest') return <Rest value={sign.value} />;
  if (sign.sign === 'pair') return <Pair at={at} base={sign.base} />;
  if (sign.sign === 'note') {
    const width = sign.value.base === 'w' ? WHOLE_WIDTH : HEAD_WIDTH;
    const drawn = stem === undefined ? rightStems(at).at(-1)! : stem;
    return <Head value={sign.value} at={at} stem={drawn} x={(WIDTH - width * SPACE) / 2} />;
  }
  const { glyph, line } = CLEFS[sign.sign];
  return <Glyph glyph={glyph} x={WIDTH / 2 - 1.3 * SPACE} y={yOf(line * 2)} />;
}

/** One sign on five lines; several beside each other make one staff. Its name is said beside it. */
export function StaffSignView({ sign, at, stem }: StaffSign) {
  return (
    <svg className="staff-sign" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      {LINES.map((line) => (
        <line key={line} className="staff-line" x1={0} x2={WIDTH} y1={yOf(line * 2)} y2={yOf(line * 2)} />
      ))}
      <Drawn sign={sign} at={at} stem={stem} />
    </svg>
  );
}
