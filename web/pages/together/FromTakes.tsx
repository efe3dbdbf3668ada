import { perLanguage, t } from '../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import fitsTakes from 'virtual:fits/takes-together';
import type { ClassRecords } from '../../../contract/records.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { TakesTogether } from '../../../contract/together.ts';
import { classHeard } from '../../../core/ensemble/classHeard.ts';
import { strikesOfTakes } from '../../../core/ensemble/strikes.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { missingText } from '../../../core/wording/classTogetherWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { useGet } from '../../api/useGet.ts';
import { HearingPicture } from '../../leading/HearingPicture.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Select } from '../../ui/Select.tsx';
import { Concert } from './Concert.tsx';
import { KeepHearing } from './KeepHearing.tsx';
import { type Counting, takesChosen, usualBpm } from './takesChosen.ts';

const COUNTINGS = perLanguage((): readonly (readonly [Counting, string])[] => [
  ['best', t`everybody’s best take`],
  ['last', t`everybody’s last take`],
]);

interface FromTakesProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly voice: Voice;
}

/** Single takes of one pattern laid over each other: how together they are, and as a concert. */
export function FromTakes({ schoolClass, records, voice }: FromTakesProps) {
  const offered = useMemo(() => {
    const many = records.patterns.map(
      (_, i) => new Set(records.marks.filter((one) => one.pattern === i).map(({ child }) => child)).size,
    );
    return records.patterns
      .map(({ key, title, lastAt }, i) => ({ key, title, lastAt, many: many[i]! }))
      .filter(({ many: children }) => children > 1)
      .sort((a, b) => b.lastAt - a.lastAt);
  }, [records]);
  const [chosen, setChosen] = useState<string>();
  const [counting, setCounting] = useState<Counting>('best');
  const key = chosen ?? offered[0]?.key;
  const { data, error } = useGet<TakesTogether>(
    key === undefined ? null : `/classes/${schoolClass.id}/together/takes?pattern=${key}`,
    fitsTakes,
  );
  if (key === undefined)
    return (
      <div className="empty">{t`When two children have clapped the same pattern, their takes stand here
        together.`}</div>
    );
  return (
    <>
      <div className="together-choice">
        <Select
          label={t`Pattern`}
          className="w-auto"
          value={key}
          options={offered.map(({ key: one, title, many }) => [one, `${title} (${many} children)`] as const)}
          onChoose={setChosen}
        />
        <Select
          label={t`Which takes`}
          className="w-auto"
          value={counting}
          options={COUNTINGS()}
          onChoose={setCounting}
        />
      </div>
      {error && <Notice problem={error} />}
      {data && <Laid key={`${key} ${counting}`} takes={data} {...{ counting, schoolClass, voice }} />}
    </>
  );
}

interface LaidProps extends Omit<FromTakesProps, 'records'> {
  readonly takes: TakesTogether;
  readonly counting: Counting;
}

function Laid({ takes: { takes, patternText, title, others }, counting, schoolClass, voice }: LaidProps) {
  const bpm = usualBpm(takes);
  const laid = useMemo(() => {
    const read = parseRhythm(patternText);
    if (!read.ok || bpm === undefined) return undefined;
    const ids = schoolClass.children.map(({ id }) => id);
    const own = takesChosen(takes, ids, counting, bpm);
    const strikes = strikesOfTakes(own.map(({ onsets }) => onsets));
    return { own, pattern: read.pattern, heard: classHeard(read.pattern, bpm, strikes, { hands: own.length }) };
  }, [takes, patternText, counting, bpm, schoolClass.children]);
  if (!laid || bpm === undefined) return <p>{t`None of these takes can be laid beside others.`}</p>;
  const { own, pattern, heard } = laid;
  const missing = schoolClass.children.filter(({ id }) => !own.some(({ childId }) => childId === id));
  return (
    <section aria-label={t`Takes together`}>
      <p className="together-who">
        {missingText(
          own.length,
          missing.map(({ name }) => name),
        )}
        {others > 0 && t` ${others} takes of another text, or without a beat to find, are left out.`}
      </p>
      <HearingPicture text={patternText} bpm={bpm} heard={heard} voice={voice} />
      <div className="together-actions">
        {!heard.tooFew && (
          <KeepHearing schoolClass={schoolClass} hearing={{ title, patternText, bpm, from: 'takes', heard }} />
        )}
      </div>
      <Concert title={title} pattern={pattern} bpm={bpm} takes={own.map(({ onsets }) => onsets)} voice={voice} />
    </section>
  );
}
