import { t } from '../../../core/words/say.ts';
import { FilePlus, Save, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { SavedSheet, SheetEdit } from '../../../contract/sheet.ts';
import { remove } from '../../api/client.ts';
import { BothVersions } from '../../domain/BothVersions.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { MadeBy, ToShelf } from '../../domain/ToShelf.tsx';
import { namesOf } from '../../domain/namesIn.ts';
import { SHEET_NAMES } from '../../domain/partWords.ts';
import { useEditing } from '../../api/useEditing.ts';
import { useSave } from '../../api/useSave.ts';
import { forgetDraft } from './keptDraft.ts';
import { editOf } from './sheetDraft.ts';

interface KeepProps {
  readonly saved: SavedSheet | undefined;
  readonly classes: readonly Pick<ClassSummary, 'id' | 'name'>[];
  readonly sheet: SheetEdit;
  /** What it was when it was begun to be changed. */
  readonly was: SheetEdit | undefined;
  readonly onKept: (now: SheetEdit) => void;
}

/** Keeps a sheet, and the changes to it beside those of another device; or throws it away. */
export function KeepSheet({ sheet, saved, was, classes, onKept }: KeepProps) {
  const navigate = useNavigate();
  const [id] = useState(() => saved?.id ?? uuid());
  const [kept, setKept] = useState<SheetEdit>();
  const keeping = useEditing<SheetEdit>(`/sheets/${id}`, was, ['/sheets'], (now) => {
    const edit = editOf(now as SavedSheet);
    onKept(edit);
    setKept(edit);
    return edit;
  });
  const removal = useSave(() => remove(`/sheets/${id}`), '/sheets');
  const keep = async () => {
    if ((await keeping.save({ ...sheet, title: sheet.title.trim() || t`Sheet` })) && !saved)
      await navigate(`/sheets/${id}`);
  };
  const drop = async () => {
    if (!confirm(t`Throw the sheet ${sheet.title} away?`) || !(await removal.save())) return;
    forgetDraft();
    await navigate('/sheets');
  };
  const anew = () => {
    forgetDraft();
    void navigate('/sheets');
  };
  const problem = keeping.problem ?? removal.problem;
  return (
    <>
      <Button size="lg" variant="outline-dark" disabled={keeping.saving} onClick={() => void keep()}>
        <Save size={18} aria-hidden /> {saved ? t`Save the changes` : t`Keep this sheet`}
      </Button>
      {saved && (
        <>
          <Button size="lg" variant="outline-dark" onClick={anew}>
            <FilePlus size={18} aria-hidden /> {t`New sheet`}
          </Button>
          <Button size="lg" variant="link" aria-label={t`Throw this sheet away`} onClick={() => void drop()}>
            <Trash2 size={18} aria-hidden />
          </Button>
        </>
      )}
      {saved && <ToShelf kind="sheet" id={saved.id} />}
      <MadeBy from={sheet.from} />
      <span role="status">{kept === sheet ? t`Kept` : ''}</span>
      {keeping.clash && (
        <BothVersions
          clash={keeping.clash}
          names={{ ...SHEET_NAMES(), ...namesOf(classes) }}
          onChosen={(theirs) => void keeping.settle(theirs)}
        />
      )}
      {problem && <Notice problem={problem} />}
    </>
  );
}
