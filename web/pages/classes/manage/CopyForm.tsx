import { t } from '../../../../core/words/say.ts';
import { Download } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';

/** All of a class in one file of the teacher's own. */
export function CopyForm({ schoolClass: { id, name }, onClose }: { schoolClass: ClassDetail; onClose: () => void }) {
  return (
    <section className="card-paper manage-form" aria-label={t`Save as a file`}>
      <h2>{t`Save all of it as a file`}</h2>
      <p>{t`Children, takes, marks, terms, practice weeks and recordings that are still
          kept, in one file. It can be read in again under Classes, here or in another
          school. Whoever has the file can read all of it: keep it as you keep your mark
          book.`}</p>
      <div className="class-form-actions">
        <a className="btn btn-primary" href={`/api/classes/${id}/copy`} download={`${name}.json`}>
          <Download size={16} aria-hidden /> {t`Save ${name}`}
        </a>
        <Button variant="outline-dark" onClick={onClose}>{t`Done`}</Button>
      </div>
    </section>
  );
}
