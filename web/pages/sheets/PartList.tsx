import { t } from '../../../core/words/say.ts';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { SheetEdit } from '../../../contract/sheet.ts';
import { MOST_PARTS } from '../../../core/sheets/sheet.ts';
import { SHEET_KINDS } from '../../../core/sheets/sheetKinds.ts';
import type { SheetKind } from '../../../core/sheets/sheetQuestion.ts';
import { SHEET_WORDS } from '../../../core/wording/sheetWords.ts';
import type { SheetFile } from '../../files/sheetMessages.ts';
import { Sorting } from '../../ui/Sorting.tsx';
import { PartCard, sortId } from './PartCard.tsx';
import { addPart, changePart, movePart, removePart } from './sheetDraft.ts';

interface PartListProps {
  readonly sheet: SheetEdit;
  readonly file: SheetFile | undefined;
  readonly patterns: readonly SavedPattern[];
  readonly onChange: (sheet: SheetEdit) => void;
}

/** The parts of a sheet in their order: dragged, or moved by their arrows. */
export function PartList({ sheet, file, patterns, onChange }: PartListProps) {
  const ids = sheet.parts.map(sortId);
  const partOf = (id: string) => sheet.parts[ids.indexOf(id)]!;
  return (
    <>
      <Sorting
        ids={ids}
        titleOf={(id) => SHEET_WORDS()[partOf(id).kind].title}
        onMoved={(id, to) => onChange(movePart(sheet, partOf(id).key, ids.indexOf(to)))}
      >
        <ol className="sheet-parts" aria-label={t`Parts of the sheet`}>
          {sheet.parts.map((part, at) => (
            <PartCard
              key={part.key}
              part={part}
              made={file?.parts.find(({ key }) => key === part.key)?.questions}
              naming={sheet.naming}
              patterns={patterns}
              first={at === 0}
              last={at === sheet.parts.length - 1}
              onChange={(change) => onChange(changePart(sheet, part.key, change))}
              onMove={(by) => onChange(movePart(sheet, part.key, at + by))}
              onRemove={sheet.parts.length > 1 ? () => onChange(removePart(sheet, part.key)) : undefined}
            />
          ))}
        </ol>
      </Sorting>
      {sheet.parts.length < MOST_PARTS && <AddPart onAdd={(kind) => onChange(addPart(sheet, kind))} />}
    </>
  );
}

/** Every kind with what it is; it stays open, so that several are added one after the other. */
function AddPart({ onAdd }: { onAdd: (kind: SheetKind) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="sheet-add">
      <Button variant="outline-dark" aria-expanded={open} onClick={() => setOpen(!open)}>
        <Plus size={16} aria-hidden /> {t`Add a part`}
      </Button>
      {open && (
        <ul className="sheet-kinds" aria-label={t`Kinds of parts`}>
          {SHEET_KINDS.map((kind) => (
            <li key={kind}>
              <button type="button" onClick={() => onAdd(kind)}>
                <strong>{SHEET_WORDS()[kind].title}</strong>
                <span>{SHEET_WORDS()[kind].about}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
