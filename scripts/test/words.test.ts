import { IntlMessageFormat } from 'intl-messageformat';
import { describe, expect, it } from 'vitest';
import { LANGUAGE_IDS, LANGUAGES, SOURCE } from '../../core/words/say.ts';
import { allSentences, keysIn, readCatalogues, sortedOut } from '../build/sentences.ts';

const sentences = allSentences();
const VALUES = Object.fromEntries(Array.from({ length: 10 }, (_, i) => [i, 1]));
const places = (text: string) => new Set(text.match(/\{\d+(?=[},])/g));

describe('sentences of the program', () => {
  it('are found in tags, over broken lines, and in what is counted', () => {
    const source = [
      'const a = t`Hear ${name}',
      '   again`;',
      'const b = <p>{rich`Press ${<kbd>E</kbd>}`}</p>;',
      "const c = counted(n, 'clap') + counted(n, 'child', 'children') + counted(n, one, many);",
      'const d = `not ${this}`;',
    ].join('\n');
    expect(keysIn('x.tsx', source).map(({ key }) => key)).toEqual([
      'Hear {0} again',
      'Press {0}',
      '# clap|# claps',
      '# child|# children',
    ]);
  });

  it('are some thousand, each at a place', () => {
    expect(sentences.length).toBeGreaterThan(3000);
    expect(sentences.every(({ places: at }) => at.length > 0)).toBe(true);
  });
});

describe.each(LANGUAGE_IDS.filter((language) => language !== SOURCE))('the catalogues of %s', (language) => {
  const catalogues = readCatalogues(language);
  const messages = Object.assign({}, ...Object.values(catalogues)) as Record<string, string>;

  it('have every sentence, none that nobody says, each where its room looks for it (npm run words)', () => {
    const sorted = sortedOut(messages, sentences);
    expect(sorted.missing.map(({ key }) => key)).toEqual([]);
    expect(catalogues).toEqual(sorted.catalogues);
  });

  it('have messages that can be read, with no other places than their sentence has', () => {
    const wrong = Object.entries(messages).filter(([key, message]) => {
      const read = new IntlMessageFormat(message, LANGUAGES[language].locale, undefined, { ignoreTag: true });
      const asked = key.startsWith('# ') ? new Set(['{0']) : places(key);
      return read.getAst().length === 0 || [...places(message)].some((place) => !asked.has(place));
    });
    expect(wrong).toEqual([]);
  });

  it('keep the names of values and measures as names', () => {
    const named = /\{([whqest]|[Mm]easure)\+?\}/;
    const lost = Object.entries(messages).filter(
      ([key, message]) =>
        !named.test(key) &&
        named.test(String(new IntlMessageFormat(message, 'en', undefined, { ignoreTag: true }).format(VALUES))),
    );
    expect(lost).toEqual([]);
  });
});
