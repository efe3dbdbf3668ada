import { perLanguage, t } from '../../../../core/words/say.ts';
import { useId, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type Labels, numbersOf } from '../../../../core/formats/buildPattern.ts';
import type { RawVoice } from '../../../../core/formats/piece.ts';
import { type NamingId, inNaming } from '../../../../core/wording/valueNames.ts';
import { MiniNotes } from '../../../ruler/MiniNotes.tsx';
import { Ruler } from '../../../ruler/Ruler.tsx';
import { Select } from '../../../ui/Select.tsx';
import {
  ALL_LINES,
  type Brought,
  EACH_PART,
  type Extent,
  type Line,
  type LineChoice,
  type Offer,
  hasParts,
  leftOutWords,
} from './broughtIn.ts';

interface PieceCardProps {
  readonly brought: Brought;
  readonly lines: readonly Line[];
  /** The chosen line; undefined where parts do not go together. */
  readonly voice: RawVoice | undefined;
  readonly offers: readonly Offer[];
  readonly naming: NamingId;
  readonly onChange: (part: Partial<Brought>) => void;
}

/** One piece: which line, how much of it, and what comes of it as notes. */
export function PieceCard({ brought, lines, voice, offers, naming, onChange }: PieceCardProps) {
  const { piece, choice, file, left } = brought;
  const choose = (part: Partial<LineChoice>) => onChange({ choice: { ...choice, ...part }, mended: {}, left: [] });
  const inParts = useMemo(() => hasParts(piece), [piece]);
  const missing = voice ? leftOutWords(piece, lines, voice, choice) : [];
  return (
    <>
      <Form.Control
        className="title-field"
        aria-label={t`Title of ${file.name}`}
        maxLength={60}
        value={choice.title}
        onChange={({ target }) => onChange({ choice: { ...choice, title: target.value } })}
      />
      <LineChoices inParts={inParts} choice={choice} lines={lines} voice={voice} naming={naming} onChoose={choose} />
      {!voice && (
        <p className="field-trouble">{t`These parts have measures of different lengths: choose one of them.`}</p>
      )}
      {missing.length > 0 && <p className="left-out">{t`Left out: ${missing.join(', ')}.`}</p>}
      <ul className="offers">
        {offers.map((offer, i) => (
          <OfferRow
            key={i}
            offer={offer}
            single={offers.length === 1}
            taken={!left.includes(i)}
            onTake={(taken) => onChange({ left: taken ? left.filter((one) => one !== i) : [...left, i] })}
            onMend={(text) => onChange({ mended: { ...brought.mended, [i]: text } })}
          />
        ))}
      </ul>
    </>
  );
}

const LABELS = perLanguage((): readonly (readonly [Labels, string])[] => [
  ['own', t`nothing on the notes`],
  ['letters', t`letter names on the notes`],
]);

interface ChoicesProps {
  /** They are one pattern together. */
  readonly inParts: boolean;
  readonly choice: LineChoice;
  readonly lines: readonly Line[];
  readonly voice: RawVoice | undefined;
  readonly naming: NamingId;
  readonly onChoose: (part: Partial<LineChoice>) => void;
}

function LineChoices({ inParts, choice, lines, voice, naming, onChoose }: ChoicesProps) {
  const pitched = lines.some((line) => line.voice.measures.some(({ events }) => events.some(({ letter }) => letter)));
  const numbers = voice ? numbersOf(voice) : [];
  const extents: readonly (readonly [Extent, string])[] = [
    ['all', t`all ${numbers.length} ${inNaming('{measure+}', naming)}`],
    ['phrases', t`cut into phrases`],
    ['measures', inNaming(t`only {measure+} …`, naming)],
  ];
  return (
    <div className="plan-row">
      {lines.length > 1 && (
        <Select
          size="sm"
          label={t`Part`}
          value={choice.line}
          options={[
            ...(inParts ? [[EACH_PART, t`all parts, each a line of its own`] as const] : []),
            ...lines.map(({ key, name }) => [key, name] as const),
            [ALL_LINES, t`all parts as one rhythm`],
          ]}
          onChoose={(line) => onChoose({ line })}
        />
      )}
      {numbers.length > 1 && (
        <Select
          size="sm"
          label={t`How much`}
          value={choice.extent}
          options={extents}
          onChoose={(extent) => onChoose({ extent })}
        />
      )}
      {choice.extent === 'measures' && (
        <>
          <MeasureField
            label={inNaming(t`From {measure}`, naming)}
            value={choice.from}
            onChange={(from) => onChoose({ from })}
          />
          <span>{t`to`}</span>
          <MeasureField
            label={inNaming(t`To {measure}`, naming)}
            value={choice.to}
            onChange={(to) => onChoose({ to })}
          />
        </>
      )}
      {pitched && (
        <Select
          size="sm"
          label={t`On the notes`}
          value={choice.labels}
          options={LABELS()}
          onChoose={(labels) => onChoose({ labels })}
        />
      )}
    </div>
  );
}

function MeasureField(props: { label: string; value: number; onChange: (value: number) => void }) {
  const { label, value, onChange } = props;
  return (
    <Form.Control
      size="sm"
      type="number"
      min={0}
      className="measure-number"
      aria-label={label}
      value={value || ''}
      onChange={({ target }) => onChange(Number(target.value))}
    />
  );
}

interface OfferRowProps {
  readonly offer: Offer;
  readonly single: boolean;
  readonly taken: boolean;
  readonly onTake: (taken: boolean) => void;
  readonly onMend: (text: string) => void;
}

/** A pattern to be saved: a single one large, one of many at a glance. */
function OfferRow({ offer: { title, text, score, trouble }, single, taken, onTake, onMend }: OfferRowProps) {
  const [mending, setMending] = useState(false);
  const id = useId();
  return (
    <li className={taken ? 'offer' : 'offer offer-left'}>
      <Form.Check
        type="checkbox"
        id={id}
        label={title}
        checked={taken && trouble === undefined}
        disabled={trouble !== undefined}
        onChange={({ target }) => onTake(target.checked)}
      />
      {score &&
        (single ? (
          <Ruler pattern={score.parts[0]!.pattern} parts={score.parts} strips={false} />
        ) : (
          <MiniNotes pattern={score.parts[0]!.pattern} parts={score.parts} />
        ))}
      {trouble && <p className="field-trouble">{t`It cannot be saved: ${trouble}.`}</p>}
      {(mending || trouble !== undefined) && text !== '' ? (
        <Form.Control
          as="textarea"
          rows={2}
          aria-label={t`Rhythm of ${title}`}
          value={text}
          onChange={({ target }) => onMend(target.value)}
        />
      ) : (
        text !== '' && <Button size="sm" variant="link" onClick={() => setMending(true)}>{t`Change the rhythm`}</Button>
      )}
    </li>
  );
}
