import {
  type Active,
  type Announcements,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  type Over,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
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
import { PartCard, sortId } from './PartCard.tsx';
import { addPart, changePart, movePart, removePart } from './sheetDraft.ts';

interface PartListProps {
  readonly sheet: SheetEdit;
  readonly file: SheetFile | undefined;
  readonly patterns: readonly SavedPattern[];
  readonly onChange: (sheet: SheetEdit) => void;
}

const HOW_TO_DRAG = 'Space takes it, the arrows move it, space puts it down, escape leaves it where it was.';
/** Pixels a finger moves before it drags: a tap stays a tap. */
const DRAGS_FROM = 6;

/** The parts of a sheet in their order: dragged, or moved by their arrows. */
export function PartList({ sheet, file, patterns, onChange }: PartListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAGS_FROM } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = sheet.parts.map(sortId);
  const titleAt = (id: Active['id']) => SHEET_WORDS[sheet.parts[ids.indexOf(String(id))]!.kind].title;
  const placed = ({ active, over }: { active: Active; over: Over | null }) =>
    over ? `${titleAt(active.id)}: place ${ids.indexOf(String(over.id)) + 1} of ${ids.length}.` : undefined;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${titleAt(active.id)} is taken.`,
    onDragOver: placed,
    onDragEnd: placed,
    onDragCancel: ({ active }) => `${titleAt(active.id)} stays where it was.`,
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    const part = sheet.parts[ids.indexOf(String(active.id))];
    if (over && part) onChange(movePart(sheet, part.key, ids.indexOf(String(over.id))));
  };
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={{ announcements, screenReaderInstructions: { draggable: HOW_TO_DRAG } }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className="sheet-parts" aria-label="Parts of the sheet">
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
        </SortableContext>
      </DndContext>
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
        <Plus size={16} aria-hidden /> Add a part
      </Button>
      {open && (
        <ul className="sheet-kinds" aria-label="Kinds of parts">
          {SHEET_KINDS.map((kind) => (
            <li key={kind}>
              <button type="button" onClick={() => onAdd(kind)}>
                <strong>{SHEET_WORDS[kind].title}</strong>
                <span>{SHEET_WORDS[kind].about}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
