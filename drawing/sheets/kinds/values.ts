import { t } from '../../../core/words/say.ts';
import { mixed, mul, div, frac } from '../../../core/rhythm/fraction.ts';
import { VALUE, lengthOf } from '../../../core/rhythm/value.ts';
import { type Part, totalBeats } from '../../../core/exercises/valueSums.ts';
import { howManyText } from '../../../core/wording/sheetWords.ts';
import { valueName } from '../../../core/wording/valueNames.ts';
import { lettering } from '../../lettering.ts';
import type { WrittenText } from '../../pdfPen.ts';
import type { Shape } from '../../strokes.ts';
import { line, ring } from '../block.ts';
import type { DrawQuestion, SheetInk } from '../drawQuestion.ts';
import { textSign } from '../staff.ts';

const TEXT = 12;
const SIGN = 26;
const HEIGHT = 34;
/** Of the baseline of text and signs. */
const BASE = 25;
const ANSWER = 60;

/** A line of words and signs, put down from left to right. */
class Row {
  readonly shapes: Shape[] = [];
  readonly texts: WrittenText[] = [];
  x = 0;

  constructor(private readonly ink: SheetInk) {}

  say(text: string): this {
    this.texts.push({ text, x: this.x, y: BASE, size: TEXT });
    this.x += lettering(this.ink.fonts.letters, text, TEXT).width;
    return this;
  }

  gap(width: number): this {
    this.x += width;
    return this;
  }

  sign(part: Pick<Part, 'kind' | 'value'>): this {
    const { shapes, width } = textSign(this.ink.fonts, part, SIGN, this.x, BASE - 1);
    this.shapes.push(...shapes);
    this.x += width;
    return this;
  }

  /** Signs with a plus between them. */
  sum(parts: readonly Part[]): this {
    parts.forEach((part, i) => {
      if (i > 0) this.gap(9).say('+').gap(9);
      this.sign(part);
    });
    return this;
  }

  /** A line to write on; in the key with what belongs there. */
  blank(answer: string | undefined): this {
    this.shapes.push(line(this.x, BASE + 3, this.x + ANSWER, BASE + 3, 0.6));
    if (answer !== undefined)
      this.texts.push({ text: answer, x: this.x + ANSWER / 2, y: BASE - 1, size: TEXT, strong: true, align: 'middle' });
    this.x += ANSWER;
    return this;
  }

  block(alt: string) {
    return {
      tag: 'Figure' as const,
      alt,
      width: this.ink.width,
      height: HEIGHT,
      shapes: this.shapes,
      texts: this.texts,
    };
  }
}

export const drawHowMany: DrawQuestion<'how-many'> = (question, ink, filled) => {
  const count = mul(frac(question.times), div(lengthOf(question.whole), VALUE[question.small].of));
  const text = howManyText(question, ink.voice.naming);
  const row = new Row(ink).say(text).gap(10);
  return row.blank(filled ? mixed(count) : undefined).block(text);
};

export const drawTrueFalse: DrawQuestion<'true-false'> = ({ question }, ink, filled) => {
  const [left = [], right = []] = question.sides ?? [];
  const row = new Row(ink).sum(left).gap(12).say('=').gap(12).sum(right);
  row.x = Math.max(row.x + 30, ink.width - 110);
  const { answer } = question.options[question.answer]!;
  for (const truth of [true, false]) {
    const from = row.x;
    row.say(String(truth));
    const isRight = answer.is === 'truth' && answer.truth === truth;
    if (filled && isRight) row.shapes.push(ring((from + row.x) / 2, BASE - 4, (row.x - from) / 2 + 7, 10));
    row.gap(22);
  }
  return row.block(t`Two sides to compare`);
};

export const drawSums: DrawQuestion<'sums'> = ({ parts, beat }, ink, filled) => {
  const row = new Row(ink)
    .sign({ kind: 'note', value: { base: beat, dots: 0 } })
    .gap(6)
    .say(t`= 1 beat`);
  row.x = Math.max(row.x, 72) + 24;
  row.sum(parts).gap(10).say('=').gap(8);
  row
    .blank(filled ? mixed(totalBeats(parts, beat)) : undefined)
    .gap(6)
    .say('beats');
  const names = parts.map(({ value }) => valueName(value, ink.voice.naming)).join(' and ');
  return row.block(t`The ${valueName({ base: beat, dots: 0 }, ink.voice.naming)} gets the beat: ${names}`);
};
