import { perLanguage, t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import { SIGN_QUESTION_KINDS, type SignQuestionKind, signQuestions } from '../../../core/exercises/questions.ts';
import type { ValueLetter } from '../../../core/rhythm/value.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { QuestionRun } from '../../asking/QuestionRun.tsx';
import { ValueChecks } from '../../asking/ValueChecks.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { KeepScore } from './KeepScore.tsx';
import { type EarSettings, newSeed } from './earSettings.ts';

const RUN = 10;
const WITH = ['dots', 'rests', 'clefs'] as const;
const USUAL = { values: ['w', 'h', 'q', 'e'] as readonly ValueLetter[], dots: true, rests: true, clefs: true };

const KIND_NAMES = perLanguage((): Readonly<Record<SignQuestionKind, string>> => ({
  'sign-name': t`What is it called?`,
  'sign-spot': t`Find them all`,
  'sign-match': t`What belongs together?`,
  'staff-place': t`Number the line or space`,
  'stem-side': t`Where does the stem go?`,
  'which-rest': t`Whole or half rest?`,
  'same-length': t`Note and rest of one length`,
}));
const ALL = '';
const NO_CLOCK = 0;
const CLOCKS = perLanguage(
  () =>
    [
      [NO_CLOCK, t`As long as it takes`],
      [20, t`20 seconds each`],
      [10, t`10 seconds each`],
      [6, t`6 seconds each`],
    ] as const,
);

/** Signs on five lines: ten questions. */
export function SignsView({ settings }: { settings: EarSettings }) {
  const { voice } = settings;
  const [chosen, setChosen] = useState(USUAL);
  const [kind, setKind] = useState<string>(ALL);
  const [clock, setClock] = useState<number>(NO_CLOCK);
  const [seed, setSeed] = useState(newSeed);
  const run = useMemo(() => {
    const kinds = SIGN_QUESTION_KINDS.filter((one) => kind === ALL || one === kind);
    return signQuestions({ ...chosen, beat: 'q', counts: voice.counts }, seed, RUN, kinds);
  }, [chosen, kind, seed, voice]);
  return (
    <>
      <QuestionRun
        key={JSON.stringify([seed, chosen, kind, clock])}
        run={run}
        naming={voice.naming}
        onAgain={() => setSeed(newSeed())}
        limit={clock === NO_CLOCK ? undefined : clock}
        keep={({ right, count, tally }) => (
          <KeepScore run={{ kind: 'signs', right, asked: count, mistakes: tally }} settings={settings} />
        )}
      />
      <SignChoices
        chosen={chosen}
        onChosen={setChosen}
        naming={voice.naming}
        kind={kind}
        onKind={setKind}
        clock={clock}
        onClock={setClock}
      />
    </>
  );
}

interface ChoicesProps {
  readonly chosen: typeof USUAL;
  readonly onChosen: (chosen: typeof USUAL) => void;
  readonly naming: NamingId;
  readonly kind: string;
  readonly onKind: (kind: string) => void;
  readonly clock: number;
  readonly onClock: (seconds: number) => void;
}

/** What the questions are about, and whether there is a clock. */
function SignChoices({ chosen, onChosen, naming, kind, onKind, clock, onClock }: ChoicesProps) {
  return (
    <fieldset className="question-settings">
      <legend className="visually-hidden">{t`What the questions are about`}</legend>
      <ValueChecks
        values={chosen.values}
        flags={chosen}
        further={WITH}
        naming={naming}
        onChange={({ values, flags }) => onChosen({ ...flags, values })}
      />
      <SelectField
        id="sign-kind"
        label={t`Ask`}
        value={kind}
        options={[[ALL, t`All kinds`], ...SIGN_QUESTION_KINDS.map((one) => [one, KIND_NAMES()[one]] as const)]}
        onChoose={onKind}
      />
      <SelectField
        id="sign-clock"
        label={t`Time`}
        value={String(clock)}
        options={CLOCKS().map(([seconds, name]) => [String(seconds), name] as const)}
        onChoose={(seconds) => onClock(Number(seconds))}
      />
    </fieldset>
  );
}
