import PDFDocument from 'pdfkit';
import { beforeAll, describe, expect, it } from 'vitest';
import { patternOf } from '../core/rhythm/arbitrary.test-helper.ts';
import { scoreOfText } from '../core/rhythm/arbitraryScore.test-helper.ts';
import { drawnFormats } from './drawnFormats.ts';
import { type Fonts, type PathCommand, outlineOf } from './fonts.ts';
import { testFonts } from './fonts.test-helper.ts';
import { CLEFS, DOT, FLAGS, HEADS, RESTS } from './staffGlyphs.ts';
import type { PdfDocument } from './pdfPen.ts';
import { PICTURE_WIDTH, drawPattern } from './picture.ts';
import { drawScore } from './scorePicture.ts';
import { svgOf } from './svg.ts';

let fonts: Fonts;
beforeAll(() => {
  fonts = testFonts();
});

/** The box of a path: its points, those that only bend it too. */
function boxOf(path: readonly PathCommand[]) {
  const xs = path.flatMap(({ args }) => args.filter((_, i) => i % 2 === 0));
  const ys = path.flatMap(({ args }) => args.filter((_, i) => i % 2 === 1));
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

const ALL = '4/4 ^ q | #5 "A" q. e (q) q | 3{e e e} q~ q s s e | (M2) | 6/8 q. e e e |: e. s e (q.) :|';

describe('the music font', () => {
  const figures = Array.from({ length: 10 }, (_, i) => [0xe080 + i, 0xe880 + i]).flat();
  const singles = [0xe1d2, 0xe1d3, 0xe1d5, 0xe1d7, 0xe1d9, 0xe1db, 0xe88a, 0xe4a2, 0xe4a3];
  const signs = [
    ...[HEADS, RESTS, FLAGS.up, FLAGS.down].flatMap((table) => Object.values<string>(table)),
    ...[DOT, CLEFS.treble.glyph, CLEFS.bass.glyph],
    ...[...figures, ...singles].map((code) => String.fromCodePoint(code)),
  ];
  it('has every sign that is drawn', () => {
    const missing = outlineOf(fonts.music, '\ue000', 40).commands;
    for (const sign of signs) {
      const { commands, width } = outlineOf(fonts.music, sign, 40);
      expect([sign.codePointAt(0)!.toString(16), commands.length > 0, width > 0]).toEqual([
        sign.codePointAt(0)!.toString(16),
        true,
        true,
      ]);
      expect(commands).not.toEqual(missing);
    }
  });
});

describe('a drawn pattern', () => {
  it('stays on its paper, every line in its height', () => {
    const { lines } = drawPattern(patternOf(ALL), fonts, { counts: { school: 'numbers' } });
    expect(lines.length).toBeGreaterThan(1);
    for (const { shapes, height } of lines) {
      for (const { path } of shapes) {
        const { left, right, top, bottom } = boxOf(path);
        expect(left).toBeGreaterThanOrEqual(0);
        expect(right).toBeLessThanOrEqual(PICTURE_WIDTH);
        expect(top).toBeGreaterThanOrEqual(0);
        expect(bottom).toBeLessThanOrEqual(height);
      }
    }
  });
  it('has counts under their notes, numbers and letters over their measures', () => {
    const [first] = drawPattern(patternOf('4/4 #5 "A" q q e e q'), fonts, { counts: { school: 'numbers' } }).lines;
    const [mark, ...counts] = first!.texts;
    expect(mark!.text).toBe('A  5');
    expect(counts.map(({ text }) => text)).toEqual(['1', '2', '3', '&', '4']);
    const steps = counts.slice(1).map(({ x }, i) => Math.round(x - counts[i]!.x));
    // A quarter takes more room than an eighth, if not twice as much.
    expect(steps).toEqual([steps[0], steps[0], steps[2], steps[2]]);
    expect(steps[0]!).toBeGreaterThan(steps[2]! * 1.2);
    const plain = drawPattern(patternOf('4/4 q q e e q'), fonts).lines[0]!;
    expect(plain.texts).toEqual([]);
    expect(plain.height).toBeLessThan(first!.height);
  });
  it('draws each head where its count stands', () => {
    const { lines } = drawPattern(patternOf('4/4 q q q q'), fonts, { counts: { school: 'numbers' } });
    const head = outlineOf(fonts.music, '\ue0a4', 40);
    expect(head.box.right).toBeGreaterThan(5);
    const { shapes, texts } = lines[0]!;
    for (const { x } of texts) {
      const over = shapes.filter(({ path }) => {
        const { left, right } = boxOf(path);
        return left < x && right > x && right - left < 20;
      });
      expect(over.length).toBeGreaterThan(0);
    }
  });
  it('is an SVG with a name, without a font of others', () => {
    const svg = svgOf(drawPattern(patternOf(ALL), fonts, { title: 'Low <tide>' }), fonts);
    expect(svg).toContain('<title>Low &lt;tide&gt;</title>');
    expect(svg).not.toContain('<text');
    expect(svg).not.toMatch(/NaN|undefined|Infinity/);
    expect(svg).toBe(svgOf(drawPattern(patternOf(ALL), fonts, { title: 'Low <tide>' }), fonts));
  });
});

describe('drawn files', () => {
  const formats = drawnFormats({
    fonts: () => Promise.resolve(fonts),
    pdf: () => Promise.resolve(PDFDocument as PdfDocument),
  });
  const patterns = Array.from({ length: 12 }, (_, i) => ({ title: `Tide ${i}`, pattern: patternOf(ALL) }));
  const latin = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1');
  it('are a PDF of as many pages as are needed, small, with its fonts in it, the same each time', async () => {
    const one = await formats.pdf.write(patterns.slice(0, 1), { counts: { school: 'numbers' } });
    expect(latin(one)).toMatch(/^%PDF-/);
    expect(latin(one).match(/\/Type \/Page\b/g)).toHaveLength(1);
    expect(latin(one)).toContain('/FontFile2');
    expect(latin(one)).toContain('(en)');
    expect(one.length).toBeLessThan(60_000);
    const many = await formats.pdf.write(patterns, {});
    const pages = latin(many).match(/\/Type \/Page\b/g)!.length;
    expect(pages).toBeGreaterThan(2);
    expect(many.length / pages).toBeLessThan(60_000);
    expect(latin(await formats.pdf.write(patterns, {}))).toBe(latin(many));
  });
  it('are a picture for one pattern', async () => {
    const svg = new TextDecoder().decode(await formats.svg.write(patterns.slice(0, 1), {}));
    expect(svg).toMatch(/^<svg .*<\/svg>\n$/s);
  });
});

describe('a drawn score', () => {
  const text =
    '4/4 [clap] ^ e e | q. e (q) q |: 3{e e e} q e s s q | "A" (M1) :| h q' +
    '[stamp]* q q q q [a group with a long name] q | w | w | w | h (q)';
  const score = scoreOfText(text.replace('h q[', 'h q q ['));
  const drawn = () => drawScore(score, fonts, { title: 'Tide', counts: { school: 'numbers' } });
  /** Heads, by their line and how far from the left. */
  const headsOf = ({ shapes }: ReturnType<typeof drawn>['lines'][number]) =>
    shapes
      .filter(({ sign }) => sign !== undefined && Object.values<string>(HEADS).includes(sign))
      .map(({ path }) => boxOf(path))
      .map(({ left, right, top, bottom }) => ({
        x: Math.round((left + right) / 2),
        y: Math.round((top + bottom) / 2),
      }));

  it('stands on its paper, a line a part with its name, bar lines through all', () => {
    const { lines, width, title } = drawn();
    expect([width, title]).toEqual([PICTURE_WIDTH, 'Tide']);
    for (const line of lines) {
      const boxes = line.shapes.map(({ path }) => boxOf(path));
      expect(Math.min(...boxes.map(({ left }) => left))).toBeGreaterThanOrEqual(0);
      expect(Math.max(...boxes.map(({ right }) => right))).toBeLessThanOrEqual(PICTURE_WIDTH);
      expect(Math.max(...boxes.map(({ bottom }) => bottom))).toBeLessThanOrEqual(line.height);
      const names = line.texts.filter(({ middle, x }) => !middle && x === 0).map((one) => one.text);
      expect(names).toEqual(['clap', 'stamp', 'a group …']);
      const tall = boxes.filter(({ left, right, top, bottom }) => right - left < 6 && bottom - top > 250);
      expect(tall.length).toBeGreaterThan(0);
    }
  });

  it('has room for the densest part', () => {
    const linesOf = (other: string) =>
      drawScore(scoreOfText(`4/4 [a] w | w | w | w [b]* ${other}`), fonts).lines.length;
    expect([linesOf('w'), linesOf('s s s s s s s s s s s s s s s s')]).toEqual([1, 4]);
  });

  it('has what sounds together one under the other', () => {
    const [first] = drawn().lines;
    const rows = new Map<number, number[]>();
    for (const { x, y } of headsOf(first!)) rows.set(y, [...(rows.get(y) ?? []), x]);
    const [clap, stamp, other] = [...rows.entries()].sort(([a], [b]) => a - b).map(([, xs]) => xs);
    // The first beat of measure 1: after two eighths, after the rest of the pickup, after its quarter.
    expect(stamp![0]).toBeCloseTo(clap![2]!, 0);
    expect(Math.abs(other![1]! - clap![2]!)).toBeLessThanOrEqual(3);
  });

  it('goes into SVG and PDF with every part', async () => {
    const { svg, pdf } = drawnFormats({
      fonts: () => Promise.resolve(fonts),
      pdf: () => Promise.resolve(PDFDocument as unknown as PdfDocument),
    });
    const named = { title: 'Tide', pattern: score.parts[0]!.pattern, score };
    const one = new TextDecoder().decode(await svg.write([{ title: 'Tide', pattern: named.pattern }], {}));
    const all = new TextDecoder().decode(await svg.write([named], {}));
    const height = (file: string) => Number(/height="(\d+)/.exec(file)![1]);
    expect(height(all)).toBeGreaterThan(1.8 * height(one));
    expect(new TextDecoder('latin1').decode((await pdf.write([named], {})).slice(0, 4))).toBe('%PDF');
  });
});
