import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { Teacher } from '../../../contract/session.ts';
import { STARTER_PATTERNS } from '../../../core/exercises/starterPatterns.ts';
import { type VoiceWordToSay, voiceWords } from '../../../core/leading/voiceWords.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { counted, t } from '../../../core/words/say.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { classOptions, useChooseClass, useCurrentClass } from '../../domain/currentClass.ts';
import { OwnVoiceSwitch } from '../../domain/OwnVoiceSwitch.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { SayWords } from './SayWords.tsx';
import { VoiceFiles } from './VoiceFiles.tsx';
import { WordCards } from './WordCards.tsx';
import { type OwnVoice, useOwnVoice } from './useOwnVoice.ts';
import './voice.scss';

/** Seconds that one word takes, with the look at the next. */
const SECONDS_A_WORD = 2;

/** Every word that a class's counting needs: of the patterns of its ages, and of those its teacher has. */
function wordsOf(schoolClass: ClassSummary | undefined, patterns: readonly SavedPattern[]): VoiceWordToSay[] {
  const starters = STARTER_PATTERNS()[schoolClass?.ages ?? '9-10'].map(({ text }) => text);
  const texts = [...starters, ...patterns.filter(({ archived }) => !archived).map(({ text }) => text)];
  const scores = texts.flatMap((text) => {
    const read = parseScore(text);
    return read.ok ? [read.score] : [];
  });
  return voiceWords(scores, voiceOf(schoolClass).counts);
}

/** The teacher's own voice: said word by word, heard over the click, and then spoken by Lead and what else counts. */
export default function VoicePage({ teacher }: { teacher: Teacher }) {
  const classes = useClasses().data;
  const patterns = usePatterns().data;
  const schoolClass = useCurrentClass();
  const own = useOwnVoice(teacher.id);
  const [saying, setSaying] = useState<readonly VoiceWordToSay[]>();
  const words = useMemo(() => wordsOf(schoolClass, patterns ?? []), [schoolClass, patterns]);
  const { voice, said, error, mutate, keep } = own;
  if (!voice || !classes || !patterns) return <Loading problem={error} again={() => void mutate()} />;
  if (saying)
    return <SayWords words={saying} onWord={(word) => void keep([word])} onEnd={() => setSaying(undefined)} />;
  const missing = words.filter(({ word }) => !said.has(word));
  return (
    <>
      <div className="page-head">
        <h1>{t`Your voice`}</h1>
        <span>{t`Lead, answers that are counted aloud, and sound files for practising speak with it.`}</span>
        <Link to="/account">{t`Your account`}</Link>
      </div>
      <div className="voice-head">
        <ClassChoice classes={classes} current={schoolClass} />
        <Button size="lg" disabled={words.length === 0} onClick={() => setSaying(missing.length > 0 ? missing : words)}>
          {missing.length === words.length
            ? t`Say the words`
            : missing.length > 0
              ? t`Say the words that are missing`
              : t`Say them all again`}
        </Button>
        <p className="voice-count">
          {missing.length > 0
            ? t`${counted(missing.length, 'word', 'words')}, about ${missing.length * SECONDS_A_WORD} seconds: one
              after the other is shown and listened for.`
            : t`All words of this class are said.`}
        </p>
      </div>
      <State {...own} missing={missing.length} />
      <WordCards words={words} own={own} onAgain={(word) => setSaying([word])} />
      <VoiceFiles own={own} />
    </>
  );
}

function ClassChoice({ classes, current }: { classes: readonly ClassSummary[]; current: ClassSummary | undefined }) {
  const choose = useChooseClass();
  if (!current || classes.length < 2) return null;
  return (
    <SelectField
      id="voice-class"
      label={t`Words of the class`}
      value={current.id}
      options={classOptions(classes)}
      onChoose={choose}
    />
  );
}

/** Whether the app speaks with it, and what is not right. */
function State({ voice, said, missing, waiting, problem }: OwnVoice & { readonly missing: number }) {
  if (!voice) return null;
  return (
    <>
      {voice.words.length > 0 && <OwnVoiceSwitch id="voice-speaks" />}
      {said.size > 0 && missing > 0 && <p>{t`Words that are missing the app says with its own voice.`}</p>}
      {waiting > 0 && problem && (
        <p role="status">{t`${counted(waiting, 'word', 'words')} on this device, not on the server yet.`}</p>
      )}
      {problem && <Notice problem={problem} />}
    </>
  );
}
