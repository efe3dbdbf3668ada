import { t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import type { QuestionSettings } from '../../../core/exercises/question.ts';
import { questions } from '../../../core/exercises/questions.ts';
import { QuestionRun } from '../../asking/QuestionRun.tsx';
import { ValueChecks } from '../../asking/ValueChecks.tsx';
import type { ValuesProps } from './valuesProps.ts';

const RUN = 10;
const LARGEST_SEED = 99_999;
const WITH = ['dots', 'ties', 'rests'] as const;

type Chosen = Omit<QuestionSettings, 'beat'>;

const USUAL: Chosen = { values: ['w', 'h', 'q', 'e'], dots: true, ties: false, rests: true };

/** Ten questions answered on the board; wrong options are made from the ways children misunderstand values. */
export function QuestionsView({ naming, beat }: ValuesProps) {
  const [chosen, setChosen] = useState(USUAL);
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 10_000));
  const run = useMemo(() => questions({ ...chosen, beat }, seed, RUN), [chosen, beat, seed]);
  return (
    <>
      <QuestionRun
        key={JSON.stringify([seed, chosen, beat])}
        run={run}
        naming={naming}
        onAgain={() => setSeed(seed + 1)}
      />
      <fieldset className="question-settings">
        <legend className="visually-hidden">{t`What the questions are about`}</legend>
        <ValueChecks
          values={chosen.values}
          flags={chosen}
          further={WITH}
          naming={naming}
          onChange={({ values, flags }) => setChosen({ ...flags, values })}
        />
        <SeedField seed={seed} onSeed={setSeed} />
      </fieldset>
    </>
  );
}

function SeedField({ seed, onSeed }: { seed: number; onSeed: (seed: number) => void }) {
  const change = (text: string) => onSeed(Math.max(0, Math.min(LARGEST_SEED, Math.floor(Number(text)))));
  return (
    <label>
      {t`Number of the set`}{' '}
      <input type="number" min={0} max={LARGEST_SEED} value={seed} onChange={({ target }) => change(target.value)} />
    </label>
  );
}
