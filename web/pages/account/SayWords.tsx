import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { VoiceWord } from '../../../contract/voice.ts';
import type { VoiceWordToSay } from '../../../core/leading/voiceWords.ts';
import type { HeardWord, SpokenWord, WordTrouble } from '../../../core/listening/spokenWord.ts';
import { t } from '../../../core/words/say.ts';
import { type WordListener, listenForWords } from '../../audio/listenForWords.ts';
import { keptWord } from '../../audio/voiceSound.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { useLatest } from '../../ui/useLatest.ts';
import { wordTroubleText } from './wordTroubles.ts';

/** So long a word that was heard stands there before the next. */
const SHOWN_MS = 450;
const LOOK_MS = 60;
/** A meter from here, dB of full scale, to full. */
const SOFTEST_DB = -60;
/** Where nothing is heard for so long the page says what to look at. */
const SILENT_MS = 9_000;

type Said = 'opening' | 'listening' | 'heard' | 'silent' | 'gone' | WordTrouble;

interface SayWordsProps {
  readonly words: readonly VoiceWordToSay[];
  readonly onWord: (word: VoiceWord) => void;
  readonly onEnd: () => void;
}

/** One word after the other, as large as the page: it is said, heard, and the next one is there. */
export function SayWords({ words, onWord, onEnd }: SayWordsProps) {
  const [index, setIndex] = useState(0);
  const go = (by: number) => {
    const next = index + by;
    if (next >= words.length) onEnd();
    else setIndex(Math.max(0, next));
  };
  const { state, level, problem } = useSaying(words[index]!.word, index, onWord, () => go(1));
  useKeys({
    Escape: onEnd,
    ArrowRight: () => go(1),
    ArrowLeft: () => go(-1),
  });
  return (
    <section className="say-words" aria-label={t`Say the words`}>
      <p className="say-place">{t`Word ${index + 1} of ${words.length}`}</p>
      <p className="say-word" aria-live="assertive">
        {words[index]!.text}
        {state === 'heard' && (
          <span className="say-tick" aria-hidden>
            {' '}
            ✓
          </span>
        )}
      </p>
      <meter
        className="say-level"
        aria-label={t`How loud it is`}
        min={0}
        max={1}
        low={0.2}
        high={0.95}
        value={Math.max(0, Math.min(1, 1 - level / SOFTEST_DB))}
      />
      <p className="say-state" role="status">
        {problem ? null : stateText(state)}
      </p>
      {problem && <Notice problem={problem} />}
      <div className="say-buttons">
        <Button variant="outline-dark" disabled={index === 0} onClick={() => go(-1)}>
          {t`Back`} <kbd>←</kbd>
        </Button>
        <Button variant="outline-dark" onClick={() => go(1)}>
          {index + 1 < words.length ? t`Leave it out` : t`Done`} <kbd>→</kbd>
        </Button>
        <Button variant="outline-dark" onClick={onEnd}>
          {t`Stop`} <kbd>Esc</kbd>
        </Button>
      </div>
    </section>
  );
}

function stateText(state: Said): string {
  switch (state) {
    case 'opening':
      return t`A moment, quietly: the app listens to the room.`;
    case 'listening':
      return t`Say it as you would in counting.`;
    case 'heard':
      return t`Heard.`;
    case 'silent':
      return t`Nothing was heard for a while. Is it the right microphone, and switched on?`;
    case 'gone':
      return t`The microphone is gone. Plug it in again, stop and go on.`;
    default:
      return wordTroubleText(state);
  }
}

/** Listens for one word after the other; each that is heard is handed on, and a moment later the next is due. */
function useSaying(word: string, index: number, onWord: (word: VoiceWord) => void, onNext: () => void) {
  const [state, setState] = useState<Said>('opening');
  const [level, setLevel] = useState(SOFTEST_DB);
  const [problem, setProblem] = useState<Error>();
  const listener = useRef<WordListener>(undefined);
  const next = useLatest((asked: string) => {
    // Who pressed a key meanwhile is at another word.
    if (asked === word) onNext();
  });
  const keep = async (heard: SpokenWord) => {
    onWord(await keptWord(word, heard, listener.current!.sampleRate));
    setTimeout(() => next(word), SHOWN_MS);
  };
  const hear = useLatest((heard: HeardWord) => {
    setState(heard.ok ? 'heard' : heard.trouble);
    if (heard.ok) void keep(heard.word);
    else listener.current?.ask();
  });
  useEffect(() => {
    let closed = false;
    listenForWords(hear).then(
      (opened) => {
        if (closed) {
          opened.stop();
          return;
        }
        listener.current = opened;
        opened.ask();
        setState('listening');
      },
      (error: unknown) => setProblem(error as Error),
    );
    const look = setInterval(() => {
      if (!listener.current) return;
      setLevel(listener.current.loudness());
      if (listener.current.gone()) setState('gone');
    }, LOOK_MS);
    return () => {
      closed = true;
      clearInterval(look);
      listener.current?.stop();
    };
  }, [hear]);
  useEffect(() => {
    if (listener.current) {
      listener.current.ask();
      setState('listening');
    }
    const silent = setTimeout(() => setState((before) => (before === 'listening' ? 'silent' : before)), SILENT_MS);
    return () => clearTimeout(silent);
  }, [index]);
  return { state, level, problem };
}
