import { t } from '../../../core/words/say.ts';
import { strokesOf } from '../../../core/ear/strokes.ts';
import { rightStems } from '../../../core/exercises/signs.ts';
import { drawnSignName, strokeText } from '../../../core/wording/drawWords.ts';
import { circled } from '../../../core/wording/sheetWords.ts';
import { signName } from '../../../core/wording/signWords.ts';
import { capital } from '../../../core/wording/valueNames.ts';
import { fitted, wrapped } from '../../lettering.ts';
import type { WrittenText } from '../../pdfPen.ts';
import { BLACK, PALE, line, moved, movedTexts, ring } from '../block.ts';
import type { DrawQuestion } from '../drawQuestion.ts';
import {
  ABOVE,
  SIGN_WIDTH,
  SPACE,
  STAFF_HEIGHT,
  headX,
  signShapes,
  staffLines,
  stemShape,
  strokeShape,
  strokeStart,
} from '../staff.ts';

const TASK = 18;
/** Middle of the nth room on a staff of so many. */
const roomAt = (nth: number, of: number, width: number) => ((nth + 0.5) * width) / of;
const staffWidth = (signs: number, width: number) => Math.min(width, signs * (SIGN_WIDTH + 12));

export const drawCircle: DrawQuestion<'circle'> = (question, ink, filled) => {
  const { staff = [], answers = [] } = question.question;
  const width = staffWidth(staff.length, ink.width);
  const signs = staff.flatMap((sign, i) => signShapes(ink.fonts, sign, roomAt(i, staff.length, width)));
  const rings = filled
    ? answers.map((i) =>
        ring(roomAt(i, staff.length, width), STAFF_HEIGHT / 2, SIGN_WIDTH / 2 + 2, STAFF_HEIGHT / 2 - 4),
      )
    : [];
  const task = capital(circled(question, ink.voice.naming));
  return {
    tag: 'Figure',
    alt: t`${task}: ${staff.length} signs on a staff`,
    width: ink.width,
    height: TASK + STAFF_HEIGHT,
    shapes: moved([...staffLines(width), ...signs, ...rings], 0, TASK),
    texts: [{ text: task, x: 0, y: 14, size: 12 }],
  };
};

export const drawNameSign: DrawQuestion<'name-sign'> = ({ question }, ink, filled) => {
  const [shown] = question.staff!;
  const width = Math.min(ink.width, 110);
  const y = STAFF_HEIGHT + 10;
  const answer = question.options[question.answer]!.answer;
  const name = answer.is === 'sign' ? signName(answer.sign, ink.voice.naming) : '';
  const size = fitted(ink.fonts.strong, name, 11, ink.width);
  const texts: WrittenText[] = filled ? [{ text: name, x: 0, y, size, strong: true }] : [];
  return {
    tag: 'Figure',
    alt: t`A sign on a staff`,
    width: ink.width,
    height: y + 8,
    shapes: [...staffLines(width), ...signShapes(ink.fonts, shown!, width / 2), line(0, y + 3, ink.width, y + 3, 0.6)],
    texts,
  };
};

export const drawStems: DrawQuestion<'stems'> = ({ heads }, ink, filled) => {
  const width = staffWidth(heads.length, ink.width);
  const shapes = heads.flatMap((head, i) => {
    const middle = roomAt(i, heads.length, width);
    const drawn = signShapes(ink.fonts, head, middle);
    const base = 'value' in head.sign ? head.sign.value.base : 'q';
    const x = headX(base, middle);
    return filled ? [...drawn, ...rightStems(head.at!).map((stem) => stemShape(x, head.at!, stem))] : drawn;
  });
  return {
    tag: 'Figure',
    alt: t`${heads.length} heads without stems`,
    width: ink.width,
    height: STAFF_HEIGHT,
    shapes: [...staffLines(width), ...shapes],
    texts: [],
  };
};

/** Larger than other signs: it is traced with a pencil. */
const LARGE = 1.5;
const TRACES = 3;
const WORDS_SIZE = 10;

/** The sign with its strokes numbered, pale ones to trace, and the rest of the staff to draw on. */
export const drawDraw: DrawQuestion<'draw'> = ({ sign }, ink) => {
  const strokes = strokesOf(sign);
  const width = ink.width / LARGE;
  const room = SIGN_WIDTH * 1.25;
  const middle = room / 2;
  const taken: { x: number; y: number }[] = [];
  const numbers = strokes.map((stroke, i): WrittenText => {
    const at = strokeStart(stroke, middle);
    let x = at.x - 6;
    const y = at.y - 1;
    // Numbers of strokes that begin at one place stand beside each other.
    while (taken.some((other) => Math.abs(other.x - x) < 5 && Math.abs(other.y - y) < 6)) x -= 5.5;
    taken.push({ x, y });
    return { text: String(i + 1), x, y, size: 6, strong: true, align: 'middle' };
  });
  const traces = Array.from({ length: TRACES }, (_, i) =>
    strokes.map((stroke) => strokeShape(stroke, middle + (i + 1) * room, PALE, 1.3)),
  ).flat();
  const model = strokes.map((one) => strokeShape(one, middle, BLACK, 1.3));
  const words = strokes.map(({ says }, i) => `${i + 1} ${strokeText(says)}.`).join(' ');
  const lines = wrapped(ink.fonts.letters, words, WORDS_SIZE, ink.width);
  const top = 20 + lines.length * WORDS_SIZE * 1.35 - (ABOVE - 2.4) * SPACE * LARGE;
  return {
    tag: 'Figure',
    alt: `${drawnSignName(sign, ink.voice.naming)}: ${words}`,
    width: ink.width,
    height: top + (STAFF_HEIGHT - SPACE) * LARGE,
    shapes: moved([...staffLines(width), ...model, ...traces], 0, top, LARGE),
    texts: [
      { text: drawnSignName(sign, ink.voice.naming), x: 0, y: 14, size: 12, strong: true },
      ...lines.map((text, i): WrittenText => ({ text, x: 0, y: 30 + i * WORDS_SIZE * 1.35, size: WORDS_SIZE })),
      ...movedTexts(numbers, 0, top, LARGE),
    ],
  };
};
