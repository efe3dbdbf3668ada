import { describe, expect, it } from 'vitest';
import { scoreOfText } from '../../core/rhythm/arbitraryScore.test-helper.ts';
import { chosenParts, partChoices, soundsOfOthers, takeParts } from './takePart.ts';

const SAVED = { id: 'p', title: 'Quay', text: '4/4 [clap] q q h [stamp] (q) q h [A] w' };
const SCORE = scoreOfText(SAVED.text);
const PARTS = takeParts(SAVED, SCORE);

describe('what a child claps of a pattern', () => {
  it('is a part with its own title and text', () => {
    expect(PARTS.map(({ name, index, saved }) => [name, index, saved.title, saved.text])).toEqual([
      ['clap', 0, 'Quay · clap', '4/4 q q h'],
      ['stamp', 1, 'Quay · stamp', '4/4 (q) q h'],
      ['A', 2, 'Quay · A', '4/4 w'],
    ]);
    const alone = { id: 'p', title: 'Alone', text: '4/4  w' };
    expect(takeParts(alone, scoreOfText(alone.text))).toMatchObject([{ name: undefined, index: 0, saved: alone }]);
    expect(takeParts({ ...SAVED, title: 'x'.repeat(120) }, SCORE)[0]!.saved.title).toHaveLength(120);
  });

  it('is one of them, or any two at once', () => {
    expect(partChoices(PARTS).map(([choice, name]) => `${choice} ${name}`)).toEqual([
      '0 clap',
      '1 stamp',
      '2 A',
      '0+1 clap and stamp at once',
      '0+2 clap and A at once',
      '1+2 stamp and A at once',
    ]);
  });

  it.each([
    ['1', [1]],
    ['0+2', [0, 2]],
    ['7', [0]],
    ['', [0]],
    ['1+1', [1]],
    ['1+9', [1]],
  ])('chosen as %j: %j', (choice, indices) =>
    expect(chosenParts(choice, PARTS).map((part) => part?.index)).toEqual(indices),
  );

  it('the app plays what nobody has, each part with its sound', () => {
    const sounds = (taken: number[]) =>
      soundsOfOthers(SCORE.parts, taken, 60).map(({ time, struck }) => `${time} ${struck}`);
    expect(sounds([0])).toEqual(['0 wood', '1 stamp', '2 stamp']);
    expect(sounds([1, 2])).toEqual(['0 clap', '1 clap', '2 clap']);
    expect(sounds([0, 1, 2])).toEqual([]);
  });
});
