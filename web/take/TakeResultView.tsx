import { t } from '../../core/words/say.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { bestText, markLabel, scaleOf } from '../../core/judging/scale.ts';
import { OFF_THE_CLICK, hardestMeasure } from '../../core/records/nextStep.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { playPattern, unfold } from '../../core/rhythm/place.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { calibrationPath } from './inputs/calibration.ts';
import { type Advice, adviceOn } from '../../core/wording/advice.ts';
import { feetAndHoldsSentences } from '../../core/wording/feetAndHolds.ts';
import type { Marking } from '../../core/wording/markArithmetic.ts';
import { measureText } from '../../core/wording/places.ts';
import { inNaming, measureName } from '../../core/wording/valueNames.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { MARK_NAMES, MarkSign, type MarkShape } from '../ruler/HeardLane.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';
import { heardMarks } from '../ruler/heardMarks.ts';
import { Select } from '../ui/Select.tsx';
import { useStored } from '../store/stored.ts';
import { ChildPage } from './ChildPage.tsx';
import { ClapHandles } from './ClapHandles.tsx';
import { OtherWays } from './OtherWays.tsx';
import { LineResults } from './LineResults.tsx';
import { MarkArithmetic } from './MarkArithmetic.tsx';
import { PlayBack } from './PlayBack.tsx';
import type { ShownTake } from './shownTake.ts';
import { soundOnRuler } from './soundOnRuler.ts';
import { useBrackets } from './useBrackets.ts';
import type { Correction } from './useCorrection.ts';
import './take.scss';

interface ViewProps {
  readonly take: ShownTake;
  /** How the class speaks. */
  readonly voice: Voice;
  readonly mark: number;
  /** By what the class gives marks. */
  readonly marking: Marking;
  /** The claps are being corrected, on the ruler. */
  readonly correction?: Correction | undefined;
}

/** What is longer is a word, and smaller than a figure. */
const LONG_LABEL = 4;

/** A measure is practised alone at no more than this. */
const PRACTICE_BPM = 60;

/** What was right and the one thing to fix, on the same ruler as the rhythm; for a child only the words. */
export function TakeResultView({ take, voice, mark, marking, correction }: ViewProps) {
  const [face, setFace] = useStored('take.face', 'teacher');
  const [zoom, setZoom] = useState<number>();
  const pattern = useMemo(() => readable(take.patternText), [take.patternText]);
  if (!pattern) return null;
  const forChild = face === 'child' && !correction;
  return (
    <section className="take-result" aria-label={t`Result`}>
      {forChild && (
        <ChildPage
          take={take}
          pattern={pattern}
          voice={voice}
          ruler={<HeardRuler take={take} pattern={pattern} voice={voice} zoom={placeOf(take, pattern)} forChild />}
          onClose={() => setFace('teacher')}
        />
      )}
      <ResultWords take={take} pattern={pattern} voice={voice} mark={mark} marking={marking} />
      <LineResults take={take} pattern={pattern} practiceBpm={PRACTICE_BPM} />
      <div className="result-tools no-print">
        <PractiseLink take={take} voice={voice} />
        <CalibrateLink take={take} />
        <PlayBack take={take} pattern={pattern} />
        <ZoomChoice pattern={pattern} voice={voice} zoom={zoom} onZoom={setZoom} />
        <Button variant="outline-dark" onClick={() => setFace('child')}>{t`For the child`}</Button>
      </div>
      <HeardRuler take={take} pattern={pattern} voice={voice} zoom={zoom} correction={correction} />
      {!correction && <OtherWays pattern={pattern} />}
      <MarkArithmetic take={take} pattern={pattern} voice={voice} marking={marking} />
    </section>
  );
}

function readable(text: string): Pattern | undefined {
  const parsed = parseRhythm(text);
  return parsed.ok ? parsed.pattern : undefined;
}

interface WordsProps extends Pick<ViewProps, 'take' | 'voice' | 'mark' | 'marking'> {
  readonly pattern: Pattern;
}

/** The measure that is to be mended, among those that are played; all of it where it is about none. */
function placeOf({ result }: ShownTake, pattern: Pattern): number | undefined {
  const hardest = hardestMeasure(result);
  if (hardest === undefined) return undefined;
  const place = playPattern(pattern).findIndex(({ measure: { number } }) => number === hardest);
  return place < 0 ? undefined : place;
}

function ResultWords({ take: { result }, pattern, voice, mark, marking }: WordsProps) {
  const scale = scaleOf(marking);
  const label = markLabel(mark, scale);
  const advice: Advice = adviceOn(result, pattern, voice);
  const [first, ...others] = advice.fix;
  const more = [...others, ...feetAndHoldsSentences(result, voice)];
  return (
    <div className="result-head">
      <div className="mark-box">
        <span className={label.length > LONG_LABEL ? 'mark-word' : 'mark-number'}>{label}</span>
        <span>{bestText(scale)}</span>
      </div>
      <div role="status">
        <p className="well">{advice.well}</p>
        <p className="fix-first">{first ?? t`Nothing to fix.`}</p>
        {more.map((sentence) => (
          <p key={sentence} className="fix-more">
            {sentence}
          </p>
        ))}
      </div>
    </div>
  );
}

