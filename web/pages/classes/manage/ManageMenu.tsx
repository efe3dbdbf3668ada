import { perLanguage, t } from '../../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { togetherPath } from '../../../domain/togetherWeeks.ts';
import { CopyForm } from './CopyForm.tsx';
import { HoldClassForm } from './HoldForm.tsx';
import { MoveForm } from './MoveForm.tsx';
import { ShareForm } from './ShareForm.tsx';
import { TermForm } from './TermForm.tsx';
import './manage.scss';

const FORMS = ['share', 'terms', 'move', 'copy', 'hold'] as const;

/** What is done with a class as a whole, a few times a year. */
export type Managing = (typeof FORMS)[number];

const TITLES = perLanguage((): Readonly<Record<Managing, string>> => ({
  share: t`Share with a colleague`,
  terms: t`Terms`,
  move: t`Move children`,
  copy: t`Save as a file`,
  hold: t`Keep for longer`,
}));

interface ManageMenuProps {
  readonly schoolClass: ClassDetail;
  readonly onForm: (form: Managing) => void;
  readonly onRemove: () => void;
}

/** A colleague with whom the class is shared is offered what she may do. */
export function ManageMenu({ schoolClass: { id, role, children }, onForm, onRemove }: ManageMenuProps) {
  const mine = FORMS.filter((form) => (role === 'owner' ? form !== 'move' || children.length > 0 : form === 'terms'));
  return (
    <nav className="manage-menu" aria-label={t`More`}>
      {children.length > 0 && (
        <Link className="btn btn-outline-dark" to={`/classes/${id}/reports`}>{t`Reports for parents`}</Link>
      )}
      <Link className="btn btn-outline-dark" to={togetherPath(id)}>{t`Together`}</Link>
      {mine.map((form) => (
        <Button key={form} variant="outline-dark" onClick={() => onForm(form)}>
          {TITLES()[form]}
        </Button>
      ))}
      {role === 'owner' && <Button variant="outline-dark" onClick={onRemove}>{t`Remove the class`}</Button>}
    </nav>
  );
}

interface ManageFormProps {
  readonly schoolClass: ClassDetail;
  readonly form: Managing;
  readonly onClose: () => void;
}

export function ManageForm({ form, ...props }: ManageFormProps) {
  switch (form) {
    case 'share':
      return <ShareForm {...props} />;
    case 'terms':
      return <TermForm {...props} />;
    case 'move':
      return <MoveForm {...props} />;
    case 'copy':
      return <CopyForm {...props} />;
    case 'hold':
      return <HoldClassForm {...props} />;
  }
}

export function isManaging(form: string | undefined): form is Managing {
  return FORMS.includes(form as Managing);
}
