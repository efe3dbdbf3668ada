import { perLanguage, t } from '../words/say.ts';
import { vowelOf } from '../counting/beatPlace.ts';
import type { CountingSystem, SpeechRules, Words } from '../counting/countingSystem.ts';
import type { WordSet } from '../counting/wordSet.ts';
import { BAR } from './automaton.ts';

/** One token and where it stood in the text, for messages. */
export interface Typed {
  readonly token: string;
  readonly at: number;
  readonly typed: string;
}

const LONGEST = 20_000;
const MOST_KEPT = 2000;

/** What people type for the signs of the counts, in each language. */
const MEANT = perLanguage((): Readonly<Record<string, string>> => {
  const half = t`&`;
  return {
    '&': half,
    and: half,
    und: half,
    y: half,
    '+': half,
    n: half,
    shh: 'sh',
    shhh: 'sh',
    ssh: 'sh',
    zz: 'rest',
    z: 'rest',
    '‖': BAR,
    '||': BAR,
  };
});

/**
 * Cuts typed speech into tokens just as the systems print them, tolerant of how people type:
 * capitals, commas, "ti-ti" or "titi" for "ti ti", "1e+a" for "1 e & a", "taa" for "ta-a".
 */
export function typedTokens(text: string, tokenizer: Tokenizer): Typed[] {
  const plain = text
    .slice(0, LONGEST)
    .toLowerCase()
    .replace(/[–—‑’‘]|\|\|/g, (sign) => (sign === '||' ? ' |' : '’‘'.includes(sign) ? "'" : '-'));
  const tokens: Typed[] = [];
  WORDS.lastIndex = 0;
  for (let found = WORDS.exec(plain); found; found = WORDS.exec(plain)) {
    const typed = found[0];
    const at = found.index;
    if (typed !== BAR) for (const token of tokenizer.cut(typed)) tokens.push({ token, at, typed });
    else if (tokens.length > 0 && tokens.at(-1)!.token !== BAR) tokens.push({ token: BAR, at, typed: BAR });
  }
  while (tokens.at(-1)?.token === BAR) tokens.pop();
  return tokens;
}

/** What stands between white space, bars, and signs that people set between words. */
const WORDS = /\||[^\s,;.!|]+/g;

const BEAT_NUMBERS: readonly string[] = Array.from({ length: 16 }, (_, i) => String(i + 1));

/** The tokens that an alias stands for: its keys are words, and what follows a hyphen holds on. */
function meantBy(keys: string, words: Words): string[] {
  return keys.split(' ').map((held) =>
    held
      .split('-')
      .map((key) => words[key] ?? key)
      .join('-'),
  );
}

/** Knows the words of one school, longest first. */
export class Tokenizer {
  private readonly syllables: readonly string[];
  private readonly whole: ReadonlyMap<string, readonly string[]>;
  private readonly rules: SpeechRules;
  private readonly numbered: boolean;
  private readonly known = new Map<string, readonly string[]>();

  constructor(
    school: CountingSystem,
    private readonly words: Words,
    wordSet: WordSet,
  ) {
    const rules = school.speech;
    if (!rules) throw new Error(`${school.title} does not lead back to writing`);
    this.rules = rules;
    this.numbered = rules.numbered;
    const cells = school.cells ? Object.values(wordSet.cells) : [];
    this.whole = new Map([
      ...cells.map((word) => [word.replaceAll('-', '').toLowerCase(), word.split('-')] as const),
      ...Object.entries(rules.aliases).map(([alias, keys]) => [alias, meantBy(keys, words)] as const),
    ]);
    const own = school.cells
      ? cells.flatMap((word) => word.split('-'))
      : Object.entries(words)
          .filter(([key]) => !rules.onlyHeld.includes(key))
          .map(([, word]) => word);
    this.syllables = [...new Set([...own, 'rest', 'sh', ...(rules.numbered ? BEAT_NUMBERS : [])])].sort(
      (a, b) => b.length - a.length,
    );
  }

  /** All that can be typed on its own, for what was mistyped. */
  get vocabulary(): readonly string[] {
    return [...new Set([...this.syllables, ...this.whole.keys()])];
  }

