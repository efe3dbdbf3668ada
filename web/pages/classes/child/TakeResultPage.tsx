import { t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useParams } from 'react-router';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { TakeDetail } from '../../../../contract/take.ts';
import { type Scale, givenText, markLabel, scaleOf } from '../../../../core/judging/scale.ts';
import { parseRhythm } from '../../../../core/rhythm/text.ts';
import { type Voice, voiceOf } from '../../../../core/wording/voice.ts';
import { useClass } from '../../../api/hooks.ts';
import { useTake } from '../../../api/takes.ts';
import { outlineOf } from '../../../audio/outlines.ts';
import { CorrectionBar } from '../../../take/CorrectionBar.tsx';
import { TakeResultView } from '../../../take/TakeResultView.tsx';
import { useCorrection } from '../../../take/useCorrection.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { markOfTake } from '../../../domain/markOfTake.ts';
import { BesideTake } from './BesideTake.tsx';
import { KeptRecording } from './KeptRecording.tsx';
import { OverrideForm } from './OverrideForm.tsx';
import { RemoveTake } from './RemoveTake.tsx';

/** A take of the past, as it was shown when it was played. */
export default function TakeResultPage() {
  const { classId, takeId } = useParams();
  const { data: take, error: takeError } = useTake(takeId);
  const { data: schoolClass, error: classError } = useClass(classId);
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const problem = takeError ?? classError;
  if (problem) return <Notice problem={problem} />;
  if (!take || !schoolClass) return null;
  return <Take key={take.onsets.join()} take={take} schoolClass={schoolClass} voice={voice} />;
}

interface TakeProps {
  readonly take: TakeDetail;
  readonly schoolClass: ClassDetail;
  readonly voice: Voice;
}

function Take({ take, schoolClass, voice }: TakeProps) {
  const pattern = useMemo(() => {
    const read = parseRhythm(take.patternText);
    return read.ok ? read.pattern : undefined;
  }, [take.patternText]);
  const [correcting, setCorrecting] = useState(false);
  const correction = useCorrection(take, pattern, schoolClass);
  const { onsets, result, changed } = correction;
  const shown = useMemo(() => ({ ...take, outline: outlineOf(take.id), onsets, result }), [take, onsets, result]);
  const scale = scaleOf(schoolClass);
  const child = schoolClass.children.find(({ id }) => id === take.childId);
  return (
    <>
      <div className="page-head">
        <h1>{child?.name ?? t`Take`}</h1>
        <span>{subtitle(take, scale)}</span>
        <span className="flex-grow-1" />
        {pattern && !correcting && schoolClass.role !== 'look' && (
          <Button variant="outline-dark" onClick={() => setCorrecting(true)}>{t`Correct the claps`}</Button>
        )}
        <Link className="btn btn-outline-dark" to={`/classes/${schoolClass.id}`}>{t`Back to the class`}</Link>
      </div>
      {correcting && pattern && (
        <CorrectionBar
          correction={correction}
          pattern={pattern}
          bpm={take.bpm}
          onClose={() => (correction.reset(), setCorrecting(false))}
        />
      )}
      <BesideTake take={take} classId={schoolClass.id} children={schoolClass.children} naming={voice.naming} />
      <TakeResultView
        take={shown}
        voice={voice}
        mark={changed ? result.mark : markOfTake(take)}
        marking={schoolClass}
        correction={correcting ? correction : undefined}
      />
      {schoolClass.role !== 'look' && <KeptRecording take={take} />}
      {schoolClass.role !== 'look' && <OverrideForm take={take} scale={scale} />}
      {schoolClass.role !== 'look' && child && (
        <RemoveTake classId={schoolClass.id} take={take} childName={child.name} />
      )}
    </>
  );
}

function subtitle(take: TakeDetail, scale: Scale): string {
  const { title, takenAt, mark, override, overrideReason, given, corrected } = take;
  const reason = overrideReason ? `: ${overrideReason}` : '';
  const own =
    override === null
      ? ''
      : t` · computed mark ${markLabel(mark, scale)}, set to ${markLabel(override, scale)}${reason}`;
  const before = given ? t` · given as ${givenText(given)}` : '';
  return `${title},
    ${format(takenAt, 'd MMMM, HH:mm')}${own}${before}${corrected ? t` · claps corrected by hand` : ''}`;
}
