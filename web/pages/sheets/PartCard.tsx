import { counted, perLanguage, t } from '../../../core/words/say.ts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { SheetPartEdit } from '../../../contract/sheet.ts';
import { LEVELS } from '../../../core/making/level.ts';
import { elementsAt } from '../../../core/making/makePattern.ts';
import { MOST_QUESTIONS } from '../../../core/sheets/sheet.ts';
import type { SheetKind } from '../../../core/sheets/sheetQuestion.ts';
import { SHEET_WORDS } from '../../../core/wording/sheetWords.ts';
import { type NamingId, valueName } from '../../../core/wording/valueNames.ts';
import { ElementChecks } from '../../domain/ElementChecks.tsx';
import { eachPart } from '../../domain/eachPart.ts';
import { SelectField } from '../../ui/SelectField.tsx';
import type { PartChange } from './sheetDraft.ts';

/** What can be chosen of each kind beside its number and level. */
const ABOUT: Readonly<Record<SheetKind, readonly ('level' | 'rhythm' | 'beat' | 'cards')[]>> = {
  counts: ['level', 'rhythm'],
  complete: ['level', 'rhythm'],
  'bar-lines': ['level', 'rhythm'],
  'wrong-measure': ['level', 'rhythm'],
  'missing-part': ['level', 'rhythm'],
  'how-many': ['level'],
  'true-false': ['level'],
  sums: ['level', 'beat'],
  circle: ['level'],
  'name-sign': ['level'],
  stems: [],
  draw: [],
  choose: ['level', 'rhythm'],
  write: ['level', 'rhythm'],
  strips: ['level'],
  fold: ['level'],
  cards: ['level', 'rhythm', 'cards'],
  slip: ['level', 'rhythm'],
};

const METERS = ['2/4', '3/4', '4/4', '6/8'] as const;
const BEATS = ['h', 'e', 's'] as const;
/** One element alone makes no rhythm to ask about. */
const FEWEST = 2;

interface PartCardProps {
  readonly part: SheetPartEdit;
  /** How many questions it came to; undefined until it is drawn. */
  readonly made: number | undefined;
  readonly naming: NamingId;
  readonly patterns: readonly SavedPattern[];
  readonly first: boolean;
  readonly last: boolean;
  readonly onChange: (change: PartChange) => void;
  readonly onMove: (by: -1 | 1) => void;
  /** Undefined where it is the only one. */
  readonly onRemove: (() => void) | undefined;
}

/** The package takes 0 for no name at all. */
export const sortId = ({ key }: Pick<SheetPartEdit, 'key'>) => t`part ${key}`;

/** One kind of question on the sheet: to be changed, dragged and taken away. */
export function PartCard(props: PartCardProps) {
  const { part, made } = props;
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: sortId(part) });
  const { title } = SHEET_WORDS()[part.kind];
  const style = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style} className="card-paper sheet-part" aria-label={title}>
      <div className="sheet-part-head">
        <button type="button" className="grip" aria-label={t`Drag ${title}`} {...attributes} {...listeners}>
          <GripVertical size={18} aria-hidden />
        </button>
        <strong>{title}</strong>
        <MoveButtons {...props} title={title} />
      </div>
      <PartFields {...props} />
      {ABOUT[part.kind].includes('level') && !part.patterns && <ElementField {...props} />}
      {made !== undefined && made < part.count && (
        <p className="sheet-fewer" role="status">
          {made === 0
            ? t`Nothing can be asked about these: choose other elements, or another meter.`
            : t`Only ${counted(made, 'different one')} of these: choose more elements, or
              another level.`}
        </p>
      )}
    </li>
  );
}

function MoveButtons({ title, first, last, onMove, onRemove }: PartCardProps & { title: string }) {
  return (
    <>
      <Button size="sm" variant="link" aria-label={t`${title} up`} disabled={first} onClick={() => onMove(-1)}>
        <ArrowUp size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="link" aria-label={t`${title} down`} disabled={last} onClick={() => onMove(1)}>
        <ArrowDown size={16} aria-hidden />
      </Button>
      {onRemove && (
        <Button size="sm" variant="link" aria-label={t`Take ${title} away`} onClick={onRemove}>
          <X size={16} aria-hidden />
        </Button>
      )}
    </>
  );
}