/** All of it behind the click, or ahead, may be the device. */
function CalibrateLink({ take: { patternId, result } }: Pick<ViewProps, 'take'>) {
  if (!patternId || !result.misreadings.some(({ code }) => OFF_THE_CLICK.has(code))) return null;
  return <Link className="btn btn-outline-dark" to={calibrationPath(patternId)}>{t`Calibrate this device`}</Link>;
}

function PractiseLink({ take: { patternId, bpm, result }, voice }: Pick<ViewProps, 'take' | 'voice'>) {
  const hardest = hardestMeasure(result);
  if (hardest === undefined || !patternId) return null;
  const tempo = Math.min(PRACTICE_BPM, bpm);
  return (
    <Link className="btn btn-outline-dark" to={`/lead?pattern=${patternId}&from=${hardest}&bpm=${tempo}`}>
      {t`Practise ${measureName(voice.naming)} ${hardest} at ${tempo}`}
    </Link>
  );
}

interface ZoomProps {
  readonly pattern: Pattern;
  readonly voice: Voice;
  /** Index of a measure in playing order. */
  readonly zoom: number | undefined;
  readonly onZoom: (zoom: number | undefined) => void;
}

const ALL = '';

function ZoomChoice({ pattern, voice: { naming }, zoom, onZoom }: ZoomProps) {
  const measures = playPattern(pattern);
  if (measures.length < 2) return null;
  const one = ({ measure: { number }, timeThrough }: (typeof measures)[number], i: number) => {
    const name = measureText({ measure: number, ...(timeThrough === undefined ? {} : { timeThrough }) }, naming);
    return [String(i), number === 0 ? name : t`${name} alone`] as const;
  };
  return (
    <Select
      size="sm"
      className="zoom"
      label={t`Show`}
      value={zoom === undefined ? ALL : String(zoom)}
      options={[[ALL, inNaming(t`all {measure+}`, naming)], ...measures.map(one)]}
      onChoose={(chosen) => onZoom(chosen === ALL ? undefined : Number(chosen))}
    />
  );
}

/** One measure of a pattern that is written out. */
function only(pattern: Pattern, zoom: number | undefined): Pattern {
  const measure = zoom === undefined ? undefined : pattern.measures[zoom];
  return measure ? { pickup: pattern.pickup && zoom === 0, measures: [measure] } : pattern;
}

type HeardProps = Omit<ZoomProps, 'onZoom'> & Pick<ViewProps, 'take' | 'correction'> & { readonly forChild?: boolean };

function HeardRuler({ take, pattern, voice, zoom, correction, forChild = false }: HeardProps) {
  const { bpm, result, windows, free } = take;
  const brackets = useBrackets(take.patternId, take.patternText);
  const numbers = useMemo(() => {
    const all = playPattern(pattern).map(({ measure }) => measure.number);
    return zoom === undefined ? all : all.slice(zoom, zoom + 1);
  }, [pattern, zoom]);
  const unfolded = useMemo(() => unfold(pattern), [pattern]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const all = useMemo(() => heardMarks(pattern, bpm, result, windows, free), [pattern, bpm, result, windows, free]);
  const heardNotes = useMemo(
    () => (result.notes.some(({ verdict }) => verdict !== 'missed') ? readable(result.heard) : undefined),
    [result],
  );
  const sound = useMemo(() => soundOnRuler(take, pattern, zoom), [take, pattern, zoom]);
  const shown = useMemo(() => only(unfolded, zoom), [unfolded, zoom]);
  const shownNotes = useMemo(() => heardNotes && only(heardNotes, zoom), [heardNotes, zoom]);
  const marks = useMemo(
    () => (zoom === undefined ? all : all.filter((one) => one.measure === zoom).map((one) => ({ ...one, measure: 0 }))),
    [all, zoom],
  );
  return (
    <>
      <Ruler
        pattern={shown}
        size={zoom === undefined && !forChild ? 'desk' : 'board'}
        fit={forChild}
        strips={!forChild}
        counts={counts}
        heard={marks}
        heardNotes={forChild ? undefined : shownNotes}
        sound={forChild ? undefined : sound}
        brackets={brackets}
        numbers={numbers}
        {...(correction && zoom === undefined ? { overlay: handlesOf(correction) } : {})}
      />
      <Legend shapes={[...new Set(all.map(({ shape }) => shape))]} />
    </>
  );
}

const handlesOf =
  (correction: Correction) =>
  (system: RulerSystem, { scale }: RulerLayout) => (
    <ClapHandles correction={correction} system={system} scale={scale} />
  );

function Legend({ shapes }: { shapes: readonly MarkShape[] }) {
  return (
    <ul className="legend" aria-label={t`Signs`}>
      {shapes.map((shape) => (
        <li key={shape}>
          <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden>
            <MarkSign shape={shape} />
          </svg>
          {MARK_NAMES()[shape]}
        </li>
      ))}
    </ul>
  );
}
