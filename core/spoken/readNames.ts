import { numberWords } from '../counting/numberWords.ts';
import { SPOKEN_VALUES } from '../counting/systems/noteNames.ts';
import { type Fraction, ZERO, add, compare, sub } from '../rhythm/fraction.ts';
import { type Meter, beatOf, meterLength } from '../rhythm/meter.ts';
import type { Item, Measure, Pattern } from '../rhythm/pattern.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import { type ValueLetter, lengthOf } from '../rhythm/value.ts';

/** A note or rest as it was named; its length is a part of a whole note. */
interface Named {
  readonly kind: 'note' | 'rest';
  readonly length: Fraction;
  readonly label?: string | undefined;
}

interface Word {
  readonly text: string;
  readonly at: number;
  readonly typed: string;
}

export type NamedSpeech =
  | { readonly ok: true; readonly pattern: Pattern }
  | { readonly ok: false; readonly word: string; readonly at: number };

const BAR = '|';
/** Only sound: they say what is said already. */
const FILLERS: ReadonlySet<string> = new Set(['note', 'notes', 'hold', 'on', 'a', 'an', 'and', 'then']);
const MOST_NAMED = 8;
const RESTS: ReadonlySet<string> = new Set(['rest', 'rests', 'sh', '_']);
const MOST_WORDS = 4000;

function wordsOf(text: string): Word[] {
  return [...text.toLowerCase().matchAll(/\||[^\s,;.!|-]+/g)]
    .slice(0, MOST_WORDS)
    .map((found) => ({ text: found[0], at: found.index, typed: found[0] }));
}

const stuck = ({ typed, at }: Word): NamedSpeech => ({ ok: false, word: typed, at });

/**
 * Note names: "half note quarter quarter", "dotted quarter eighth rest", "two eighths", "crotchet rest", as the system
 * prints them too ("half-note", "quarter-dot", "(quarter)"). A rest without a name lasts a beat.
 * @returns nothing to read where no value is named
 */
export function readNoteNames(text: string, meter: Meter): NamedSpeech {
  const words = wordsOf(text);
  const bars: Named[][] = [[]];
  let dots = 0;
  let times = 1;
  let open: { count: number; base: ValueLetter; dots: 0 | 1 | 2 } | undefined;
  const say = (kind: Named['kind'], base: ValueLetter, dotted: number, count: number) => {
    const length = lengthOf({ base, dots: Math.min(2, dotted) as 0 | 1 | 2 });
    for (let k = 0; k < count; k++) bars.at(-1)!.push({ kind, length });
  };
  const close = (kind: Named['kind'] = 'note') => {
    if (open) say(kind, open.base, open.dots, open.count);
    open = undefined;
  };
  for (const [i, word] of words.entries()) {
    // As the system prints a rest: all in parentheses.
    if (word.text.startsWith('(')) close();
    const inner = word.text.replace(/^\(|\)$/g, '');
    const base = SPOKEN_VALUES[inner];
    const many = numberWords().slice(0, MOST_NAMED).indexOf(inner) + 1 || (/^[1-8]$/.test(inner) ? Number(inner) : 0);
    if (word.text === BAR) {
      close();
      if (bars.at(-1)!.length > 0) bars.push([]);
    } else if (base) {
      close();
      open = { count: times, base, dots: Math.min(2, dots) as 0 | 1 | 2 };
      [dots, times] = [0, 1];
    } else if (RESTS.has(inner)) {
      if (open) close('rest');
      else for (let k = 0; k < times; k++) bars.at(-1)!.push({ kind: 'rest', length: beatOf(meter).length });
      times = 1;
    } else if (inner === 'dotted' || inner === 'double') {
      close();
      // "double dotted" and "double-dotted" are two dots.
      dots += 1;
    } else if (inner === 'dot' || inner === 'dots') {
      if (!open) return stuck(word);
      open = { ...open, dots: Math.min(2, open.dots + 1) as 0 | 1 | 2 };
    } else if (many > 0 && words[i + 1]) {
      close();
      times = many;
    } else if (!FILLERS.has(inner)) return stuck(word);
    if (word.text.endsWith(')')) close('rest');
  }
  close();
  if (bars.flat().length === 0) return { ok: false, word: '', at: 0 };
  return { ok: true, pattern: write(bars, meter) };
}

/**
 * Counting within the note: "1-2 1 rest 1", and with letters "C E F G 2 3 4 rest". A 1 or a letter begins a note, the
 * next number is its next beat.
 */
export function readWithinNote(text: string, meter: Meter): NamedSpeech {
  const beat = beatOf(meter).length;
  const bars: Named[][] = [[]];
  let counted = 0;
  for (const word of wordsOf(text)) {
    const bar = bars.at(-1)!;
    const last = bar.at(-1);
    const number = /^\d+$/.test(word.text) ? Number(word.text) : undefined;
    if (word.text === BAR) {
      if (bar.length > 0) bars.push([]);
    } else if (RESTS.has(word.text) || /^\(.*\)$/.test(word.text)) {
      bar.push({ kind: 'rest', length: beat });
      counted = 0;
    } else if (number === 1) {
      bar.push({ kind: 'note', length: beat });
      counted = 1;
    } else if (number !== undefined && number === counted + 1 && last?.kind === 'note') {
      bar[bar.length - 1] = { ...last, length: add(last.length, beat) };
      counted = number;
    } else if (/^[a-h][#b♯♭]?$/.test(word.text)) {
      bar.push({ kind: 'note', length: beat, label: word.text[0]!.toUpperCase() + word.text.slice(1) });
      counted = 1;
    } else return stuck(word);
  }
  if (bars.flat().length === 0) return { ok: false, word: '', at: 0 };
  return { ok: true, pattern: write(bars, meter) };
}

/** Into measures: as the bars say, and where one is fuller than a measure into as many as it needs. */
function write(bars: readonly (readonly Named[])[], meter: Meter): Pattern {
  const full = meterLength(meter);
  const said = bars.filter((bar) => bar.length > 0);
  const first = said[0]!.reduce((sum, { length }) => add(sum, length), ZERO);
  const pickup = said.length > 1 && compare(first, full) < 0;
  const measures: Measure[] = [];
  const labels: (string | undefined)[] = said.flat().flatMap(({ kind, label }) => (kind === 'note' ? [label] : []));
  for (const [b, bar] of said.entries()) {
    let at = pickup && b === 0 ? sub(full, first) : ZERO;
    let spans: SoundSpan[] = [];
    const flush = () => {
      if (spans.length > 0) measures.push(writeMeasure(meter, spans));
      spans = [];
      at = ZERO;
    };
    for (const { kind, length } of bar) {
      let left = length;
      while (left.n > 0) {
        const room = sub(full, at);
        const here = compare(left, room) > 0 ? room : left;
        left = sub(left, here);
        spans.push({ kind, from: at, to: add(at, here), ...(left.n > 0 && kind === 'note' ? { tiedOut: true } : {}) });
        at = add(at, here);
        if (compare(at, full) >= 0) flush();
      }
    }
    flush();
  }
  return { pickup, measures: labelled(measures, labels) };
}

/** Puts the letters on the notes that are struck, in order. */
function labelled(measures: readonly Measure[], labels: readonly (string | undefined)[]): Measure[] {
  let next = 0;
  let tied = false;
  return measures.map((measure) => ({
    ...measure,
    items: measure.items.map((item): Item => {
      if (item.kind !== 'note') return item;
      const label = tied ? undefined : labels[next++];
      tied = item.tied === true;
      return label === undefined ? item : { ...item, label };
    }),
  }));
}
