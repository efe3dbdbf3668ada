import { t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import { chooseQuestions } from '../../../core/exercises/kinds/chooseRhythm.ts';
import { ChooseRun } from './ChooseRun.tsx';
import { HeardFrom, MADE } from './HeardFrom.tsx';
import { type EarSettings, newSeed, useReadPatterns } from './earSettings.ts';
import { measuresOf } from './measuresOf.ts';

const RUN = 10;

/** Which of four is heard: ten in a row. */
export function ChooseView({ settings }: { settings: EarSettings }) {
  const { met, meter } = settings;
  const patterns = useReadPatterns();
  const [chosen, setChosen] = useState(MADE);
  const [measures, setMeasures] = useState(1);
  const [seed, setSeed] = useState(newSeed);
  const { pattern, among } = patterns.find(({ id }) => id === chosen) ?? {};
  const run = useMemo(
    () =>
      pattern
        ? chooseQuestions({ pattern, met }, seed, RUN)
        : chooseQuestions({ elements: met, meter, beats: measuresOf(meter, measures) }, seed, RUN),
    [pattern, met, meter, measures, seed],
  );
  return (
    <>
      {run.length === 0 ? (
        <div className="empty">{t`From these elements no four rhythms can be made that are told apart by ear.`}</div>
      ) : (
        <ChooseRun
          key={JSON.stringify([seed, chosen, measures, met, meter])}
          run={run}
          settings={settings}
          among={among}
          onAgain={() => setSeed(newSeed())}
        />
      )}
      <HeardFrom
        id="choose-from"
        patterns={patterns}
        chosen={pattern ? chosen : MADE}
        onChoose={setChosen}
        measures={measures}
        onMeasures={setMeasures}
      />
    </>
  );
}
