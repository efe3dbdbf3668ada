import { perLanguage } from '../words/say.ts';
import { strToU8 } from 'fflate';
import { type CountOptions, countPattern } from '../counting/count.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { Score } from '../rhythm/score.ts';
import { printScore } from '../rhythm/scoreText.ts';
import { printRhythm } from '../rhythm/text.ts';
import { type FormatFacts, OUT_FACTS } from './formatFacts.ts';

/** A pattern that goes out, with the name it has. */
export interface NamedPattern {
  readonly title: string;
  /** Of several parts the first. */
  readonly pattern: Pattern;
  /** All parts, where there are several. */
  readonly score?: Score;
}

export interface WriteOptions {
  /** Counted beats a minute. */
  readonly bpm?: number;
  /** Counts under the notes, where a format has room for them. */
  readonly counts?: CountOptions;
  /** Several measures of rest drawn one by one, not as one sign with their number. */
  readonly eachRest?: boolean;
  readonly countIn?: boolean;
  readonly sound?: 'clap' | 'wood';
}

export const FORMAT_IDS = ['text', 'musicxml', 'mxl', 'midi', 'abc', 'wav', 'braille'] as const;
export type FormatId = (typeof FORMAT_IDS)[number];

export interface Format extends FormatFacts {
  readonly write: (patterns: readonly NamedPattern[], options: WriteOptions) => Promise<Uint8Array>;
}

/** Quarters a minute for counted beats a minute. */
function quartersOf(pattern: Pattern, bpm: number | undefined): { quarters?: number } {
  if (bpm === undefined) return {};
  const { n, d } = beatOf(pattern.measures[0]!.meter).length;
  return { quarters: (bpm * n * 4) / d };
}

function wordsOf(pattern: Pattern, counts: CountOptions | undefined) {
  const counted = counts && countPattern(pattern, counts);
  if (!counted?.ok) return {};
  return { words: counted.measures.map(({ tokens }) => tokens.map(({ text }) => text)) };
}

const textOf = ({ pattern, score }: NamedPattern) => (score ? printScore(score) : printRhythm(pattern));

async function musicXmlOf([only]: readonly NamedPattern[], { bpm, counts }: WriteOptions): Promise<string> {
  const { title, pattern, score } = only!;
  const { writeMusicXml, writeMusicXmlScore } = await import('./writeMusicXml.ts');
  const options = { title, ...quartersOf(pattern, bpm) };
  if (!score) return writeMusicXml(pattern, { ...options, ...wordsOf(pattern, counts) });
  const words = score.parts.map((part) => wordsOf(part.pattern, counts).words);
  return writeMusicXmlScore(score, { ...options, words });
}

/** Every format that needs no drawing, and how it is written. */
export const FORMATS = perLanguage((): Readonly<Record<FormatId, Format>> => ({
  text: {
    ...OUT_FACTS().text,
    write: (patterns) => {
      const [only] = patterns;
      const text =
        patterns.length === 1
          ? `${textOf(only!)}\n`
          : patterns.map((one) => `% ${one.title}\n${textOf(one)}\n`).join('\n');
      return Promise.resolve(strToU8(text));
    },
  },
  musicxml: {
    ...OUT_FACTS().musicxml,
    write: async (patterns, options) => strToU8(await musicXmlOf(patterns, options)),
  },
  mxl: {
    ...OUT_FACTS().mxl,
    write: async (patterns, options) => (await import('./mxl.ts')).mxlOf(await musicXmlOf(patterns, options)),
  },
  midi: {
    ...OUT_FACTS().midi,
    write: async ([only], { bpm, countIn, sound }) => {
      const { writeMidi, writeMidiScore } = await import('./writeMidi.ts');
      const { title, pattern, score } = only!;
      const set = {
        ...(bpm === undefined ? {} : { bpm }),
        ...(countIn ? { countIn } : {}),
        ...(sound ? { sound } : {}),
      };
      return score ? writeMidiScore(score, { title, ...set }) : writeMidi(pattern, { title, ...set });
    },
  },
  abc: {
    ...OUT_FACTS().abc,
    write: async (patterns, { bpm }) => {
      const { writeAbc, writeAbcScore } = await import('./writeAbc.ts');
      const tunes = patterns.map(({ title, pattern, score }, i) => {
        const set = { title, index: i + 1, ...quartersOf(pattern, bpm) };
        return score ? writeAbcScore(score, set) : writeAbc(pattern, set);
      });
      return strToU8(`%abc-2.1\n${tunes.join('\n')}`);
    },
  },
  braille: {
    ...OUT_FACTS().braille,
    write: async (patterns, { counts = { school: 'numbers' } }) => {
      const { writeBraille } = await import('./writeBraille.ts');
      return strToU8(writeBraille(patterns, counts));
    },
  },
  wav: {
    ...OUT_FACTS().wav,
    write: async ([only], { bpm, sound }) => {
      const { writeWav, writeWavScore } = await import('./writeWav.ts');
      const { score } = only!;
      if (score) return writeWavScore(score, bpm === undefined ? {} : { bpm });
      return writeWav(only!.pattern, { ...(bpm === undefined ? {} : { bpm }), ...(sound ? { sound } : {}) });
    },
  },
}));
