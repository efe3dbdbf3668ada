import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Question } from '../../../core/exercises/question.ts';
import { OPTION_LETTERS, ruledOutIn } from '../../../core/wording/earWords.ts';
import { capital } from '../../../core/wording/valueNames.ts';
import { useStored } from '../../store/stored.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { Candidates } from './Candidates.tsx';
import { ChooseScore } from './ChooseScore.tsx';
import { HandsForm } from './HandsForm.tsx';
import { HeardLine } from './HeardLine.tsx';
import { OpenedRuler } from './OpenedRuler.tsx';
import type { EarSettings, ReadPattern } from './earSettings.ts';
import { soundsAmong } from './amongParts.ts';
import { patternIn } from './patternIn.ts';
import { MOST_PLAYED, useChooseRun } from './useChooseRun.ts';
import { useHear } from '../../audio/useHear.ts';

interface RunProps {
  readonly run: readonly Question[];
  readonly settings: EarSettings;
  /** What is heard is one of these parts: the others sound with it, and stand in every candidate. */
  readonly among?: ReadPattern['among'];
  readonly onAgain: () => void;
}

type Run = ReturnType<typeof useChooseRun>;

/** What the main button does now: play, open the next beat, go on. */
function mainAction(run: Run, play: () => void): { text: string; act: () => void } {
  if (!run.said) return { text: run.played === 0 ? t`Play` : t`Play again`, act: play };
  if (!run.done) return { text: run.opened === 0 ? t`Open beat 1` : t`Open the next beat`, act: run.openNext };
  return { text: t`Next`, act: run.next };
}

const letterKeys = (choose: (option: number) => void) =>
  Object.fromEntries(OPTION_LETTERS.map((name, i) => [name.toLowerCase(), () => choose(i)]));

/** Plays what is asked, so often as it may be heard before the answer. */
function usePlay(run: Run, { bpm }: EarSettings, among: RunProps['among']) {
  const { moment, hear, stop } = useHear();
  const { question, said, played, markPlayed } = run;
  const play = () => {
    if (!question || (played >= MOST_PLAYED && !said)) return;
    if (!said) markPlayed();
    void hear(patternIn(question.shows), bpm, { plays: 1, turn: false, beside: among && soundsAmong(among) });
  };
  return { moment, play, stop };
}

/** Which of four is it? Played, answered by the class, opened beat by beat. */
export function ChooseRun({ run: questions, settings, among, onAgain }: RunProps) {
  const run = useChooseRun(questions, onAgain);
  const { moment, play, stop } = usePlay(run, settings, among);
  const [shape, setShape] = useStored('ear.shape', 'notes');
  const [counting, setCounting] = useState(false);
  const { question, said } = run;
  const choose = (option: number) => {
    stop();
    run.answer({ kind: 'one', option });
  };
  const { text, act } = mainAction(run, play);
  const count = () => setCounting(!counting);
  const turnShape = () => setShape(shape === 'notes' ? 'strips' : 'notes');
  useKeys({
    // Who types hands does not answer by a letter.
    ...(said || counting ? {} : letterKeys(choose)),
    ' ': act,
    p: play,
    h: count,
    n: turnShape,
    Enter: () => said && run.openAll(),
  });
  if (!question) return <ChooseScore run={run} count={questions.length} settings={settings} onAgain={onAgain} />;
  return (
    <section className="choose" aria-label={t`Question ${run.at + 1} of ${questions.length}`}>
      <p className="question-number">{t`${run.at + 1} of ${questions.length} · ${run.right} right`}</p>
      <HeardLine moment={moment} quiet={quietText(run, question, settings)} />
      {said && <OpenedRuler pattern={patternIn(question.shows)} among={among} beats={run.beats} opened={run.opened} />}
      <Candidates
        question={question}
        among={among}
        strips={shape === 'strips'}
        said={said}
        out={run.out}
        done={run.done}
        naming={settings.voice.naming}
        onChoose={choose}
      />
      {counting && !said && (
        <HandsForm
          key={run.at}
          heard={run.played > 0 && moment.state === 'quiet'}
          onDone={(hands) => run.answer({ kind: 'hands', hands })}
        />
      )}
      <div className="stage-actions">
        <MainButton text={text} onPress={act} disabled={!said && run.played >= MOST_PLAYED} />
        {said && <AfterAnswer run={run} onPlay={play} />}
        {!said && <BeforeAnswer run={run} counting={counting} onCount={count} />}
        <ShapeButton shape={shape} onTurn={turnShape} />
      </div>
    </section>
  );
}

function MainButton({ text, onPress, disabled }: { text: string; onPress: () => void; disabled: boolean }) {
  return (
    <Button size="lg" onClick={onPress} disabled={disabled}>
      {text} <kbd>{t`space`}</kbd>
    </Button>
  );
}

function ShapeButton({ shape, onTurn }: { shape: string; onTurn: () => void }) {
  return (
    <Button variant="outline-dark" onClick={onTurn}>
      {shape === 'notes' ? t`As strips` : t`As notes`} <kbd>N</kbd>
    </Button>
  );
}

function BeforeAnswer({ run, counting, onCount }: { run: Run; counting: boolean; onCount: () => void }) {
  const left = MOST_PLAYED - run.played;
  return (
    <>
      <span className="ear-left">
        {left === 0 ? t`heard three times` : t`${counted(left, 'time')} left to hear it`}
      </span>
      <Button variant="outline-dark" aria-expanded={counting} onClick={onCount}>
        {rich`Count hands ${<kbd>H</kbd>}`}
      </Button>
    </>
  );
}

function AfterAnswer({ run, onPlay }: { run: Run; onPlay: () => void }) {
  return (
    <>
      <Button size="lg" variant="outline-dark" onClick={onPlay}>
        {rich`Hear it ${<kbd>P</kbd>}`}
      </Button>
      {!run.done && (
        <Button variant="outline-dark" onClick={run.openAll}>
          {rich`Open all ${<kbd>{t`enter`}</kbd>}`}
        </Button>
      )}
    </>
  );
}

/** What is asked; then what the last beat that was opened has said, or which one it is. */
function quietText(run: Run, question: Question, { voice }: EarSettings): string {
  if (!run.said) return run.played === 0 ? t`Which one do you hear?` : t`Which one was it?`;
  if (run.done) return t`It is ${OPTION_LETTERS[question.answer]}.`;
  const last = run.out.at(-1);
  if (run.opened === 0) return t`Beat by beat: which ones cannot be it?`;
  return last ? `${capital(ruledOutIn(question, last, voice.naming))}.` : t`All of them have this. Open the next beat.`;
}
