import { describe, expect, it } from 'vitest';
import { COUNTING_SYSTEMS, type CountingSystemId } from '../counting/countingSystems.ts';
import { HARBOUR_ANIMALS } from '../counting/wordSet.ts';
import { Tokenizer, typedTokens } from './tokenizer.ts';

function cut(school: CountingSystemId, text: string, own: Readonly<Record<string, string>> = {}) {
  return typedTokens(
    text,
    new Tokenizer(COUNTING_SYSTEMS()[school], { ...COUNTING_SYSTEMS()[school].words, ...own }, HARBOUR_ANIMALS()),
  );
}

/** School, what is typed, the tokens as the system prints them. */
const CASES: readonly (readonly [CountingSystemId, string, string])[] = [
  ['numbers', '1 & 2', '1 & 2'],
  ['numbers', '1 and 2 AND 3', '1 & 2 & 3'],
  ['numbers', '1+ 2+', '1 & 2 &'],
  ['numbers', '1e&a 2', '1 e & a 2'],
  ['numbers', '1e+a', '1 e & a'],
  ['numbers', '12', '12'],
  ['numbers', '1-2 3', '1-2 3'],
  ['numbers', '1–2, 3; 4.', '1-2 3 4'],
  ['numbers', '(3-4) (and)', '(3-4) (&)'],
  ['numbers', '-3 -', '-3 -'],
  ['numbers', '1 2 || 3 4', '1 2 | 3 4'],
  ['numbers', '| 1 2 | | 3 4 |', '1 2 | 3 4'],
  ['numbers', '1\t2\n3\u00a04', '1 2 3 4'],
  ['numbers', '1 rest 3 shh', '1 rest 3 sh'],
  ['numbers-te', '1tateta', '1 ta te ta'],
  ['numbers-te', '1-te-2-te', '1 te-2 te'],
  ['pulses', '1-&-2-& 3-&', '1-&-2-& 3-&'],
  ['ta', 'ta ti-ti ta-a', 'ta ti ti ta-a'],
  ['ta', 'TA titi taa', 'ta ti ti ta-a'],
  ['ta', 'ti-ka-ti-ka', 'ti ka ti ka'],
  ['ta', 'tikatika', 'ti ka ti ka'],
  ['ta', 'tri-o-la', 'tri o la'],
  ['ta', 'triola', 'tri o la'],
  ['ta', 'tom-ti', 'tom ti'],
  ['ta', 'tom-om', 'tom-om'],
  ['ta', 'ta-a-a-a sh-sh', 'ta-a-a-a sh-sh'],
  ['ta', 'sh-s -a', 'sh-s -a'],
  ['takadimi', 'takadimi ta-di', 'ta ka di mi ta di'],
  ['takadimi', 'ta-a (ta-ta) di-i', 'ta-a (ta-ta) di-i'],
  ['words', 'otter crab', 'ot ter crab'],
  ['words', 'ot-ter pe-ri-win-kle', 'ot ter pe ri win kle'],
  ['words', 'Lobster, seal!', 'lob ster seal'],
];

describe('typed speech', () => {
  it.each(CASES)('%s: “%s” is %s', (school, text, tokens) =>
    expect(
      cut(school, text)
        .map(({ token }) => token)
        .join(' '),
    ).toBe(tokens),
  );

  it('tells where each word stood, and what was typed there', () => {
    expect(cut('ta', 'ta titi  | zup')).toEqual([
      { token: 'ta', at: 0, typed: 'ta' },
      { token: 'ti', at: 3, typed: 'titi' },
      { token: 'ti', at: 3, typed: 'titi' },
      { token: '|', at: 9, typed: '|' },
      { token: 'zup', at: 11, typed: 'zup' },
    ]);
  });

  it('knows the words of the house, and then not those of the school', () => {
    expect(cut('ta', 'dudu ta', { eighth: 'du', sixteenthEven: 'du' }).map(({ token }) => token)).toEqual([
      'du',
      'du',
      'ta',
    ]);
    expect(cut('numbers', '1 n 2', { half: 'n' }).map(({ token }) => token)).toEqual(['1', 'n', '2']);
  });

  it('takes a word again that was typed before, and never mixes two up', () => {
    const tokenizer = new Tokenizer(COUNTING_SYSTEMS().ta, COUNTING_SYSTEMS().ta.words, HARBOUR_ANIMALS());
    const twice = [1, 2].map(() => typedTokens('titi ta titi taa', tokenizer).map(({ token }) => token));
    expect(twice[0]).toEqual(['ti', 'ti', 'ta', 'ti', 'ti', 'ta-a']);
    expect(twice[1]).toEqual(twice[0]);
  });

  it.each(['', '   ', '|', '| | |', ',;.'])('finds nothing in “%s”', (text) => expect(cut('ta', text)).toEqual([]));
});
