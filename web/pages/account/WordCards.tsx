import { useEffect, useMemo, useRef, useState } from 'react';
import { Check, Mic, Play, Square, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { Bpm } from '../../../core/timing/units.ts';
import type { VoiceWordToSay } from '../../../core/leading/voiceWords.ts';
import { t } from '../../../core/words/say.ts';
import { hearWords } from '../../audio/hearWords.ts';
import { ownWords } from '../../audio/voiceSound.ts';
import type { OwnVoice } from './useOwnVoice.ts';

const BPM: Bpm = 80;
/** One word alone is heard so often: on one click nothing can be judged. */
const TIMES = 4;

interface WordCardsProps {
  readonly words: readonly VoiceWordToSay[];
  readonly own: OwnVoice;
  readonly onAgain: (word: VoiceWordToSay) => void;
}

/** The words of a class, said or not; each is heard over the click, and said again. Then those of other classes. */
export function WordCards({ words, own, onAgain }: WordCardsProps) {
  const { said, drop } = own;
  const { hearing, hear, stop } = useHearWords(own);
  const ready = words.filter(({ word }) => said.has(word));
  const others = [...said.keys()]
    .filter((word) => !words.some((one) => one.word === word))
    .map((word) => ({ word, text: word.replace(/^[a-z]{2}\//, '') }));
  const card = (one: VoiceWordToSay, again?: (word: VoiceWordToSay) => void) => (
    <WordCard
      key={one.word}
      text={one.text}
      isSaid={said.has(one.word)}
      sounds={hearing === one.word}
      onHear={() => hear(Array.from({ length: TIMES }, () => one.word))}
      onAgain={again && (() => again(one))}
      onRemove={() => void drop(one.word)}
    />
  );
  return (
    <>
      {ready.length > 0 && (
        <p>
          {hearing === undefined ? (
            <Button variant="outline-dark" onClick={() => hear(ready.map(({ word }) => word))}>
              <Play size={16} aria-hidden /> {t`Hear them over the click`}
            </Button>
          ) : (
            <Button variant="outline-dark" onClick={stop}>
              <Square size={16} aria-hidden /> {t`Stop`}
            </Button>
          )}
        </p>
      )}
      <ul className="voice-words" aria-label={t`Words of the class`}>
        {words.map((one) => card(one, onAgain))}
      </ul>
      {others.length > 0 && (
        <>
          <h2>{t`Other words of your voice`}</h2>
          <ul className="voice-words" aria-label={t`Other words of your voice`}>
            {others.map((one) => card(one))}
          </ul>
        </>
      )}
    </>
  );
}

interface WordCardProps {
  readonly text: string;
  readonly isSaid: boolean;
  readonly sounds: boolean;
  readonly onHear: () => void;
  /** Absent for a word that this class does not count with. */
  readonly onAgain: (() => void) | undefined;
  readonly onRemove: () => void;
}

function WordCard({ text, isSaid, sounds, onHear, onAgain, onRemove }: WordCardProps) {
  return (
    <li className={sounds ? 'sounding' : ''}>
      <strong>{text}</strong>
      <span className="voice-said">
        {isSaid && <Check size={16} aria-hidden />} {isSaid ? t`said` : t`not said yet`}
      </span>
      <span className="voice-buttons">
        {isSaid && (
          <Button size="sm" variant="outline-dark" aria-label={t`Hear “${text}” over the click`} onClick={onHear}>
            <Play size={16} aria-hidden />
          </Button>
        )}
        {onAgain && (
          <Button
            size="sm"
            variant="outline-dark"
            aria-label={isSaid ? t`Say “${text}” again` : t`Say “${text}”`}
            onClick={onAgain}
          >
            <Mic size={16} aria-hidden />
          </Button>
        )}
        {isSaid && (
          <Button size="sm" variant="outline-dark" aria-label={t`Remove “${text}”`} onClick={onRemove}>
            <X size={16} aria-hidden />
          </Button>
        )}
      </span>
    </li>
  );
}

/** Says words over the click; `hearing` is the one that sounds. */
function useHearWords({ said }: OwnVoice) {
  const [hearing, setHearing] = useState<string>();
  const silence = useRef<() => void>(undefined);
  const spoken = useMemo(() => ownWords([...said.values()]), [said]);
  const stop = () => {
    silence.current?.();
    silence.current = undefined;
    setHearing(undefined);
  };
  useEffect(() => () => silence.current?.(), []);
  const hear = (words: readonly string[]) => {
    stop();
    setHearing('');
    const told = (index: number | undefined) => setHearing(index === undefined ? undefined : (words[index] ?? ''));
    void hearWords(words, spoken, BPM, told).then((silent) => (silence.current = silent));
  };
  return { hearing, hear, stop };
}
