import { t } from '../../../core/words/say.ts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowLeft, ArrowRight, GripVertical } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { SavedPattern, ShelfEdit } from '../../../contract/pattern.ts';
import { put } from '../../api/client.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { toggled } from '../../ui/lists.ts';
import { Sorting } from '../../ui/Sorting.tsx';
import { useSave } from '../../api/useSave.ts';
import { type Shelved, inFolder, movedTo, placeOf, putAway } from './shelf.ts';

interface ArrangeProps {
  /** All of the teacher's, in their order; and those of them that are shown. */
  readonly patterns: readonly SavedPattern[];
  readonly shown: readonly Shelved[];
  readonly folders: readonly string[];
}

/** The list while it is put into order: dragged, into folders, put away. */
export function Arrange({ patterns, shown, folders }: ArrangeProps) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const saving = useSave(
    (places: ShelfEdit['patterns']) =>
      put('/patterns/shelf', { patterns: places, was: { patterns: patterns.map(placeOf) } }),
    '/patterns',
  );
  const ids = shown.map(({ saved }) => saved.id);
  const here = new Set(ids.filter((id) => chosen.has(id)));
  const move = (id: string, to: string | undefined) => {
    if (to !== undefined) void saving.save(movedTo(patterns, id, to));
  };
  const save = async (places: ShelfEdit['patterns']) => {
    if (await saving.save(places)) setChosen(new Set());
  };
  const away = shown.some(({ saved }) => here.has(saved.id) && !saved.archived);
  return (
    <>
      <div className="arrange-bar" role="group" aria-label={t`What is chosen`}>
        <span role="status">{here.size === 0 ? t`Choose some, or drag them into order.` : t`${here.size} chosen`}</span>
        <FolderField
          folders={folders}
          disabled={here.size === 0}
          onPut={(folder) => void save(inFolder(patterns, here, folder))}
        />
        <Button
          variant="outline-dark"
          disabled={here.size === 0}
          onClick={() => void save(putAway(patterns, here, away))}
        >
          {away || here.size === 0 ? t`Put away` : t`Bring back`}
        </Button>
      </div>
      {saving.problem && <Notice problem={saving.problem} />}
      <Sorting grid ids={ids} titleOf={(id) => shown[ids.indexOf(id)]!.saved.title} onMoved={move}>
        <ol className="pattern-list">
          {shown.map((one, i) => (
            <Item
              key={one.saved.id}
              shelved={one}
              chosen={here.has(one.saved.id)}
              onChoose={() => setChosen(toggled(here, one.saved.id))}
              onBack={i === 0 ? undefined : () => move(one.saved.id, ids[i - 1])}
              onForward={i === ids.length - 1 ? undefined : () => move(one.saved.id, ids[i + 1])}
            />
          ))}
        </ol>
      </Sorting>
    </>
  );
}

interface FolderFieldProps {
  readonly folders: readonly string[];
  readonly disabled: boolean;
  /** Empty: into no folder. */
  readonly onPut: (folder: string) => void;
}

function FolderField({ folders, disabled, onPut }: FolderFieldProps) {
  const [folder, setFolder] = useState('');
  return (
    <Form
      className="folder-field"
      onSubmit={(event) => {
        event.preventDefault();
        onPut(folder);
      }}
    >
      <Form.Control
        aria-label={t`Folder`}
        placeholder={t`A folder, or none`}
        list="folders"
        maxLength={60}
        value={folder}
        onChange={({ target }) => setFolder(target.value)}
      />
      <datalist id="folders">
        {folders.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <Button type="submit" variant="outline-dark" disabled={disabled}>{t`Put there`}</Button>
    </Form>
  );
}

interface ItemProps {
  readonly shelved: Shelved;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  /** Undefined at the ends. */
  readonly onBack: (() => void) | undefined;
  readonly onForward: (() => void) | undefined;
}

function Item({ shelved: { saved, pattern, parts, soundsLike }, chosen, onChoose, onBack, onForward }: ItemProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: saved.id });
  const { title, folder } = saved;
  return (
    <li ref={setNodeRef} className="pattern-card" style={{ transform: CSS.Translate.toString(transform), transition }}>
      <div className="arrange-head">
        <button type="button" className="grip" aria-label={t`Move ${title}`} {...attributes} {...listeners}>
          <GripVertical size={18} aria-hidden />
        </button>
        <Form.Check type="checkbox" id={`choose-${saved.id}`} label={title} checked={chosen} onChange={onChoose} />
        <Button variant="link" aria-label={t`${title} one place back`} disabled={!onBack} onClick={onBack}>
          <ArrowLeft size={16} aria-hidden />
        </Button>
        <Button variant="link" aria-label={t`${title} one place on`} disabled={!onForward} onClick={onForward}>
          <ArrowRight size={16} aria-hidden />
        </Button>
      </div>
      {pattern && <MiniNotes pattern={parts[0]!.pattern} parts={parts} />}
      {folder !== undefined && <span className="pattern-folder">{folder}</span>}
      {soundsLike !== undefined && <span className="pattern-like">{t`Sounds like “${soundsLike}”`}</span>}
    </li>
  );
}
