import { perLanguage, t } from '../../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { Share, ShareEdit } from '../../../../contract/sharing.ts';
import { put, remove } from '../../../api/client.ts';
import { useShares } from '../../../api/hooks.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { Select } from '../../../ui/Select.tsx';
import { useSave } from '../../../api/useSave.ts';

const ROLES = perLanguage((): readonly (readonly [ShareEdit['role'], string])[] => [
  ['hear', t`may hear children and give marks`],
  ['look', t`may only look`],
]);

/** With whom a class is shared, and what for. */
export function ShareForm({ schoolClass, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  const path = `/classes/${schoolClass.id}/shares`;
  const { data, error } = useShares(schoolClass.id);
  const [name, setName] = useState('');
  const [role, setRole] = useState<ShareEdit['role']>('hear');
  const sharing = useSave((share: ShareEdit) => put(path, share), '/classes');
  const ending = useSave((teacherId: string) => remove(`${path}/${teacherId}`), '/classes');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await sharing.save({ name: name.trim(), role })) setName('');
  };
  const problem = sharing.problem ?? ending.problem ?? error;
  return (
    <section className="card-paper manage-form" aria-label={t`Share with a colleague`}>
      <h2>{t`Share with a colleague`}</h2>
      <p>{data?.length === 0 ? t`Only you see this class.` : t`Settings, children and the bin stay yours.`}</p>
      <ul className="shares">
        {data?.map((share) => (
          <Shared
            key={share.teacherId}
            share={share}
            onRole={(to) => void sharing.save({ name: share.name, role: to })}
            onEnd={() => void ending.save(share.teacherId)}
          />
        ))}
      </ul>
      <Form className="share-line" onSubmit={(event) => void submit(event)}>
        <Form.Control
          aria-label={t`Name of the colleague`}
          placeholder={t`the name they sign in with`}
          value={name}
          required
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
        <Select className="w-auto" label={t`May`} value={role} options={ROLES()} onChoose={setRole} />
        <Button type="submit">{t`Share`}</Button>
        <Button variant="outline-dark" onClick={onClose}>{t`Done`}</Button>
      </Form>
      {problem && <Notice problem={problem} />}
    </section>
  );
}

interface SharedProps {
  readonly share: Share;
  readonly onRole: (role: ShareEdit['role']) => void;
  readonly onEnd: () => void;
}

function Shared({ share: { name, role }, onRole, onEnd }: SharedProps) {
  return (
    <li className="share-line">
      <strong>{name}</strong>
      <Select className="w-auto" label={t`${name} may`} value={role} options={ROLES()} onChoose={onRole} />
      <Button variant="outline-dark" onClick={onEnd} aria-label={t`Stop sharing with ${name}`}>
        {t`Stop sharing`}
      </Button>
    </li>
  );
}
