import { describe, expect, it } from 'vitest';
import { countPattern, eventsOf } from '../counting/count.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import { mixed } from '../rhythm/fraction.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { placePattern } from '../rhythm/place.ts';
import { spokenParts } from './spokenParts.ts';
import { recordingFile, recordingOf } from './spokenWords.ts';

/** What is said in a pattern, each syllable with its beat from 0: "1@0". */
function spoken(text: string, school: CountingSystemId): string {
  const pattern = patternOf(text);
  const counted = countPattern(pattern, { school });
  if (!counted.ok) throw new Error(counted.reason);
  return eventsOf(placePattern(pattern))
    .map((events, m) =>
      events
        .flatMap((event, i) =>
          spokenParts(event, counted.measures[m]!.tokens[i]!.text).map(
            ({ at, text: said, whispered }) => `${whispered ? 'w' : ''}${said}@${mixed(at)}`,
          ),
        )
        .join(' '),
    )
    .join(' | ');
}

describe('what is said, and when', () => {
  it.each([
    ['numbers', '4/4 h. q', '1@0 2@1 3@2 4@3'],
    ['numbers', '4/4 q. e h', '1@0 2@1 &@1 1/2 3@2 4@3'],
    ['numbers', '4/4 q (q) h~ | w', '1@0 w2@1 3@2 4@3 | 1@0 2@1 3@2 4@3'],
    ['numbers', '4/4 e q e (h)', '1@0 &@1/2 2@1 &@1 1/2 w3@2 w4@3'],
    ['pulses', '4/4 h q q', '1@0 &@1/2 2@1 &@1 1/2 3@2 &@2 1/2 4@3 &@3 1/2'],
    ['ta', '4/4 w', 'ta@0 a@1 a@2 a@3'],
    ['ta', '6/8 h.', 'tom@0 om@1'],
    ['ta', '4/4 q. e h~ | h (h)', 'tom@0 ti@1 1/2 ta@2 a@3 | a@0 a@1 sh@2 sh@3'],
    ['takadimi', '4/4 e q e q~ q', 'ta@0 di@1/2 i@1 di@1 1/2 ta@2 a@3'],
    ['note-names', '4/4 w | h h', 'whole@0 note@1 hold@2 on@3 | half@0 note@1 half@2 note@3'],
    ['note-names', '6/8 q. e e e', 'quarter@0 dot@1/2 eighth@1 eighth@1 1/3 eighth@1 2/3'],
    ['feet', '2/4 q e e', '↓@0 ↑@1/2 ↓@1 ↑@1 1/2'],
    ['words', '2/4 e e q', 'ot@0 ter@1/2 crab@1'],
    ['numbers', '4/4 5:4{s s s s s} q h', '1@0 2@1 3@2 4@3'],
  ] as const)('%s, %s: %s', (school, text, expected) => expect(spoken(text, school)).toBe(expected));

  it.each([
    ['↓', 'down', 'down'],
    ['&', '&', 'and'],
    ['Ready', 'ready', 'ready'],
    ['12', '12', 'number-12'],
    ['R', 'right', 'right'],
  ])('%s is recorded as %s in the file %s', (text, word, file) =>
    expect([recordingOf(text), recordingFile(recordingOf(text)!)]).toEqual([word, file]),
  );
  it.each(['', 'toString', 'haus', '17'])('“%s” has no recording', (text) => expect(recordingOf(text)).toBeUndefined());
});
