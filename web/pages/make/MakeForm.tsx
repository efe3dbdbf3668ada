import { t } from '../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import { PLACED_MISREADINGS } from '../../../core/making/focus.ts';
import { type Level, LEVELS } from '../../../core/making/level.ts';
import { ELEMENTS, ELEMENT_IDS } from '../../../core/rhythm/elements.ts';
import { misreadingTitle } from '../../../core/wording/misreadingSentences.ts';
import { type NamingId, capital, inNaming, measureName } from '../../../core/wording/valueNames.ts';
import { ElementChecks } from '../../domain/ElementChecks.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { LENGTHS, METERS, type MakeSettings } from './makeSettings.ts';

interface MakeFormProps {
  readonly settings: MakeSettings;
  readonly naming: NamingId;
  readonly onChange: (change: Partial<MakeSettings>) => void;
}

/** What the patterns are made of. */
export function MakeForm({ settings, naming, onChange }: MakeFormProps) {
  const { meter, measures, level, elements } = settings;
  return (
    <section className="make-form" aria-label={t`What they are made of`}>
      <div className="make-row">
        <SelectField
          id="make-meter"
          label={t`Meter`}
          value={meter}
          options={METERS.map((one) => [one, one] as const)}
          onChoose={(chosen) => onChange({ meter: chosen })}
        />
        <SelectField
          id="make-measures"
          label={capital(measureName(naming, true))}
          value={String(measures)}
          options={LENGTHS.map((one) => [String(one), String(one)] as const)}
          onChoose={(chosen) => onChange({ measures: Number(chosen) })}
        />
      </div>
      <LevelChoice level={level} onChoose={(chosen) => onChange({ level: chosen })} />
      <FocusField settings={settings} naming={naming} onChange={onChange} />
      <ElementChecks
        id="make"
        legend={t`Made of`}
        chosen={elements}
        fewest={1}
        naming={naming}
        onChoose={(chosen) => onChange({ elements: chosen })}
      />
    </section>
  );
}

function LevelChoice({ level, onChoose }: { level: Level; onChoose: (level: Level) => void }) {
  return (
    <fieldset className="level-choice">
      <legend>{t`Level`}</legend>
      {LEVELS.map((one) => (
        <Form.Check
          key={one}
          inline
          type="radio"
          name="make-level"
          id={`make-level-${one}`}
          label={one}
          checked={one === level}
          onChange={() => onChoose(one)}
        />
      ))}
      <span className="level-ends">{t`1 is easiest`}</span>
    </fieldset>
  );
}

function FocusField({ settings, naming, onChange }: MakeFormProps) {
  return (
    <Form.Group controlId="make-focus">
      <Form.Label>{t`To practise`}</Form.Label>
      <Form.Select value={settings.focus} onChange={({ target }) => onChange({ focus: target.value })}>
        <option value="">{t`nothing in particular`}</option>
        <optgroup label={t`An element`}>
          {ELEMENT_IDS.map((id) => (
            <option key={id} value={t`element ${id}`}>
              {inNaming(ELEMENTS()[id].title, naming)}
            </option>
          ))}
        </optgroup>
        <optgroup label={t`What is misread`}>
          {PLACED_MISREADINGS.map((code) => (
            <option key={code} value={t`misreading ${code}`}>
              {misreadingTitle(code, { naming })}
            </option>
          ))}
        </optgroup>
      </Form.Select>
    </Form.Group>
  );
}
