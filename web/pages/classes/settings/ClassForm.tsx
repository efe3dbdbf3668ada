import { LANGUAGES, LANGUAGE_IDS, perLanguage, t } from '../../../../core/words/say.ts';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { REST_STYLES, type RestStyle } from '../../../../core/counting/countingSystem.ts';
import { COUNTING_SYSTEM_CHOICES } from '../../../../core/counting/countingSystems.ts';
import type { ClassSettings } from '../../../../contract/schoolClass.ts';
import { AGES } from '../../../../core/judging/windows.ts';
import { REST_NAMES } from '../../../../core/wording/restNames.ts';
import { NAMINGS, NAMING_IDS } from '../../../../core/wording/valueNames.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { SelectField } from '../../../ui/SelectField.tsx';
import type { SettingsFormProps } from './settingsForm.ts';

const OWN_LANGUAGE = '';
const AS_THE_SCHOOL = '';
const RESTS = perLanguage((): readonly (readonly [RestStyle | typeof AS_THE_SCHOOL, string])[] => [
  [AS_THE_SCHOOL, t`as the school does`],
  ...REST_STYLES.map((style) => [style, REST_NAMES()[style]] as const),
]);

/** Name, ages and how a class counts. */
export function ClassForm({ settings, action, problem, onSave, onCancel }: SettingsFormProps & { action: string }) {
  const [value, setValue] = useState(settings);
  const name = useRef<HTMLInputElement>(null);
  useEffect(() => name.current?.focus(), []);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onSave({ ...value, name: value.name.trim() });
  };
  return (
    <Form className="card-paper class-form" onSubmit={submit}>
      <Form.Group controlId="class-name">
        <Form.Label>{t`Name`}</Form.Label>
        <Form.Control
          ref={name}
          value={value.name}
          required
          maxLength={60}
          onChange={(event) => setValue({ ...value, name: event.target.value })}
        />
      </Form.Group>
      <SelectField
        id="class-ages"
        label={t`Ages`}
        value={value.ages}
        options={AGES.map((ages) => [ages, ages] as const)}
        onChoose={(ages) => setValue({ ...value, ages })}
      />
      <SelectField
        id="class-school"
        label={t`Counts as`}
        value={value.school}
        options={COUNTING_SYSTEM_CHOICES()}
        onChoose={(school) => setValue({ ...value, school })}
      />
      <SelectField
        id="class-rests"
        label={t`Rests`}
        value={value.rests ?? AS_THE_SCHOOL}
        options={RESTS()}
        onChoose={(rests) => setValue({ ...value, rests: rests === AS_THE_SCHOOL ? null : rests })}
      />
      <SelectField
        id="class-naming"
        label={t`Values are called`}
        value={namingOf(value)}
        options={NAMING_IDS.map((id) => [id, NAMINGS()[id].title] as const)}
        onChoose={(naming) => setValue({ ...value, naming })}
      />
      <ClassLanguage value={value} onChange={setValue} />
      <div className="class-form-actions">
        <Button type="submit">{action}</Button>
        <Button variant="outline-dark" onClick={onCancel}>{t`Cancel`}</Button>
      </div>
      {problem && <Notice problem={problem} />}
    </Form>
  );
}

interface ClassLanguageProps {
  readonly value: ClassSettings;
  readonly onChange: (value: ClassSettings) => void;
}

/** A class may learn in another language than its teacher works in. */
function ClassLanguage({ value, onChange }: ClassLanguageProps) {
  return (
    <SelectField
      id="class-language"
      label={t`What children see and hear`}
      value={value.language ?? OWN_LANGUAGE}
      options={[[OWN_LANGUAGE, t`in my language`], ...LANGUAGE_IDS.map((id) => [id, LANGUAGES[id].own] as const)]}
      onChoose={(language) => onChange({ ...value, language: language === OWN_LANGUAGE ? null : language })}
    />
  );
}
