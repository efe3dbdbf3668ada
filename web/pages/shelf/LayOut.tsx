import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v4 as uuid } from 'uuid';
import { t } from '../../../core/words/say.ts';
import { SHELF_KINDS, type ShelfKind, type ShelfThing } from '../../../contract/schoolShelf.ts';
import { put } from '../../api/client.ts';
import { useClasses, usePatterns, usePlans } from '../../api/hooks.ts';
import { useLessons, useTermPlan } from '../../api/planning.ts';
import { useSheets } from '../../api/sheets.ts';
import { useSave } from '../../api/useSave.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { TextField } from '../../ui/TextField.tsx';
import { lessonThing, linesThing, patternThing, planThing, sheetThing, termThing } from './shelfThings.ts';
import { KINDS } from './shelfWords.ts';

interface LayOutProps {
  /** Of the shelf. */
  readonly path: string;
  /** What another page asks for: "lesson:<id>"; '' for nothing. */
  readonly asked: string;
  readonly onClose: () => void;
}

/** One of the things that can be laid out. */
interface Offered {
  readonly id: string;
  readonly title: string;
  readonly thing: ShelfThing;
}

/** What a teacher has of a kind. */
function useOffered(kind: ShelfKind, classId: string | undefined): readonly Offered[] | undefined {
  const patterns = usePatterns().data;
  const plans = usePlans().data;
  const sheets = useSheets().data;
  const lessons = useLessons(kind === 'lesson' ? classId : undefined).data;
  const term = useTermPlan(kind === 'term' ? classId : undefined).data;
  const folders = [...new Set((patterns ?? []).flatMap(({ folder }) => folder ?? []))];
  switch (kind) {
    case 'pattern':
      return patterns?.map((one) => ({ id: one.id, title: one.title, thing: patternThing(one) }));
    case 'lines':
      return (
        patterns &&
        folders.map((folder) => {
          const inside = patterns.filter((one) => one.folder === folder && !one.archived);
          return { id: folder, title: folder, thing: linesThing(inside.slice(0, MOST_LINES)) };
        })
      );
    case 'plan':
      return plans?.map((one) => ({ id: one.id, title: one.title, thing: planThing(one) }));
    case 'sheet':
      return sheets?.map((one) => ({ id: one.id, title: one.title, thing: sheetThing(one) }));
    case 'lesson':
      return lessons?.map((one) => ({ id: one.id, title: one.title, thing: lessonThing(one) }));
    case 'term':
      return term === undefined ? undefined : term ? [{ id: 'term', title: t`Term`, thing: termThing(term) }] : [];
  }
}

const MOST_LINES = 40;

/** Which thing is laid out, and under what name. */
function useLayOut(path: string, asked: string) {
  const [askedKind, askedId] = asked.split(':');
  const [id] = useState(() => uuid());
  const [kind, setKind] = useState<ShelfKind>(SHELF_KINDS.find((one) => one === askedKind) ?? 'pattern');
  const classes = (useClasses().data ?? []).filter(({ role }) => role !== 'look');
  const current = useCurrentClass();
  const [room, setRoom] = useState<string>();
  const classId = room ?? current?.id ?? classes[0]?.id;
  const offered = useOffered(kind, classId);
  const [chosen, setChosen] = useState(askedId);
  const [title, setTitle] = useState<string>();
  const [about, setAbout] = useState('');
  const one = offered?.find((thing) => thing.id === chosen) ?? offered?.[0];
  const called = title ?? one?.title ?? '';
  const laying = useSave(
    () => put(`${path}/${id}`, { title: called.trim(), about: about.trim(), thing: one!.thing }),
    path,
  );
  const choose = (next: string) => {
    setChosen(next);
    setTitle(undefined);
  };
  const chooseKind = (next: ShelfKind) => {
    setKind(next);
    choose('');
  };
  return {
    kind,
    chooseKind,
    classes,
    classId,
    setRoom,
    offered,
    one,
    choose,
    called,
    setTitle,
    about,
    setAbout,
    laying,
  };
}

/** Lays one of a teacher's things on the shelf. */
export function LayOut({ path, asked, onClose }: LayOutProps) {
  const draft = useLayOut(path, asked);
  const { one, offered, called, about, laying } = draft;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await laying.save()) onClose();
  };
  return (
    <Form className="card-paper lay-out" onSubmit={(event) => void submit(event)}>
      <h2>{t`Lay something out for your colleagues`}</h2>
      <WhichThing draft={draft} />
      {offered?.length === 0 && <p>{t`You have none of these yet.`}</p>}
      <div className="lay-out-fields">
        <TextField
          id="lay-title"
          label={t`What it is called there`}
          value={called}
          maxLength={60}
          onValue={draft.setTitle}
        />
        <Form.Group controlId="lay-about" className="mb-3">
          <Form.Label>{t`A word on it`}</Form.Label>
          <Form.Control value={about} maxLength={200} onChange={(event) => draft.setAbout(event.target.value)} />
        </Form.Group>
      </div>
      <p>{t`Colleagues see your name on it and take copies. No class, no mark and no name of a child goes with it.`}</p>
      {laying.problem && <Notice problem={laying.problem} />}
      <div className="lay-out-actions">
        <Button type="submit" disabled={!one || laying.saving}>{t`Lay it on the shelf`}</Button>
        <Button variant="outline-dark" onClick={onClose}>{t`Cancel`}</Button>
      </div>
    </Form>
  );
}

function WhichThing({ draft }: { draft: ReturnType<typeof useLayOut> }) {
  const { kind, classes, classId, offered, one } = draft;
  return (
    <div className="lay-out-fields">
      <SelectField
        id="lay-kind"
        label={t`Kind`}
        value={kind}
        options={SHELF_KINDS.map((each) => [each, KINDS()[each]] as const)}
        onChoose={draft.chooseKind}
      />
      {(kind === 'lesson' || kind === 'term') && (
        <SelectField
          id="lay-class"
          label={t`Of the class`}
          value={classId ?? ''}
          options={classes.map((each) => [each.id, each.name] as const)}
          onChoose={draft.setRoom}
        />
      )}
      <SelectField
        id="lay-which"
        label={kind === 'lines' ? t`All of the folder` : t`Which`}
        value={one?.id ?? ''}
        options={(offered ?? []).map((each) => [each.id, each.title] as const)}
        onChoose={draft.choose}
      />
    </div>
  );
}
