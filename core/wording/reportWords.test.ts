import { describe, expect, it } from 'vitest';
import type { KnownElement, MasteryState } from '../records/mastery.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { reportSentences } from './reportWords.ts';

const knows = (element: ElementId, state: MasteryState): KnownElement => ({
  element,
  state,
  heard: 5,
  right: 1,
  lastSeen: 1,
});
const said = (mastery: readonly KnownElement[], marks: readonly number[]) =>
  reportSentences({ name: 'Ada', mastery, marks }, 'quarters').join(' ');

describe('a report for parents', () => {
  it.each([
    [[], 'Ada has not been heard yet.'],
    [[4], 'Ada has clapped a written rhythm once and was listened to. Each time it was right or nearly so.'],
    [[1, 2], 'Ada has clapped a written rhythm twice and was listened to. It was not right yet.'],
    [[4, 1, 1], '3 times and was listened to. Once it was right'],
    [[4, 4, 1], 'listened to. 2 times it was right'],
    [[4, 3, 2, 1, 4], 'Of the newest five, three were right or nearly so.'],
    [[1, 1, 1, 1, 4, 1], 'Of the newest five, one was right or nearly so.'],
    [
      [4, 4, 4, 4, 4, 1, 1, 1, 1, 1],
      'Of the newest five, all five were right or nearly so; of the first five none. Ada has come on.',
    ],
    [[4, 1, 1, 1, 1, 4, 1, 1, 1, 1], 'one was right or nearly so, as at the beginning.'],
    [[1, 1, 1, 1, 1, 4, 4, 4, 4, 4], 'Of the newest five, none was right or nearly so.'],
  ])('of marks %j says: %s', (marks, words) => {
    expect(said([], marks)).toContain(words);
  });

  it('says what is firm, growing, new and shaky, each once, in the names of the class', () => {
    const mastery = [
      knows('quarter', 'firm'),
      knows('half', 'due'),
      knows('whole', 'firm'),
      knows('tie', 'growing'),
      knows('quarter-rest', 'shaky'),
      knows('triplet', 'new'),
    ];
    const words = said(mastery, [4]);
    expect(words).toContain('with certainty: quarter, half and whole.');
    expect(words).toContain('coming along well: tie.');
    expect(words).toContain('Only just begun: triplet.');
    expect(words).toContain('What comes next for Ada is to practise this: quarter rest. At home');
    expect(reportSentences({ name: 'Ada', mastery, marks: [4] }, 'crotchets').join(' ')).toContain(
      'crotchet, minim and',
    );
    expect(said([], [4])).not.toContain('comes next');
  });

  it('says what comes next where nothing is open', () => {
    expect(said([knows('quarter', 'firm'), knows('half', 'due')], [4])).toContain(
      'What comes next for Ada: paired eighths.',
    );
    expect(said([knows('quarter', 'firm'), knows('half', 'growing')], [4])).not.toContain('comes next');
  });

  it.each([
    // None of the newest right, and something read with certainty: one would deny the other.
    [[1, 1, 1, 1, 1], ['firm'], 'newest five'],
    [[1, 2], ['firm'], 'not right yet'],
    [[4, 4, 4, 4, 4], ['shaky'], 'newest five'],
    [[4, 3], ['firm', 'shaky'], 'Each time'],
  ] as const)('of marks %j and what is %j it does not say “%s”', (marks, states, words) => {
    const mastery = states.map((state, i) => knows(i === 0 ? 'quarter' : 'tie', state));
    expect(said(mastery, marks)).not.toContain(words);
    expect(said(mastery, marks)).toContain('listened to');
  });
  it('says both where neither denies the other', () => {
    expect(said([knows('quarter', 'firm'), knows('tie', 'shaky')], [4, 4, 1, 4, 4])).toContain(
      'Of the newest five, four',
    );
  });
});
