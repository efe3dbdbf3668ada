import { perLanguage, t } from '../../../../core/words/say.ts';
import type { ClassSummary } from '../../../../contract/schoolClass.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { LineUpSettings } from '../../../../contract/lineUp.ts';
import type { Order } from '../../../../core/records/lineUp.ts';
import { classOptions } from '../../../domain/currentClass.ts';
import { SelectField, titled } from '../../../ui/SelectField.tsx';
import { TempoField } from '../TempoField.tsx';
import type { ReadPattern } from './linePlan.ts';

export type LineSettings = Omit<LineUpSettings, 'patternIds'> & { readonly patternIds: readonly string[] };

const ORDER_NAMES = perLanguage((): readonly (readonly [Order, string])[] => [
  ['list', t`as in the class list`],
  ['name', t`by name`],
  ['shuffled', t`shuffled`],
  ['not-yet', t`who has not yet, first`],
]);
const HEARD_BY = [
  ['tap', t`taps`],
  ['microphone', t`microphone`],
] as const;
const TRIES = ['1', '2', '3', '4', '5'].map((tries) => [tries, tries] as const);

interface LineFieldsProps {
  readonly classes: readonly ClassSummary[];
  readonly classId: string;
  readonly patterns: readonly ReadPattern[];
  readonly settings: LineSettings;
  readonly onClass: (id: string) => void;
  readonly onSettings: (change: Partial<LineSettings>) => void;
}

/** Class, pattern or patterns, tempo, and how the children are heard. */
export function LineFields(props: LineFieldsProps) {
  return (
    <>
      <Choices {...props} />
      <Switches {...props} />
    </>
  );
}

function Choices({ classes, classId, patterns, settings, onClass, onSettings }: LineFieldsProps) {
  const { patternIds, bpm, heardBy, tries, order, startsItself } = settings;
  return (
    <div className="choices">
      <SelectField
        id="line-class"
        label={t`Class`}
        value={classId}
        options={classOptions(classes)}
        onChoose={onClass}
      />
      <SelectField
        id="line-pattern"
        label={t`Pattern`}
        value={patternIds[0] ?? ''}
        options={titled(patterns)}
        onChoose={(id) => onSettings({ patternIds: [id, ...patternIds.slice(1).filter((other) => other !== id)] })}
      />
      <TempoField bpm={bpm} onBpm={(value) => onSettings({ bpm: value })} />
      <SelectField
        id="line-heard-by"
        label={t`Heard by`}
        value={heardBy}
        options={HEARD_BY}
        onChoose={(way) => onSettings({ heardBy: way, startsItself: way === 'microphone' && startsItself })}
      />
      <SelectField
        id="line-tries"
        label={t`Tries`}
        value={String(tries)}
        options={TRIES}
        onChoose={(chosen) => onSettings({ tries: Number(chosen) })}
      />
      <SelectField
        id="line-order"
        label={t`Order`}
        value={order}
        options={ORDER_NAMES()}
        onChoose={(chosen) => onSettings({ order: chosen })}
      />
    </div>
  );
}

function Switches({ patterns, settings, onSettings }: LineFieldsProps) {
  const { patternIds, heardBy, startsItself, pairs = false } = settings;
  const chosen = patterns.find(({ id }) => id === patternIds[0]);
  const inParts = patternIds.length === 1 && (chosen?.parts.length ?? 0) > 1;
  const [several, setSeveral] = useState(patternIds.length > 1);
  return (
    <>
      <div className="line-switches">
        <Form.Check
          type="switch"
          id="line-several"
          label={t`Several patterns, dealt out so that neighbours have different ones`}
          checked={several}
          onChange={({ target: { checked } }) => {
            setSeveral(checked);
            if (!checked) onSettings({ patternIds: patternIds.slice(0, 1) });
          }}
        />
        {inParts && heardBy === 'tap' && (
          <Form.Check
            type="switch"
            id="line-pairs"
            label={t`In pairs: ${chosen!.parts[0]!.name} at F, ${chosen!.parts[1]!.name} at J`}
            checked={pairs}
            onChange={({ target: { checked } }) => onSettings({ pairs: checked })}
          />
        )}
        {heardBy === 'microphone' && (
          <Form.Check
            type="switch"
            id="line-starts-itself"
            label={t`Start by itself when the room is quiet`}
            checked={startsItself}
            onChange={({ target: { checked } }) => onSettings({ startsItself: checked })}
          />
        )}
      </div>
      {several && (
        <DealtPatterns patterns={patterns} chosen={patternIds} onChosen={(ids) => onSettings({ patternIds: ids })} />
      )}
    </>
  );
}

interface DealtProps {
  readonly patterns: readonly ReadPattern[];
  readonly chosen: readonly string[];
  readonly onChosen: (ids: readonly string[]) => void;
}

function DealtPatterns({ patterns, chosen, onChosen }: DealtProps) {
  return (
    <fieldset className="dealt">
      <legend>{t`Dealt out`}</legend>
      {patterns.map(({ id, title }) => (
        <Form.Check
          key={id}
          type="checkbox"
          id={`dealt-${id}`}
          label={title}
          checked={chosen.includes(id)}
          disabled={chosen.length === 1 && chosen[0] === id}
          onChange={({ target: { checked } }) =>
            onChosen(checked ? [...chosen, id] : chosen.filter((other) => other !== id))
          }
        />
      ))}
    </fieldset>
  );
}
