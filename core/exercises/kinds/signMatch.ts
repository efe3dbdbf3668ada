import { countOnce } from '../../counting/count.ts';
import { parseRhythm } from '../../rhythm/text.ts';
import { shuffled } from '../options.ts';
import type { Answer, SignQuestionMaker, Step } from '../question.ts';
import { type Sign, type SignSettings, notesOf, restsOf, signKey, somewhere } from '../signs.ts';
import { beatsIn } from '../valueSums.ts';

const ROWS = 4;
const TO = ['name', 'beats', 'syllable'] as const;

function beatsAnswer(sign: Sign, { beat }: SignSettings): Answer | undefined {
  return 'value' in sign ? { is: 'beats', beats: beatsIn(sign.value, beat) } : undefined;
}

/** What the class says for a sign that stands alone at the start of a measure. */
function syllableAnswer(sign: Sign, { counts }: SignSettings): Answer | undefined {
  const parsed = parseRhythm(signKey(sign));
  const counted = parsed.ok ? countOnce(parsed.pattern, counts) : undefined;
  if (!counted?.ok) return undefined;
  const text = counted.measures[0]!.tokens.map((token) => token.text).join(' ');
  return { is: 'syllable', text };
}

/** Which sign goes with which name, which beats, which syllable? Each sign with one of the options. */
export const signMatch: SignQuestionMaker = (settings, random) => {
  const to = random.pick(TO);
  const answerOf = (sign: Sign): Answer | undefined => {
    if (to === 'beats') return beatsAnswer(sign, settings);
    return to === 'syllable' ? syllableAnswer(sign, settings) : { is: 'sign', sign };
  };
  const seen = new Set<string>();
  const rows: { sign: Sign; answer: Answer }[] = [];
  for (const sign of shuffled([...notesOf(settings), ...restsOf(settings)], random)) {
    const answer = answerOf(sign);
    const key = JSON.stringify(answer);
    if (!answer || seen.has(key) || rows.length === ROWS) continue;
    seen.add(key);
    rows.push({ sign, answer });
  }
  if (rows.length < ROWS) return undefined;
  const order = shuffled(rows, random);
  const answers = rows.map((row) => order.indexOf(row));
  return {
    asked: { kind: 'sign-match', to, beat: settings.beat },
    shows: '',
    staff: rows.map(({ sign }) => somewhere(sign, random)),
    options: order.map(({ answer }) => ({ answer })),
    answer: answers[0]!,
    answers,
    steps: rows.map(({ sign }): Step => ({ step: 'sign', sign })),
  };
};