function countIn(typed: string): number {
  return Math.max(1, Math.min(MOST_QUESTIONS, Math.round(Number(typed)) || 1));
}

const LEVEL_NAMES = perLanguage(() => ({ 1: t`1, easy`, 2: '2', 3: '3', 4: '4', 5: t`5, hard` }) as const);

function PartFields(props: PartCardProps) {
  const { part, onChange } = props;
  const about = ABOUT[part.kind];
  const id = `part-${part.key}`;
  return (
    <div className="sheet-part-fields">
      <Form.Group controlId={`${id}-count`}>
        <Form.Label>{t`Questions`}</Form.Label>
        <Form.Control
          type="number"
          min={1}
          max={MOST_QUESTIONS}
          value={part.count}
          onChange={({ target }) => onChange({ count: countIn(target.value) })}
        />
      </Form.Group>
      {about.includes('level') && (
        <SelectField
          id={`${id}-level`}
          label={t`Level`}
          value={String(part.level)}
          options={LEVELS.map((level) => [String(level), LEVEL_NAMES()[level]] as const)}
          onChoose={(level) => onChange({ level: LEVELS.find((one) => String(one) === level) ?? part.level })}
        />
      )}
      {about.includes('rhythm') && <RhythmFields {...props} />}
      {about.includes('beat') && <BeatField {...props} />}
      {about.includes('cards') && (
        <SelectField
          id={`${id}-cards`}
          label={t`On a card`}
          value={part.cards ?? 'measures'}
          options={[
            ['measures', t`a measure`],
            ['cells', t`a cell`],
          ]}
          onChoose={(cards) => onChange({ cards })}
        />
      )}
    </div>
  );
}

const MADE = '';
const KEPT = 'kept';

function RhythmFields({ part, patterns, onChange }: PartCardProps) {
  const readable = patterns.flatMap(eachPart);
  const [text] = part.patterns ?? [];
  const chosen = readable.find((one) => one.text === text);
  const kept = part.patterns && !chosen ? [[KEPT, counted(part.patterns.length, 'pattern')] as const] : [];
  return (
    <>
      <SelectField
        id={`part-${part.key}-rhythms`}
        label={t`Rhythms`}
        value={chosen?.id ?? (part.patterns ? KEPT : MADE)}
        options={[[MADE, t`made for it`], ...kept, ...readable.map(({ id, title }) => [id, title] as const)]}
        onChoose={(id) => {
          const pattern = readable.find((one) => one.id === id);
          if (id !== KEPT) onChange({ patterns: pattern && [pattern.text] });
        }}
      />
      {!part.patterns && (
        <SelectField
          id={`part-${part.key}-meter`}
          label={t`Meter`}
          value={part.meter ?? '4/4'}
          options={METERS.map((meter) => [meter, meter] as const)}
          onChoose={(meter) => onChange({ meter })}
        />
      )}
    </>
  );
}

function BeatField({ part, naming, onChange }: PartCardProps) {
  return (
    <SelectField
      id={`part-${part.key}-beat`}
      label={t`The beat is`}
      value={part.beat ?? MADE}
      options={[[MADE, t`mixed`], ...BEATS.map((beat) => [beat, valueName({ base: beat, dots: 0 }, naming)] as const)]}
      onChoose={(chosen) => onChange({ beat: BEATS.find((beat) => beat === chosen) })}
    />
  );
}

function ElementField({ part, naming, onChange }: PartCardProps) {
  const [open, setOpen] = useState(false);
  const chosen = part.elements ?? elementsAt(part.level);
  return (
    <>
      <Button variant="link" size="sm" aria-expanded={open} onClick={() => setOpen(!open)}>
        {part.elements ? t`From ${counted(chosen.length, 'element')}` : t`From what is usual at this level`}
      </Button>
      {open && (
        <ElementChecks
          id={`part-${part.key}`}
          legend={t`What it is made of`}
          chosen={chosen}
          fewest={FEWEST}
          naming={naming}
          onChoose={(elements) => onChange({ elements: [...elements] })}
        >
          {part.elements && (
            <Button variant="link" size="sm" onClick={() => onChange({ elements: undefined })}>
              {t`What is usual at the level`}
            </Button>
          )}
        </ElementChecks>
      )}
    </>
  );
}
