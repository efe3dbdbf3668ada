import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import fitsTrial from 'virtual:fits/retention-trial';
import { mutate } from 'swr';
import { LANGUAGES, LANGUAGE_IDS, t } from '../../../core/words/say.ts';
import type { Retention, RetentionTrial, School, SchoolEdit } from '../../../contract/school.ts';
import { put } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { HoldsFrom } from './KeptCard.tsx';
import { KEPT, type Kept, TIMES, daysText } from './keptWords.ts';

const NONE = '';

/** What the administrators of a school set. */
export function SchoolForm({ school }: { school: School }) {
  const { id, name, zone, language, retention, retentionFrom } = school;
  const [draft, setDraft] = useState<SchoolEdit>({ name, zone, language, retention });
  const change = (part: Partial<SchoolEdit>) => setDraft({ ...draft, ...part });
  const saving = useSave(async () => {
    await put(`/schools/${id}`, draft);
    // The name stands in what is known of who is signed in.
    await mutate('/session');
  }, `/schools/${id}`);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void saving.save();
  };
  const isChanged = JSON.stringify(draft) !== JSON.stringify({ name, zone, language, retention });
  return (
    <Form className="card-paper school-form" onSubmit={submit}>
      <h2>{t`The school`}</h2>
      <TextField
        id="school-name"
        label={t`Name of the school`}
        value={draft.name}
        maxLength={80}
        onValue={(value) => change({ name: value })}
      />
      <div className="school-fields">
        <SelectField
          id="school-zone"
          label={t`Time zone`}
          value={draft.zone}
          options={zones(draft.zone).map((one) => [one, one.replaceAll('_', ' ')] as const)}
          onChoose={(value) => change({ zone: value })}
        />
        <SelectField
          id="school-language"
          label={t`Language of what the school prints`}
          value={draft.language ?? NONE}
          options={[
            [NONE, t`as who prints it reads`],
            ...LANGUAGE_IDS.map((one) => [one, LANGUAGES[one].own] as const),
          ]}
          onChoose={(value) => change({ language: value === NONE ? null : value })}
        />
      </div>
      <RetentionFields retention={draft.retention} onChange={(times) => change({ retention: times })} />
      <WouldGo schoolId={id} retention={draft.retention} />
      <HoldsFrom at={retentionFrom} />
      {saving.problem && <Notice problem={saving.problem} />}
      <Button type="submit" disabled={saving.saving || !isChanged}>{t`Keep these settings`}</Button>
    </Form>
  );
}

interface RetentionProps {
  readonly retention: Retention;
  readonly onChange: (retention: Retention) => void;
}

function RetentionFields({ retention, onChange }: RetentionProps) {
  return (
    <>
      <h3>{t`How long things are kept`}</h3>
      <div className="school-fields">
        {KEPT().map(({ kind, name, usual }) => (
          <SelectField
            key={kind}
            id={`keep-${kind}`}
            label={name}
            value={String(retention[kind] ?? NONE)}
            options={[
              [NONE, usual],
              ...timesFor(kind, retention).map((days) => [String(days), daysText(days)] as const),
            ]}
            onChoose={(value) => onChange({ ...retention, [kind]: value === NONE ? null : Number(value) })}
          />
        ))}
      </div>
    </>
  );
}

/** The usual ones and the one that is set. */
function timesFor(kind: Kept, retention: Retention): number[] {
  const days = retention[kind];
  return [...new Set([...TIMES[kind], ...(days === null ? [] : [days])])].sort((a, b) => a - b);
}

function zones(now: string): string[] {
  return [...new Set(['UTC', now, ...Intl.supportedValuesOf('timeZone')])].sort();
}

/** What would go with these times, before anybody says so. */
function WouldGo({ schoolId, retention }: { schoolId: string; retention: Retention }) {
  const { takes, recordings, terms, left } = retention;
  const asked = Object.entries({ takes, recordings, terms, left })
    .map(([kind, days]) => `${kind}=${days ?? ''}`)
    .join('&');
  const nothing = takes === null && recordings === null && terms === null;
  const { data } = useGet<RetentionTrial>(nothing ? null : `/schools/${schoolId}/would-go?${asked}`, fitsTrial);
  if (nothing) return null;
  return (
    <p role="status">
      {data
        ? t`With these times ${data.takes} takes, ${data.recordings} recordings and ${data.terms} closed terms would
            go in the first night, a week after they were set. ${data.held} takes are held by teachers and stay.`
        : t`Counting what would go …`}
    </p>
  );
}
