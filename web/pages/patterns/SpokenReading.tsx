import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Recognised, speechTrouble } from '../../../core/spoken/readSpeech.ts';
import { COUNTING_SYSTEMS } from '../../../core/counting/countingSystems.ts';
import { parseMeter, printRhythm } from '../../../core/rhythm/text.ts';
import { countsOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { Ruler } from '../../ruler/Ruler.tsx';

const OTHERS = 4;

/** A meter may stand before what is spoken: "3/4 ta ta ti-ti"; else the words may tell it. */
function split(text: string): { meter: string | undefined; spoken: string } {
  const found = /^\s*(\d+\/\d+(?:\[[\d+]+\])?)\s+/.exec(text);
  return found ? { meter: found[1]!, spoken: text.slice(found[0].length) } : { meter: undefined, spoken: text };
}

export interface AsSpeech {
  readonly reading?: Recognised | undefined;
  /** Where it cannot be read: the word it stops at. */
  readonly trouble?: ReturnType<typeof speechTrouble>;
}

type Speech = typeof import('../../../core/spoken/readSpeech.ts');

/** What reads speech is large, and comes when the first text is no rhythm. */
function useSpeech(wanted: boolean): Speech | undefined {
  const [speech, setSpeech] = useState<Speech>();
  useEffect(() => {
    if (!wanted || speech) return;
    // Where it cannot come, what is typed stays what it is.
    import('../../../core/spoken/readSpeech.ts').then(setSpeech, () => undefined);
  }, [wanted, speech]);
  return speech;
}

/** What is typed may be speech instead of rhythm text; the class's own way of counting is tried first. */
export function useSpoken(text: string, unreadable: boolean): AsSpeech {
  const currentClass = useCurrentClass();
  const speech = useSpeech(unreadable);
  return useMemo(() => {
    if (!unreadable || !speech) return {};
    const { meter, spoken } = split(text);
    const read = meter === undefined ? undefined : parseMeter(meter);
    if (read?.ok === false || spoken.trim() === '') return {};
    const counts = currentClass && countsOf(currentClass);
    const options = { meter: read?.meter, houseWords: counts?.houseWords, wordSet: counts?.wordSet, most: OTHERS + 1 };
    const reading = speech.recognise(spoken, currentClass?.school, options);
    return reading ? { reading } : { trouble: speech.speechTrouble(spoken, currentClass?.school, options) };
  }, [text, unreadable, currentClass, speech]);
}

/** Names the word that no school understands there, and what might be meant. */
export function SpeechTrouble({ trouble }: { trouble: NonNullable<AsSpeech['trouble']> }) {
  return (
    <p role="status" className="speech-trouble">
      {t`As speech, in ${COUNTING_SYSTEMS()[trouble.school].title}: at “${trouble.word}” I
        expected ${trouble.expected}.`}
    </p>
  );
}

/** Shows the reading, which school it is in, and the other readings; one click writes it. */
export function SpokenReading({ spoken, onUse }: { spoken: Recognised; onUse: (text: string) => void }) {
  const counts = useMemo(() => [{ school: spoken.school }], [spoken.school]);
  const [first, ...rest] = spoken.patterns;
  const others = rest.slice(0, OTHERS);
  return (
    <section className="spoken" aria-label={t`Read as speech`}>
      <p role="status">
        {rich`This is spoken in ${<strong>{COUNTING_SYSTEMS()[spoken.school].title}</strong>}:`}
        <Button onClick={() => onUse(printRhythm(first!))}>{t`Write it: ${printRhythm(first!)}`}</Button>
      </p>
      <div className="ruler-card">
        <Ruler pattern={first!} counts={counts} />
      </div>
      {others.length > 0 && (
        <p>
          {t`It can also mean`}{' '}
          {others.map((pattern) => (
            <Button
              key={printRhythm(pattern)}
              variant="outline-dark"
              size="sm"
              onClick={() => onUse(printRhythm(pattern))}
            >
              {printRhythm(pattern)}
            </Button>
          ))}
        </p>
      )}
    </section>
  );
}