  /** The tokens of what was typed without a space. People say the same few again and again: they are kept. */
  cut(typed: string): readonly string[] {
    let tokens = this.known.get(typed);
    if (!tokens) {
      if (this.known.size >= MOST_KEPT) this.known.clear();
      this.known.set(typed, (tokens = this.tokensOf(typed)));
    }
    return tokens;
  }

  private tokensOf(typed: string): string[] {
    const opens = typed.startsWith('(');
    const inner = typed.replace(/^\(|\)$/g, '');
    if (opens || typed.endsWith(')')) return [`(${this.numbered ? this.numberedParts(inner).join('-') : inner})`];
    if (typed === '_' || typed === '·' || typed === '-') return [typed];
    const meant = MEANT()[typed];
    if (meant !== undefined && !this.syllables.includes(typed)) return [meant];
    const joined = this.whole.get(typed.replaceAll('-', ''));
    if (joined && joined.length > 1 && !this.syllables.includes(typed)) return [...joined];
    if (this.numbered) return this.holds(typed);
    return this.spoken(typed);
  }

  /** Numbers: what is joined by hyphens is one note held on ("1-2"), what is run together are several ("1e&a"). */
  private holds(typed: string): string[] {
    const tied = typed.startsWith('-') ? '-' : '';
    const parts = typed.split('-').filter((part) => part !== '');
    const runs = parts.map((part) => this.segments(MEANT()[part] ?? part.replaceAll(/[+&]/g, t`&`)) ?? [part]);
    if (runs.every((run) => run.length === 1)) {
      const joined = runs
        .map(([part], i) =>
          i > 0 && !this.rules.heldByParts && !/\d|[₀-₉]/.test(part!) ? ` ${part}` : `${i > 0 ? '-' : ''}${part}`,
        )
        .join('');
      return (tied + joined).split(' ');
    }
    return runs.flat();
  }

  private numberedParts(inner: string): string[] {
    return inner.split('-').map((part) => MEANT()[part] ?? this.whole.get(part)?.[0] ?? part);
  }

  /** Syllables: a vowel after a hyphen (or run on) holds the note before it, anything else is the next note. */
  private spoken(typed: string): string[] {
    const parts = typed.split('-');
    const tokens: string[] = [];
    parts.forEach((part, i) => {
      if (part === '') return;
      const before = tokens.at(-1);
      if (
        i > 0 &&
        (before === undefined ? !this.syllables.includes(part) || part.length === 1 : this.goesOn(before, part))
      ) {
        if (before === undefined) tokens.push(`-${part}`);
        else tokens[tokens.length - 1] = `${before}-${part}`;
        return;
      }
      tokens.push(
        ...(this.syllables.includes(part) ? [part] : (this.whole.get(part) ?? this.segments(part) ?? [part])),
      );
    });
    return tokens;
  }

  private goesOn(before: string, part: string): boolean {
    const first = before.split('-').find((piece) => piece !== '') ?? '';
    if (part === first && (part === 'rest' || part === 'sh')) return true;
    // A vowel that is a syllable of its own ("o" of a triplet) holds only what sounds like it.
    if (part === vowelOf(first)) return true;
    return this.rules.goesOn(first, part, this.words);
  }

  /** Several syllables run together, cut from the left, the longest first; a doubled last vowel holds. */
  private segments(part: string): string[] | undefined {
    if (this.syllables.includes(part)) return [part];
    const cuts: (string[] | undefined)[] = Array.from({ length: part.length + 1 });
    cuts[0] = [];
    for (let i = 0; i < part.length; i++) {
      const here = cuts[i];
      if (!here) continue;
      for (const syllable of this.syllables) {
        if (part.startsWith(syllable, i)) cuts[i + syllable.length] ??= [...here, syllable];
      }
      for (const [alias, meant] of this.whole)
        if (part.startsWith(alias, i)) cuts[i + alias.length] ??= [...here, ...meant];
      const before = here.at(-1);
      const vowel = before === undefined ? undefined : vowelOf(before);
      if (vowel && !this.numbered && part.startsWith(vowel, i) && vowel !== before)
        cuts[i + vowel.length] ??= [...here.slice(0, -1), `${before}-${vowel}`];
    }
    return cuts[part.length];
  }
}
