import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { FileDown, Printer } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { SavedSheet, SheetEdit } from '../../../contract/sheet.ts';
import { ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { LONGEST_TITLE, MOST_PATTERNS } from '../../../core/sheets/sheet.ts';
import { SHEET_KINDS } from '../../../core/sheets/sheetKinds.ts';
import type { SheetKind } from '../../../core/sheets/sheetQuestion.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useClass, useClasses } from '../../api/hooks.ts';
import { useSheets } from '../../api/sheets.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Select } from '../../ui/Select.tsx';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { saveFile } from '../../ui/saveFile.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { eachPart } from '../../domain/eachPart.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { HardElements } from './HardElements.tsx';
import { KeepSheet } from './KeepSheet.tsx';
import { PartList } from './PartList.tsx';
import { SheetPreview, openToPrint, printedText } from './SheetPreview.tsx';
import { SheetOptions } from './SheetOptions.tsx';
import { forgetDraft, keepDraft, lastDraft } from './keptDraft.ts';
import { aboutHard, anySeed, drawnSheet, editOf, levelTest, newSheet } from './sheetDraft.ts';
import { useMaking, useSheetFile } from './useSheetFile.ts';
import './sheets.scss';

/** Paper for the lesson: what is on it at the left, the pages as they will be printed at the right. */
export default function SheetsPage() {
  const { sheetId } = useParams();
  const [search] = useSearchParams();
  const [sheets, patterns, classes] = [useSheets(), useOfferedPatterns(), useClasses()];
  const current = useCurrentClass();
  const problem = sheets.error ?? patterns.error ?? classes.error;
  const again = () => void Promise.all([sheets.mutate(), patterns.mutate(), classes.mutate()]);
  if (!sheets.data || !patterns.data || !classes.data)
    return <Loading title={t`Sheets`} problem={problem} again={again} />;
  const saved = sheets.data.find(({ id }) => id === sheetId);
  if (sheetId !== undefined && !saved) return <Gone />;
  const wanted = (search.get('patterns') ?? search.get('pattern') ?? '').split(',');
  const chosen = patterns.data
    .filter(({ id }) => wanted.includes(id))
    .flatMap(eachPart)
    .slice(0, MOST_PATTERNS);
  const schoolClass = classes.data.find(({ id }) => id === search.get('class')) ?? current;
  const asked = search.get('elements')?.split(',') ?? [];
  const elements = ELEMENT_IDS.filter((id) => asked.includes(id) && id !== 'compound');
  const named = search.get('kinds')?.split(',') ?? [];
  const test = search.has('test') ? (search.get('meter') ?? '4/4') : undefined;
  const kinds = SHEET_KINDS.filter((kind) => named.includes(kind));
  return (
    <SheetView
      key={`${sheetId} ${search.toString()}`}
      saved={saved}
      sheets={sheets.data}
      patterns={patterns.data}
      classes={classes.data}
      begin={() => begun({ saved, chosen, schoolClass, elements, kinds, test, anew: search.size > 0 })}
    />
  );
}

interface Begun {
  readonly saved: SavedSheet | undefined;
  /** The patterns it is about; none: what is asked is made for it. */
  readonly chosen: readonly SavedPattern[];
  readonly schoolClass: ClassSummary | undefined;
  readonly elements: readonly ElementId[];
  readonly kinds: readonly SheetKind[];
  /** The meter of a test for four levels; undefined where none was asked for. */
  readonly test: string | undefined;
  /** Something was asked for: what was begun before is not taken up. */
  readonly anew: boolean;
}

/** The sheet a visit begins with: what was being changed, what is kept, or a new one. */
function begun({ saved, chosen, schoolClass, elements, kinds, test, anew }: Begun): SheetEdit {
  const last = anew ? undefined : lastDraft(saved?.id);
  if (last) return last.sheet;
  if (saved) return editOf(saved);
  const usual: readonly SheetKind[] = chosen.length > 0 ? ['counts', 'slip'] : ['counts'];
  const fresh = newSheet(voiceOf(schoolClass), schoolClass?.id ?? null, kinds.length > 0 ? kinds : usual);
  if (test) return levelTest(fresh, elements, test);
  const [first] = chosen;
  if (!first) return elements.length > 0 ? aboutHard(fresh, elements) : fresh;
  const parts = fresh.parts.map((part) => ({ ...part, patterns: chosen.map(({ text }) => text) }));
  const title = chosen.length === 1 ? first.title : t`${first.title} and ${chosen.length - 1} more`;
  return { ...fresh, title: title.slice(0, LONGEST_TITLE), parts };
}

function Gone() {
  return (
    <div className="empty">
      {rich`This sheet is not kept any more. ${<Link to="/sheets">{t`Make a new one`}</Link>}`}
    </div>
  );
}

interface ViewProps {
  readonly saved: SavedSheet | undefined;
  readonly sheets: readonly SavedSheet[];
  readonly patterns: readonly SavedPattern[];
  readonly classes: readonly ClassSummary[];
  readonly begin: () => SheetEdit;
}

/** A sheet under way, kept on this device with every change, and with what it is made from. */
function useDraftSheet(saved: SavedSheet | undefined, begin: () => SheetEdit) {
  const [sheet, setSheet] = useState(begin);
  const [was, setWas] = useState(() => saved && (lastDraft(saved.id)?.was ?? editOf(saved)));
  const change = (next: SheetEdit) => {
    setSheet(next);
    keepDraft(saved?.id, next, was);
  };
  /** Saved, with what another device has changed meanwhile; what was changed while it was being saved stays. */
  const adopt = (now: SheetEdit) => {
    setSheet((current) => (current === sheet ? now : current));
    setWas(now);
    if (JSON.stringify(lastDraft(saved?.id)?.sheet) === JSON.stringify(sheet)) forgetDraft();
  };
  return { sheet, was, change, adopt };
}

function SheetView({ saved, sheets, patterns, classes, begin }: ViewProps) {
  const { sheet, was, change, adopt } = useDraftSheet(saved, begin);
  const room = useClass(sheet.classId ?? undefined).data;
  const className = classes.find(({ id }) => id === sheet.classId)?.name;
  const names = sheet.names ? (room?.children.map(({ name }) => name) ?? []) : [];
  const drawn = { sheet: drawnSheet(sheet), voice: { counts: sheet.counts, naming: sheet.naming }, className };
  // To see how it looks two children are enough.
  const { file, trouble } = useSheetFile({ ...drawn, names, drawn: 2 });
  const { make, trouble: printTrouble } = useMaking({ ...drawn, names });
  const print = () => void make(openToPrint);
  const other = () => change({ ...sheet, seed: anySeed() });
  useKeys({ ' ': print, n: other });
  return (
    <>
      <SheetHead sheet={sheet} saved={saved} sheets={sheets} onChange={change} />
      <div className="sheet-actions">
        <Button size="lg" onClick={print}>
          <Printer size={18} aria-hidden /> {rich`Open to print ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <Button
          size="lg"
          variant="outline-dark"
          onClick={() => void make((content) => saveFile(`${drawn.sheet.title}.pdf`, content))}
        >
          <FileDown size={18} aria-hidden /> {t`Save the PDF`}
        </Button>
        <KeepSheet sheet={sheet} saved={saved} was={was} classes={classes} onKept={adopt} />
        <span className="flex-grow-1" />
        {file && <Totals sheet={sheet} points={file.points} />}
      </div>
      {printTrouble && <Notice problem={printTrouble} />}
      <div className="sheet-work">
        <section aria-label={t`What is on it`}>
          <PartList sheet={sheet} file={file} patterns={patterns} onChange={change} />
          <SheetOptions sheet={sheet} classes={classes} onChange={change} />
          {sheet.classId && (
            <HardElements
              classId={sheet.classId}
              naming={sheet.naming}
              onChoose={(elements) => change(aboutHard(sheet, elements))}
            />
          )}
        </section>
        <SheetPreview trouble={trouble} file={file} says={file && printedText(file.pages, names.length)} />
      </div>
    </>
  );
}

const NEW = '';

function SheetHead({
  sheet,
  saved,
  sheets,
  onChange,
}: Pick<ViewProps, 'saved' | 'sheets'> & { sheet: SheetEdit; onChange: (sheet: SheetEdit) => void }) {
  const navigate = useNavigate();
  const open = (id: string) => void navigate(id === NEW ? '/sheets' : `/sheets/${id}`);
  return (
    <div className="page-head">
      <h1 className="visually-hidden">{t`Sheets`}</h1>
      <Form.Control
        className="title-field"
        aria-label={t`Title of the sheet`}
        maxLength={60}
        value={sheet.title}
        onChange={({ target }) => onChange({ ...sheet, title: target.value })}
      />
      <span className="flex-grow-1" />
      {sheets.length > 0 && (
        <Select
          className="w-auto"
          label={t`Kept sheets`}
          value={saved?.id ?? NEW}
          options={[
            [NEW, saved ? t`Not kept` : t`Kept sheets…`],
            ...sheets.map(({ id, title }) => [id, title] as const),
          ]}
          onChoose={open}
        />
      )}
    </div>
  );
}

/** What it comes to, and the way to the column of the class it goes into. */
function Totals({ sheet, points }: { sheet: SheetEdit; points: number }) {
  if (points === 0) return null;
  const to = new URLSearchParams({ paper: 'new', title: sheet.title, outOf: String(points) });
  return (
    <>
      <span>{t`${counted(points, 'point')} in all`}</span>
      {sheet.classId && <Link to={`/classes/${sheet.classId}?${to.toString()}`}>{t`Enter the totals`}</Link>}
    </>
  );
}
